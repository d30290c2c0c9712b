import { defineStore } from 'pinia'
import { reactive, watch } from 'vue'
import { setUsualContext } from '../searchUrl'

const KEY = 'oddbeacon.layout'

/** How somebody likes the pages, kept in this browser. */
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
}

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
  })
  try {
    Object.assign(layout, JSON.parse(localStorage.getItem(KEY) ?? '{}'))
  } catch {
    // what was kept cannot be read: as if nothing had been
  }
  setUsualContext(layout.context)
  watch(layout, () => {
    setUsualContext(layout.context)
    try {
      localStorage.setItem(KEY, JSON.stringify(layout))
    } catch {
      // a browser that keeps nothing
    }
  })

  function toggleFacet(name: string) {
    layout.foldedFacets = layout.foldedFacets.includes(name)
      ? layout.foldedFacets.filter(one => one !== name)
      : [...layout.foldedFacets, name]
  }

  return { layout, toggleFacet }
})
