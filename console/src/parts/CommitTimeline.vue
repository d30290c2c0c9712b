<script setup lang="ts">
import uPlot from 'uplot'
import { ref } from 'vue'
import { colour, seconds, usePlot } from '../plot'
import type { Timeline } from '../wire'

// Commits over time, as bars. A span that is drawn narrows the search to it.
const props = defineProps<{ timeline: Timeline }>()
const emit = defineEmits<{ span: [after: string, before: string] }>()
const host = ref<HTMLElement>()

const asDay = (time: number) => new Date(time * 1000).toISOString().slice(0, 10)
const HEIGHT = 110
const DAY = 86_400
const WIDTHS = { day: DAY, week: 7 * DAY, month: 30 * DAY, year: 365 * DAY }

usePlot(
  host,
  HEIGHT,
  () => props.timeline,
  () => {
    if (!props.timeline.bars.length) return undefined
    const width = WIDTHS[props.timeline.unit]
    const x = props.timeline.bars.map(bar => seconds(bar.from) + width / 2)
    const y = props.timeline.bars.map(bar => bar.commits)
    const first = x[0]! - width
    const last = x[x.length - 1]! + width
    return {
      data: [x, y],
      options: {
        cursor: { y: false, points: { show: false }, drag: { x: true, y: false, setScale: false } },
        scales: { x: { range: [first, last] }, y: { range: (_, __, max) => [0, Math.max(1, max)] } },
        series: [
          {},
          {
            fill: colour('--accent'),
            stroke: colour('--accent'),
            width: 0,
            points: { show: false },
            paths: (u, series, from, to) => bars(u, series, from, to, width, first, last),
          },
        ],
        hooks: {
          setSelect: [
            u => {
              if (u.select.width < 4) return
              const from = u.posToVal(u.select.left, 'x')
              const to = u.posToVal(u.select.left + u.select.width, 'x')
              u.setSelect({ left: 0, top: 0, width: 0, height: 0 }, false)
              emit('span', asDay(from), asDay(to + DAY))
            },
          ],
        },
      },
    }
  },
  30,
)
/** Bars as wide as their unit is on this scale. */
function bars(
  u: uPlot,
  series: number,
  from: number,
  to: number,
  width: number,
  first: number,
  last: number,
): uPlot.Series.Paths | null {
  const share = Math.min(
    0.9,
    ((u.bbox.width * width) / (last - first) - 1) / Math.max(1, u.bbox.width / Math.max(1, to - from + 1)),
  )
  return uPlot.paths.bars!({ size: [Math.max(0.05, share), 60, 2] })(u, series, from, to) as uPlot.Series.Paths | null
}
</script>

<template>
  <figure
    class="timeline"
    :aria-label="`Commits by ${timeline.unit}: ${timeline.bars.length} bars`"
    data-part="timeline"
  >
    <div ref="host" class="h-[110px]" title="Draw a span to narrow the search to it" />
  </figure>
</template>

<style>
.timeline .u-select {
  background: color-mix(in srgb, var(--mark) 55%, transparent);
}
</style>
