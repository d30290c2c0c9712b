import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import * as requests from '../requests'
import type { ExclusionSet, Scope } from '../wire'

/** The exclusion sets, kept current by the service's events. */
export const useSets = defineStore('sets', () => {
  const all = ref<ExclusionSet[]>([])
  const loaded = ref(false)
  const byDefault = computed(() => all.value.filter(set => set.byDefault).map(set => set.name))

  async function load() {
    try {
      put(await requests.exclusionSets())
    } catch {
      // the page says elsewhere that the service is gone
    }
  }

  function put(sets: ExclusionSet[]) {
    all.value = sets
    loaded.value = true
  }

  /** The names of the sets that a search with a scope applies. */
  function applied(scope: Scope): string[] {
    return [...new Set([...scope.except, ...byDefault.value.filter(name => !scope.lift.includes(name))])]
  }

  /** Applies a set to a scope, or takes it off. */
  function toggle(scope: Scope, name: string) {
    const isByDefault = byDefault.value.includes(name)
    if (applied(scope).includes(name)) {
      scope.except = scope.except.filter(one => one !== name)
      if (isByDefault) scope.lift = [...scope.lift, name]
    } else if (isByDefault) scope.lift = scope.lift.filter(one => one !== name)
    else scope.except = [...scope.except, name]
  }

  return { all, byDefault, loaded, load, put, applied, toggle }
})
