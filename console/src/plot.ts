import uPlot from 'uplot'
import 'uplot/dist/uPlot.min.css'
import { onBeforeUnmount, onMounted, type Ref, watch } from 'vue'

/** The start of a day in UTC, in seconds since 1970. */
export const seconds = (day: string) => Date.parse(`${day}T00:00:00Z`) / 1000

/** A colour of the theme, by the name of its variable. */
export const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim()

const FONT = '11px IBM Plex Sans'

/** Days below, whole numbers on the left. @param space between two numbers, in pixels */
const axes = (space?: number): uPlot.Axis[] => [
  { stroke: colour('--soft'), grid: { show: false }, ticks: { stroke: colour('--rule') }, font: FONT, size: 42 },
  {
    stroke: colour('--soft'),
    grid: { stroke: colour('--rule'), width: 1 },
    ticks: { show: false },
    font: FONT,
    size: 42,
    space,
    incrs: [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000, 50_000, 100_000],
  },
]

interface Plot {
  options: Partial<uPlot.Options> & Pick<uPlot.Options, 'series'>
  data: uPlot.AlignedData
}

/**
 * A plot over days that is as wide as its host, and drawn again when its source or the theme changes.
 * @param make what is drawn; nothing while there is nothing
 */
export function usePlot(
  host: Ref<HTMLElement | undefined>,
  height: number,
  source: () => unknown,
  make: () => Plot | undefined,
  space?: number,
) {
  let plot: uPlot | undefined

  function draw() {
    plot?.destroy()
    plot = undefined
    const made = host.value && make()
    if (!host.value || !made) return
    plot = new uPlot(
      {
        width: host.value.clientWidth,
        height,
        padding: [8, 8, 0, 0],
        legend: { show: false },
        tzDate: time => uPlot.tzDate(new Date(time * 1000), 'UTC'),
        axes: axes(space),
        ...made.options,
      },
      made.data,
      host.value,
    )
  }

  const sizes = new ResizeObserver(() => {
    if (plot && host.value) plot.setSize({ width: host.value.clientWidth, height })
  })
  const themes = new MutationObserver(draw)
  onMounted(() => {
    draw()
    if (host.value) sizes.observe(host.value)
    themes.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] })
  })
  watch(source, draw)
  onBeforeUnmount(() => {
    sizes.disconnect()
    themes.disconnect()
    plot?.destroy()
  })
}
