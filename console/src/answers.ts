import { ref, shallowRef } from 'vue'
import { ServiceError, ServiceGone } from './requests'
import type { Mistake, Problem } from './wire'

/** What answers of all subjects have. */
export interface Answer {
  counts: { exact: boolean }
  facets: unknown
  stopped?: string | null
  next: string | null
  query?: object
}

/** One question that was asked, until a newer one takes its place. */
export interface Run {
  signal: AbortSignal
  isCurrent: () => boolean
}

export interface Asking<Q, A extends Answer, T> {
  ask: (quest: Q, signal: AbortSignal, more: { cursor?: string; counts?: 'exact' }) => Promise<A>
  items: (answer: A) => T[]
  /** Joins the items so far and those of the next page; one after the other, unless this is given. */
  joined?: (before: T[], page: T[]) => T[]
  /** Called when a question is asked, so that others can be asked beside it. */
  begun?: (quest: Q, run: Run) => void
  /** Called when the answer to a question is shown. */
  answered?: (answer: A, quest: Q, run: Run) => void
  /** Called when nothing is shown any more. */
  cleared?: () => void
}

const MOST_ATTEMPTS = 6

/**
 * One question at a time and its answer, page after page. A newer question cancels the older one, whose answer is dropped
 * if it comes all the same. An expression that is not finished and a service that does not answer leave what is shown.
 */
export function useAnswers<Q, A extends Answer, T>(asking: Asking<Q, A, T>) {
  const answer = shallowRef<A>()
  const items = shallowRef<T[]>([])
  const problem = ref<Problem>()
  const unfinished = ref<Mistake>() // what is missing at the end of what is being typed
  const gone = ref(false) // the service does not answer
  const running = ref(false)
  let current = new AbortController()
  let quest: Q
  let pages = 0

  const runOf = (own: AbortController): Run => ({ signal: own.signal, isCurrent: () => own === current })

  async function run(wanted: Q) {
    current.abort()
    const own = (current = new AbortController())
    const its = runOf(own)
    quest = wanted
    running.value = true
    asking.begun?.(wanted, its)
    try {
      const found = await uncancelled({}, its)
      if (!its.isCurrent()) return
      show(found)
      unfinished.value = (found.query as { unfinished?: Mistake } | undefined)?.unfinished ?? undefined
      asking.answered?.(found, wanted, its)
      if (!found.counts.exact && !found.stopped) void count(its)
    } catch (error) {
      fail(error, its, clear)
    } finally {
      if (its.isCurrent()) running.value = false
    }
  }

  /**
   * The service cancels an asker's older search when a newer one arrives; requests may overtake each other on the way, and
   * then it is the newer one that was cancelled. That one is asked again.
   */
  async function uncancelled(more: { cursor?: string; counts?: 'exact' }, its: Run): Promise<A> {
    let found = await asking.ask(quest, its.signal, more)
    for (let attempt = 1; attempt < MOST_ATTEMPTS && found.stopped === 'cancelled' && its.isCurrent(); attempt++)
      found = await asking.ask(quest, its.signal, more)
    return found
  }

  function show(found: A) {
    answer.value = found
    items.value = asking.items(found)
    problem.value = undefined
    gone.value = false
    pages = 1
  }

  function clear() {
    answer.value = undefined
    items.value = []
    pages = 0
    asking.cleared?.()
  }

  /** Nothing is asked. */
  function stop() {
    current.abort()
    current = new AbortController()
    running.value = false
    problem.value = undefined
    unfinished.value = undefined
    clear()
  }

  /** The first page came with lower bounds; the exact figures follow. */
  async function count(its: Run) {
    try {
      const exact = await uncancelled({ counts: 'exact' }, its)
      if (its.isCurrent() && answer.value)
        answer.value = { ...answer.value, counts: exact.counts, facets: exact.facets, stopped: exact.stopped }
    } catch {
      // the lower bounds stay
    }
  }

  async function more() {
    const before = answer.value
    if (!before?.next || running.value) return
    running.value = true
    const its = runOf(current)
    try {
      const page = await uncancelled({ cursor: before.next }, its)
      if (!its.isCurrent()) return
      const joined = asking.joined ?? ((a: T[], b: T[]) => [...a, ...b])
      items.value = joined(items.value, asking.items(page))
      answer.value = { ...answer.value!, next: page.next }
      pages++
    } catch (error) {
      fail(error, its)
    } finally {
      if (its.isCurrent()) running.value = false
    }
  }

  function fail(error: unknown, its: Run, refused?: () => void) {
    if (!its.isCurrent() || its.signal.aborted) return
    unfinished.value = undefined
    gone.value = error instanceof ServiceGone
    if (gone.value) return
    const why = problemOf(error)
    if (why.mistakes?.length && why.mistakes.every(mistake => mistake.unfinished)) {
      unfinished.value = why.mistakes[0]
      problem.value = undefined
      return
    }
    problem.value = why
    refused?.()
  }

  /** Whether an answer to the same question may take the place of what is shown: nobody has read on yet. */
  const mayBeRenewed = () => pages <= 1

  return { answer, items, problem, unfinished, gone, running, run, stop, more, mayBeRenewed }
}

/** What to say of an error: what the service said, or else the error's own message. */
export const problemOf = (error: unknown): Problem =>
  error instanceof ServiceError ? error.problem : { title: 'Failed', status: 0, detail: (error as Error).message }
