import { shallowRef } from 'vue'
import type { Run } from './answers'
import * as requests from './requests'
import type { LeftOut, LinesAnswer, Search, SecondLook } from './wire'

/** What a search for lines offers beside its hits: what would have found something, and what exclusion sets left out. */
export function useOffers() {
  const looks = shallowRef<SecondLook[]>([])
  const leftOut = shallowRef<LeftOut[]>([])

  /** Asks for what fits the answer. */
  function ask(found: LinesAnswer, quest: Search, run: Run) {
    looks.value = []
    const isEmpty = !found.counts.files && quest.shown !== 'without' && !found.stopped
    if (isEmpty) void take(requests.secondLooks(quest, run.signal), run, offers => (looks.value = offers))
    if (found.query.expression.includes('except('))
      void take(requests.leftOut(quest, run.signal), run, offers => (leftOut.value = offers))
    else leftOut.value = []
  }

  async function take<A>(answer: Promise<A>, run: Run, put: (answer: A) => void) {
    try {
      const found = await answer
      if (run.isCurrent()) put(found)
    } catch {
      // it was an offer only
    }
  }

  function clear() {
    looks.value = []
    leftOut.value = []
  }

  return { looks, leftOut, ask, clear }
}
