import { ref, shallowRef } from 'vue'
import type { Run } from './answers'
import * as requests from './requests'
import { noSymbols } from './searchUrl'
import type { CommitsAnswer, FilesAnswer, Search, SymbolsAnswer } from './wire'

/** Nobody types longer names. */
const LONGEST_NAME = 120
const FEW = 3

/** What the other subjects have for the text of a search for lines. */
export interface OtherAnswers {
  files?: FilesAnswer
  symbols?: SymbolsAnswer
  commits?: CommitsAnswer
}

/**
 * The other subjects, asked beside the lines and shown with them: what belongs to an older text goes when the lines of a
 * newer one come, and what is late is added when it comes.
 */
export function useOtherSubjects() {
  const answers = shallowRef<OtherAnswers>({})
  const settled = ref(true) // whether all that belong to the lines on the screen have answered
  let latest: { run: Run; found: OtherAnswers; waiting: number } | undefined
  let shown: Run | undefined

  function ask(quest: Search, run: Run) {
    const own = (latest = { run, found: {} as OtherAnswers, waiting: 0 })
    const wait = <A>(answer: Promise<A>, put: (answer: A) => void) => {
      own.waiting++
      answer
        .then(put)
        .catch(() => {}) // it was an offer only
        .finally(() => {
          own.waiting--
          if (shown === run) publish(own)
        })
    }
    wait(requests.searchFiles(quest, run.signal), found => (own.found.files = found))
    if (!mayBeName(quest)) return
    const { text, scope } = quest
    wait(
      requests.findSymbols({ ...noSymbols(), text, scope }, run.signal, {
        limit: FEW,
      }),
      found => (own.found.symbols = found),
    )
    wait(
      requests.findCommits(
        {
          text,
          reading: 'fragments',
          by: [],
          touches: [],
          adds: '',
          removes: '',
          after: '',
          before: '',
          scope: { ...scope, changedAfter: [], changedBefore: [] },
        },
        run.signal,
        { limit: FEW },
      ),
      found => (own.found.commits = found),
    )
  }

  /** Called when the lines of a question are shown. */
  function show(run: Run) {
    shown = run
    if (latest?.run === run) publish(latest)
  }

  function publish({ found, waiting }: { found: OtherAnswers; waiting: number }) {
    settled.value = !waiting
    answers.value = { ...found }
  }

  function clear() {
    shown = undefined
    answers.value = {}
    settled.value = true
  }

  return { answers, settled, ask, show, clear }
}

const mayBeName = ({ text, reading }: Search) =>
  reading === 'plain' && text.trim() !== '' && text.length < LONGEST_NAME && !text.includes('\n')
