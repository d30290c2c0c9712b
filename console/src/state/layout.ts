import { defineStore } from 'pinia'
import { reactive, watch } from 'vue'
import { keep, read } from '../desk'
import { setUsualContext } from '../searchUrl'

/** How somebody likes the pages, kept on their desk. */
interface Layout {
  dense: boolean
  preview: boolean
  picture: boolean
  context: number
  foldedFacets: string[]
  outline: boolean
  split: boolean
  blame: boolean
  overTime: boolean
  /** Keys that somebody set, by the names of actions. */
  keys: Record<string, string>
  /** Widths of panes, in pixels; without one, a pane has its usual width. */
  widths: Record<string, number>
}
export type Pane = 'counts' | 'preview' | 'beside' | 'places'

export const useLayout = defineStore('layout', () => {
  const layout = reactive<Layout>({
    dense: false,
    preview: false,
    picture: false,
    context: 2,
    foldedFacets: [],
    outline: true,
    split: false,
    blame: false,
    overTime: false,
    keys: {},
    widths: {},
  })
  /** Takes what is kept. */
  function load() {
    Object.assign(layout, read('layout'))
    setUsualContext(layout.context)
  }
  load()
  watch(layout, () => {
    setUsualContext(layout.context)
    if (JSON.stringify(read('layout')) !== JSON.stringify(layout)) keep('layout', { ...layout })
  })

  function toggleFacet(name: string) {
    layout.foldedFacets = layout.foldedFacets.includes(name)
      ? layout.foldedFacets.filter(one => one !== name)
      : [...layout.foldedFacets, name]
  }

  return { layout, load, toggleFacet }
})
