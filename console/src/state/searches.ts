import { defineStore } from 'pinia'
import { ref } from 'vue'
import * as requests from '../requests'
import type { SavedSearch } from '../wire'

/** The saved searches of whoever looks. */
export const useSearches = defineStore('searches', () => {
  const saved = ref<SavedSearch[]>([])
  const loaded = ref(false)

  async function load() {
    try {
      saved.value = await requests.savedSearches()
      loaded.value = true
    } catch {
      // the page says elsewhere that the service is gone
    }
  }

  return { saved, loaded, load }
})
