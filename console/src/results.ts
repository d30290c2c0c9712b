import {
  computed,
  nextTick,
  onActivated,
  onBeforeUnmount,
  onDeactivated,
  onMounted,
  reactive,
  ref,
  shallowRef,
  useTemplateRef,
  watch,
} from 'vue'
import { type LocationQuery, type LocationQueryRaw, useRoute, useRouter } from 'vue-router'
import { emptySearch, fromUrl, toUrl } from './searchUrl'
import { type Subject, useSubjects } from './state/subjects'
import { narrowedTo } from './toggled'
import type { Scope, ScopePart } from './wire'

/** What is asked of every subject. */
export interface Quest {
  text: string
  reading: string
  scope: Scope
}

interface Page<Q extends Quest, A, T> {
  subject: Subject
  nothing: () => Q
  /** What the address says, beside text, reading and scope. */
  fromAddress: (query: LocationQuery) => Partial<Q>
  /** What the address shall say, beside text, reading and scope. */
  toAddress: (quest: Q) => LocationQueryRaw
  readings: readonly string[]
  /** Whether there is anything to ask for; always, unless this is given. */
  isAsked?: (quest: Q) => boolean
  ask: (quest: Q, signal: AbortSignal, more: { cursor?: string; counts?: 'exact' }) => Promise<A>
  items: (answer: A) => T[]
  /** The links of the list, as a selector. */
  links: string
  title: (quest: Q) => string
  /** Takes a key in the list that moves nothing; says whether it did. */
  key?: (event: KeyboardEvent, at: number) => boolean
}

interface Counted {
  counts: { exact: boolean }
  facets: unknown
  stopped?: string | null
  next: string | null
}

const PAUSE = 30 // milliseconds: keys that follow each other faster become one question

export const one = (query: LocationQuery, name: string) => String([query[name]].flat()[0] ?? '')
export const all = (query: LocationQuery, name: string) =>
  [query[name]].flat().filter((value): value is string => !!value)

/**
 * What pages of results share: the question and its address, one request a key which the next one cancels, page after page,
 * and the keys of the list. What an older request answers later is dropped.
 */
export function useResults<Q extends Quest, A extends Counted, T>(page: Page<Q, A, T>) {
  const route = useRoute()
  const router = useRouter()
  const subjects = useSubjects()
  const quest = reactive(page.nothing()) as Q
  const answer = shallowRef<A>()
  const items = shallowRef<T[]>([])
  const problem = ref('')
  const box = useTemplateRef<HTMLInputElement>('box') // where the text is typed
  let asking = new AbortController()
  let timer = 0
  let active = false
  let loading = false
  let asked: string | undefined
  let recorded = 0 // how many changes of the address on their way are our own

  const address = computed<LocationQueryRaw>(() => ({
    ...toUrl({ ...emptySearch(), scope: quest.scope, context: 2 }),
    ...(quest.text ? { q: quest.text } : {}),
    ...(quest.reading !== page.readings[0] ? { reading: quest.reading } : {}),
    ...page.toAddress(quest),
  }))

  /** Takes the question from the address. */
  function take() {
    Object.assign(quest, page.nothing(), {
      text: one(route.query, 'q'),
      reading: page.readings.find(reading => reading === one(route.query, 'reading')) ?? page.readings[0],
      scope: fromUrl(route.query).scope,
      ...page.fromAddress(route.query),
    })
  }

  watch(
    () => JSON.stringify(address.value),
    () => {
      if (!active) return
      clearTimeout(timer)
      timer = window.setTimeout(() => {
        void record()
        void run()
      }, PAUSE)
    },
  )

  /** Brings the question into the address. What is typed meanwhile is not overwritten by what was recorded. */
  async function record() {
    recorded++
    try {
      await router.replace({ name: page.subject, query: address.value })
    } finally {
      recorded--
    }
  }
  watch(
    () => route.fullPath,
    () => {
      if (active && !recorded && route.name === page.subject) take()
    },
  )

  const copy = (): Q => ({ ...quest, scope: { ...quest.scope } })

  async function run() {
    const key = JSON.stringify(address.value)
    if (key === asked) return
    asked = key
    subjects.remember(quest)
    asking.abort()
    const own = (asking = new AbortController())
    if (page.isAsked && !page.isAsked(quest)) {
      show(undefined)
      return
    }
    try {
      const found = await page.ask(copy(), own.signal, {})
      if (own !== asking) return
      show(found)
      document.title = `${page.title(quest)} · Odd Beacon`
      if (!found.counts.exact && !found.stopped) await count(own)
    } catch (error) {
      if (own !== asking || own.signal.aborted) return
      show(undefined)
      problem.value = (error as Error).message
      asked = undefined // so that the same question may be asked again
    }
  }

  function show(found?: A) {
    answer.value = found
    items.value = found ? page.items(found) : []
    problem.value = ''
  }

  /** The first page came with lower bounds; the exact figures follow. */
  async function count(own: AbortController) {
    const exact = await page.ask(copy(), own.signal, { counts: 'exact' })
    if (own === asking && answer.value)
      answer.value = { ...answer.value, counts: exact.counts, facets: exact.facets, stopped: exact.stopped }
  }

  async function more() {
    const before = answer.value
    if (!before?.next || loading) return
    loading = true
    const own = asking
    try {
      const found = await page.ask(copy(), own.signal, { cursor: before.next })
      if (own !== asking) return
      items.value = [...items.value, ...page.items(found)]
      answer.value = { ...found, counts: answer.value!.counts, facets: answer.value!.facets }
    } catch (error) {
      if (own === asking && !own.signal.aborted) problem.value = (error as Error).message
    } finally {
      loading = false
    }
  }

  /** A click on a count narrows to it; another takes it back. */
  function choose(part: ScopePart, value: string) {
    quest.scope[part] = narrowedTo(quest.scope[part], value)
  }

  function keys(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey || event.altKey) return
    const links = [...document.querySelectorAll<HTMLElement>(page.links)]
    const at = links.indexOf(document.activeElement as HTMLElement)
    const inBox = event.target === box.value
    if (event.key === '/' && !isTypedIn(event.target)) {
      box.value?.focus()
      box.value?.select()
    } else if (event.key === 'ArrowDown' && (at >= 0 || inBox)) links[at + 1]?.focus()
    else if (event.key === 'ArrowUp' && at >= 0) (links[at - 1] ?? box.value)?.focus()
    else if (event.key === 'Enter' && inBox) links[0]?.click()
    else if (at < 0 || !page.key?.(event, at)) return
    event.preventDefault()
  }

  function start() {
    if (active) return
    active = true
    take()
    void run()
    window.addEventListener('keydown', keys)
    void nextTick(() => {
      if (!quest.text) box.value?.focus()
    })
  }
  function stop() {
    active = false
    clearTimeout(timer)
    window.removeEventListener('keydown', keys)
  }
  onMounted(start)
  onActivated(start)
  onDeactivated(stop)
  onBeforeUnmount(() => {
    stop()
    asking.abort()
  })

  return { quest, answer, items, problem, choose, more }
}

const isTypedIn = (target: EventTarget | null) =>
  target instanceof HTMLTextAreaElement ||
  target instanceof HTMLSelectElement ||
  (target instanceof HTMLInputElement && target.type !== 'checkbox')
