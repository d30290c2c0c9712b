import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import * as requests from '../requests'
import type { Overview } from '../wire'
import { useSets } from './sets'

const OF_ONE_REQUEST = 50

/**
 * How many repositories there are and how they are, kept current by the service's events. There may be ten thousand:
 * who needs some of them asks for these.
 */
export const useRepositories = defineStore('repositories', () => {
  const overview = ref<Overview>()
  const gone = ref(false)
  /** Goes up when any of them may have changed. */
  const changes = ref(0)
  const titles = ref(new Map<string, string>())
  let asked = new Set<string>() // titles that are being asked for, or are known
  let wanted: string[] = []
  let events: EventSource | undefined
  let listening = false
  let watching = false

  const loaded = computed(() => overview.value !== undefined)
  const count = computed(() => overview.value?.repositories ?? 0)
  const busy = computed(() => (overview.value?.waiting ?? 0) + (overview.value?.indexing ?? 0))
  const labels = computed(() => overview.value?.labels ?? [])
  const commits = computed(() => overview.value?.commits ?? '')

  async function load() {
    try {
      overview.value = await requests.overview()
      changes.value++
      gone.value = false
    } catch {
      gone.value = true
    }
  }

  /** The title of a repository: its name until it is known. Those that are wanted at the same time are asked for together. */
  function title(name: string): string {
    if (!asked.has(name)) {
      asked.add(name)
      if (!wanted.length) queueMicrotask(askForTitles)
      wanted.push(name)
    }
    return titles.value.get(name) ?? name
  }

  async function askForTitles() {
    const names = wanted
    wanted = []
    for (let from = 0; from < names.length; from += OF_ONE_REQUEST) {
      const some = names.slice(from, from + OF_ONE_REQUEST)
      try {
        for (const one of await requests.repositories({ name: some })) titles.value.set(one.name, one.title)
      } catch {
        some.forEach(name => asked.delete(name))
      }
    }
  }

  /**
   * Listens while the page is in sight; after a pause all is loaded again. A page in the background must let go: a browser
   * opens no more than six connections to a service, and as many forgotten tabs would leave none for searching.
   */
  function listen() {
    listening = true
    open()
    if (watching) return
    watching = true
    document.addEventListener('visibilitychange', () => (document.hidden ? close() : open()))
    window.addEventListener('pagehide', close)
    window.addEventListener('pageshow', open)
  }

  /** Lets go, and forgets everything: nobody is signed in any more. */
  function stop() {
    listening = false
    close()
    overview.value = undefined
    titles.value = new Map()
    asked = new Set()
  }

  function close() {
    events?.close()
    events = undefined
  }

  function open() {
    if (events || document.hidden || !listening) return
    events = new EventSource('/api/v1/events?about=overview')
    events.onopen = () => void load()
    events.onerror = () => {
      gone.value = true
    }
    events.addEventListener('overview', () => void load())
    events.addEventListener('visibility', () => void load())
    events.addEventListener('exclusion-sets', () => void useSets().load())
  }

  return { overview, count, busy, labels, commits, changes, loaded, gone, load, listen, stop, title }
})
