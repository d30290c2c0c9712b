import { defineStore } from 'pinia'
import { ref } from 'vue'
import * as requests from '../requests'
import type { TypesAndTraits } from '../wire'

/** What files can be; the same as long as the service runs. */
export const useTypes = defineStore('types', () => {
  const types = ref<TypesAndTraits['types']>([])
  const traits = ref<TypesAndTraits['traits']>([])

  async function load() {
    if (types.value.length) return
    try {
      const found = await requests.types()
      types.value = found.types
      traits.value = found.traits
    } catch {
      // asked again when it is needed again
    }
  }

  return { types, traits, load }
})
