import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import * as requests from '../requests'
import type { PlacesAnswer } from '../wire'

const KEY = 'oddbeacon.places'

/** The text whose places are stepped through, kept while the tab is open. */
export const usePlaces = defineStore('places', () => {
  const text = ref(sessionStorage.getItem(KEY) ?? '')
  const answer = shallowRef<PlacesAnswer>()
  const problem = ref('')
  const at = ref(0) // which place is looked at
  let asking = new AbortController()

  /** @param kept the place that is looked at, when the text is read again */
  async function read(kept = 0) {
    asking.abort()
    const own = (asking = new AbortController())
    problem.value = ''
    try {
      sessionStorage.setItem(KEY, text.value)
    } catch {
      // too long to be kept
    }
    if (!text.value.trim()) {
      answer.value = undefined
      return
    }
    try {
      const found = await requests.places(text.value, own.signal)
      if (own !== asking) return
      answer.value = found
      const first = found.places.findIndex(place => place.files.length)
      at.value = kept && kept < found.places.length ? kept : Math.max(0, first)
    } catch (error) {
      if (own.signal.aborted) return
      answer.value = undefined
      problem.value = (error as Error).message
    }
  }

  return { text, answer, problem, at, read }
})
