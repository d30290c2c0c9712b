import {
  computed,
  nextTick,
  onActivated,
  onBeforeUnmount,
  onDeactivated,
  onMounted,
  reactive,
  useTemplateRef,
  watch,
} from 'vue'
import { type LocationQuery, type LocationQueryRaw, useRoute, useRouter } from 'vue-router'
import { isKey } from './keys'
import { type Answer, type Asking, useAnswers } from './answers'
import { one, scopeFromUrl, scopeToUrl } from './searchUrl'
import { useRepositories } from './state/repositories'
import { type Subject, useSubjects } from './state/subjects'
import { narrowedTo, toggled } from './toggled'
import type { Scope, ScopePart } from './wire'

/** What is asked of every subject. */
export interface Quest {
  text: string
  reading: string
  scope: Scope
}

interface Page<Q extends Quest, A extends Answer, T> extends Asking<Q, A, T> {
  subject: Subject
  nothing: () => Q
  /** What the address says, beside text, reading and scope. */
  fromAddress: (query: LocationQuery) => Partial<Q>
  /** What the address shall say, beside text, reading and scope. */
  toAddress: (quest: Q) => LocationQueryRaw
  readings: readonly string[]
  /** Whether there is anything to ask for; always, unless this is given. */
  isAsked?: (quest: Q) => boolean
  title: (quest: Q) => string
  /** The links of the list, as a selector; a list that is not given by it takes its own keys. */
  links?: string
  /** Takes a key that is not typed into anything, given the place in the list or -1; says whether it did. */
  key?: (event: KeyboardEvent, at: number) => boolean
  /** Takes a key that is pressed with Alt, wherever; says whether it did. */
  altKey?: (event: KeyboardEvent) => boolean
}

/** Where the text is typed. */
interface Box {
  focus: () => void
  select?: () => void
}

const PAUSE = 30 // milliseconds: keys that follow each other faster become one question

/**
 * What pages of results share: the question and its address, at most one request a key, which the next one cancels, page
 * after page, and the keys of the list.
 */
export function useResults<Q extends Quest, A extends Answer, T>(page: Page<Q, A, T>) {
  const route = useRoute()
  const router = useRouter()
  const subjects = useSubjects()
  const repositories = useRepositories()
  const quest = reactive(page.nothing()) as Q
  const box = useTemplateRef<Box>('box')
  const answers = useAnswers<Q, A, T>(page)
  let timer = 0
  let active = false
  let asked: string | undefined
  let recorded = 0 // how many changes of the address on their way are our own

  const address = computed<LocationQueryRaw>(() => ({
    ...scopeToUrl(quest.scope),
    ...(quest.text ? { q: quest.text } : {}),
    ...(quest.reading !== page.readings[0] ? { reading: quest.reading } : {}),
    ...page.toAddress(quest),
  }))
  const key = computed(() => JSON.stringify(address.value))

  /** Takes the question from the address. */
  function take() {
    Object.assign(quest, page.nothing(), {
      text: one(route.query, 'q'),
      reading: page.readings.find(reading => reading === one(route.query, 'reading')) ?? page.readings[0],
      scope: scopeFromUrl(route.query),
      ...page.fromAddress(route.query),
    })
  }

  watch(key, () => {
    if (!active) return
    clearTimeout(timer)
    if (!answers.running.value) ask() // at once; while an answer is on its way, fast keys become one question
    timer = window.setTimeout(() => {
      void record()
      ask()
    }, PAUSE)
  })

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

  /** Asks, unless that was asked already. */
  function ask() {
    if (key.value !== asked) askAgain()
  }
  function askAgain() {
    asked = key.value
    subjects.remember(page.subject, quest)
    entitle()
    if (page.isAsked && !page.isAsked(quest)) answers.stop()
    else void answers.run({ ...quest, scope: { ...quest.scope } })
  }

  function entitle() {
    document.title = [page.title(quest), 'Odd Beacon'].filter(Boolean).join(' · ')
  }

  // When indexing makes progress, what is shown may have become incomplete or stale.
  watch(
    () => repositories.commits,
    (now, before) => {
      if (before && now !== before && active && answers.answer.value && answers.mayBeRenewed()) askAgain()
    },
  )
  // A service that was gone is back.
  watch(
    () => repositories.gone,
    gone => {
      if (!gone && active && answers.gone.value) askAgain()
    },
  )

  /** A click on a count narrows to it, another takes it back; several traits can be left out. */
  function choose(part: ScopePart, value: string) {
    const { scope } = quest
    scope[part] = part === 'notTrait' ? toggled(scope[part], value) : narrowedTo(scope[part], value)
  }

  /** Goes to where the text is typed. */
  function toBox() {
    box.value?.focus()
    box.value?.select?.()
  }

  function keys(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey || !(event.altKey ? page.altKey?.(event) : plainKey(event))) return
    event.preventDefault()
  }
  function plainKey(event: KeyboardEvent): boolean {
    const links = page.links ? [...document.querySelectorAll<HTMLElement>(page.links)] : []
    const at = links.indexOf(document.activeElement as HTMLElement)
    const inBox = event.target === box.value
    const typed = isTypedIn(event.target)
    if (isKey(event, 'box') && !typed) {
      window.scrollTo({ top: 0 })
      toBox()
    } else if (event.key === 'ArrowDown' && links.length && (at >= 0 || inBox)) links[at + 1]?.focus()
    else if (event.key === 'ArrowUp' && at >= 0) (links[at - 1] ?? box.value)?.focus()
    else if (event.key === 'Enter' && inBox) links[0]?.click()
    else return !typed && (page.key?.(event, at) ?? false)
    return true
  }

  function start() {
    if (active) return
    active = true
    take()
    entitle()
    ask()
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
    answers.stop()
  })

  return { quest, ...answers, choose, toBox }
}

const isTypedIn = (target: EventTarget | null) =>
  target instanceof HTMLTextAreaElement ||
  target instanceof HTMLSelectElement ||
  (target instanceof HTMLInputElement && target.type !== 'checkbox')
