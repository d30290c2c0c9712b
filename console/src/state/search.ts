import { defineStore } from 'pinia'
import { reactive, ref, shallowRef } from 'vue'
import * as requests from '../requests'
import { emptySearch } from '../searchUrl'
import { useSubjects } from './subjects'
import type {
  FileHits,
  FilesAnswer,
  LeftOut,
  LinesAnswer,
  Mistake,
  Problem,
  Search,
  SecondLook,
  CommitsAnswer,
  SymbolsAnswer,
} from '../wire'

/** Nobody types longer names. */
const LONGEST_NAME = 120

/** The search that is on the screen and its answer. */
export const useSearch = defineStore('search', () => {
  const search = reactive<Search>(emptySearch())
  const answer = shallowRef<LinesAnswer>()
  const files = shallowRef<FileHits[]>([])
  const paths = shallowRef<FilesAnswer>()
  const symbols = shallowRef<SymbolsAnswer>()
  const commits = shallowRef<CommitsAnswer>()
  const looks = shallowRef<SecondLook[]>([])
  const leftOut = shallowRef<LeftOut[]>([]) // what exclusion sets took away
  const problem = ref<Problem>()
  const unfinished = ref<Mistake>() // what is missing at the end of what is being typed
  const gone = ref(false)
  const running = ref(false)
  const next = ref<string | null>(null)
  let current = new AbortController()

  /** Runs the search as it is now. What an older one answers later is dropped. */
  async function run() {
    useSubjects().remember(search)
    current.abort()
    const own = (current = new AbortController())
    if (!search.text) {
      clear()
      return
    }
    running.value = true
    const wanted: Search = { ...search, scope: { ...search.scope } }
    void requests.searchFiles(wanted, own.signal).then(
      found => {
        if (own === current) paths.value = found
      },
      () => {
        if (own === current) paths.value = undefined
      },
    )
    if (
      wanted.reading === 'plain' &&
      wanted.text.trim() &&
      wanted.text.length < LONGEST_NAME &&
      !wanted.text.includes('\n')
    ) {
      void requests
        .findSymbols(
          { text: wanted.text, reading: 'fragments', role: 'declaration', kind: [], scope: wanted.scope },
          own.signal,
          { limit: 3 },
        )
        .then(
          found => {
            if (own === current) symbols.value = found
          },
          () => {
            if (own === current) symbols.value = undefined
          },
        )
      void requests
        .findCommits(
          {
            text: wanted.text,
            reading: 'fragments',
            by: [],
            touches: [],
            adds: '',
            removes: '',
            after: '',
            before: '',
            scope: { ...wanted.scope, changedAfter: [], changedBefore: [] },
          },
          own.signal,
          { limit: 3 },
        )
        .then(
          found => {
            if (own === current) commits.value = found
          },
          () => {
            if (own === current) commits.value = undefined
          },
        )
    } else symbols.value = commits.value = undefined
    try {
      const found = await uncancelled(() => requests.searchLines(wanted, own.signal, { typing: true }), own)
      if (own !== current) return
      answer.value = found
      files.value = found.files
      next.value = found.next
      looks.value = []
      if (found.query.expression.includes('except(')) void tellLeftOut(wanted, own)
      else leftOut.value = []
      problem.value = undefined
      unfinished.value = found.query.unfinished ?? undefined
      gone.value = false
      if (!found.counts.files && wanted.shown !== 'without' && !found.stopped) void lookAgain(wanted, own)
      if (!found.counts.exact && !found.stopped) void count(wanted, own)
    } catch (error) {
      fail(error, own)
    } finally {
      if (own === current) running.value = false
    }
  }

  /**
   * The service cancels an asker's older search when a newer one arrives; requests may overtake each other on the way, and
   * then it is the newer one that was cancelled. That one is asked again.
   */
  async function uncancelled(ask: () => Promise<LinesAnswer>, own: AbortController): Promise<LinesAnswer> {
    let found = await ask()
    for (let again = 0; again < 5 && found.stopped === 'cancelled' && own === current; again++) found = await ask()
    return found
  }

  /** The first page came with lower bounds; the exact figures follow. */
  async function count(wanted: Search, own: AbortController) {
    try {
      const exact = await uncancelled(
        () => requests.searchLines(wanted, own.signal, { counts: 'exact', typing: true }),
        own,
      )
      if (own === current && answer.value)
        answer.value = { ...answer.value, counts: exact.counts, facets: exact.facets, stopped: exact.stopped }
    } catch {
      // the lower bounds stay
    }
  }

  /** Nothing was found: what would have been? */
  async function lookAgain(wanted: Search, own: AbortController) {
    try {
      const found = await requests.secondLooks(wanted, own.signal)
      if (own === current) looks.value = found
    } catch {
      // it was an offer only
    }
  }

  async function tellLeftOut(wanted: Search, own: AbortController) {
    try {
      const found = await requests.leftOut(wanted, own.signal)
      if (own === current) leftOut.value = found
    } catch {
      // the expression still shows the sets
    }
  }

  async function more() {
    if (!next.value || running.value) return
    const own = current
    running.value = true
    try {
      const cursor = next.value
      const page = await uncancelled(
        () => requests.searchLines({ ...search }, own.signal, { cursor, typing: true }),
        own,
      )
      if (own !== current) return
      files.value = joined(files.value, page.files)
      next.value = page.next
    } catch (error) {
      fail(error, own)
    } finally {
      if (own === current) running.value = false
    }
  }

  /** A page may go on in the file in which the one before ended. */
  function joined(before: FileHits[], page: FileHits[]): FileHits[] {
    const last = before[before.length - 1]
    const first = page[0]
    if (
      !last ||
      !first ||
      last.repository !== first.repository ||
      last.branch !== first.branch ||
      last.path !== first.path
    ) {
      return [...before, ...page]
    }
    return [...before.slice(0, -1), { ...last, excerpts: [...last.excerpts, ...first.excerpts] }, ...page.slice(1)]
  }

  function fail(error: unknown, own: AbortController) {
    if (own !== current || own.signal.aborted) return
    gone.value = error instanceof requests.ServiceGone
    const refused = error instanceof requests.ServiceError ? error.problem : undefined
    if (refused?.mistakes?.length && refused.mistakes.every(mistake => mistake.unfinished)) {
      unfinished.value = refused.mistakes[0] // no mistake yet: what was found before stays
      problem.value = undefined
      return
    }
    unfinished.value = undefined
    problem.value = refused
    if (problem.value) {
      answer.value = undefined
      files.value = []
      next.value = null
    }
  }

  function clear() {
    running.value = false
    answer.value = undefined
    files.value = []
    symbols.value = undefined
    commits.value = undefined
    paths.value = undefined
    looks.value = []
    leftOut.value = []
    problem.value = undefined
    unfinished.value = undefined
    next.value = null
  }

  return {
    search,
    answer,
    files,
    paths,
    symbols,
    commits,
    looks,
    leftOut,
    problem,
    unfinished,
    gone,
    running,
    next,
    run,
    more,
  }
})
