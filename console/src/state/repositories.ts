import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import * as requests from '../requests'
import type { Repository } from '../wire'
import { useSets } from './sets'

/** The registered repositories, kept current by the service's events. */
export const useRepositories = defineStore('repositories', () => {
  const byName = ref(new Map<string, Repository>())
  const loaded = ref(false)
  const gone = ref(false)
  let events: EventSource | undefined
  let listening = false
  let watching = false

  const all = computed(() => [...byName.value.values()].sort((a, b) => (a.name < b.name ? -1 : 1)))
  const busy = computed(() =>
    all.value.filter(repository => repository.state === 'waiting' || repository.state === 'indexing'),
  )
  const labels = computed(() => [...new Set(all.value.flatMap(repository => repository.labels))].sort())

  async function load() {
    try {
      byName.value = new Map((await requests.repositories()).map(repository => [repository.name, repository]))
      loaded.value = true
      gone.value = false
    } catch {
      gone.value = true
    }
  }

  function put(repository: Repository) {
    byName.value.set(repository.name, repository)
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
    byName.value = new Map()
    loaded.value = false
  }

  function close() {
    events?.close()
    events = undefined
  }

  function open() {
    if (events || document.hidden || !listening) return
    events = new EventSource('/api/v1/events')
    events.onopen = () => void load()
    events.onerror = () => {
      gone.value = true
    }
    events.addEventListener('repository', event => put(JSON.parse((event as MessageEvent).data)))
    events.addEventListener('visibility', () => void load())
    events.addEventListener('exclusion-sets', () => void useSets().load())
    events.addEventListener('removed', event => byName.value.delete(JSON.parse((event as MessageEvent).data).name))
  }

  return { all, busy, labels, loaded, gone, load, listen, stop, put }
})
