import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, h, KeepAlive } from 'vue'
import { createMemoryHistory, createRouter, type Router, RouterView } from 'vue-router'
import { type Quest, useResults } from '../src/results'
import { ServiceError, ServiceGone } from '../src/requests'
import { everywhere, one } from '../src/searchUrl'
import { useRepositories } from '../src/state/repositories'
import { useSubjects } from '../src/state/subjects'
import type { Problem } from '../src/wire'

interface Answer {
  counts: { exact: boolean; all: number }
  facets: string
  next: string | null
  found: string[]
  stopped?: string
}
interface Ask {
  text: string
  more: { cursor?: string; counts?: 'exact' }
  signal: AbortSignal
  answer: (answer: Partial<Answer>) => Promise<void>
  fail: (error: Error) => Promise<void>
}

let asks: Ask[]
let page: ReturnType<typeof useResults<Quest & { kind: string }, Answer, string>>
let router: Router
let wrapper: ReturnType<typeof mount>

const Page = defineComponent({
  name: 'SymbolsPage',
  setup() {
    page = useResults<Quest & { kind: string }, Answer, string>({
      subject: 'symbols',
      nothing: () => ({ text: '', reading: 'fragments', kind: '', scope: everywhere() }),
      fromAddress: query => ({ kind: one(query, 'kind') }),
      toAddress: ({ kind }) => (kind ? { kind } : {}),
      readings: ['fragments', 'plain', 'regex'],
      isAsked: quest => !!quest.text,
      ask: (quest, signal, more) =>
        new Promise((resolve, reject) => {
          asks.push({
            text: quest.text,
            more,
            signal,
            answer: async given => {
              resolve({ counts: { exact: true, all: 1 }, facets: '', next: null, found: [quest.text], ...given })
              await flushPromises()
            },
            fail: async error => {
              reject(error)
              await flushPromises()
            },
          })
        }),
      items: answer => answer.found,
      links: 'a.found',
      title: quest => quest.text,
    })
    return () =>
      h('main', [
        h('input', { ref: 'box', class: 'box' }),
        ...page.items.value.map(item => h('a', { class: 'found', href: '#', key: item }, item)),
      ])
  },
})

async function open(address: string) {
  router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/symbols', name: 'symbols', component: Page },
      { path: '/file', name: 'file', component: { render: () => h('p') } },
    ],
  })
  await router.push(address)
  wrapper = mount(
    {
      render: () =>
        h(RouterView, null, {
          default: ({ Component }: { Component: object }) =>
            h(KeepAlive, { include: ['SymbolsPage'] }, () => h(Component)),
        }),
    },
    {
      global: { plugins: [router, createPinia()] },
      attachTo: document.body,
    },
  )
  await flushPromises()
}
async function type(text: string) {
  page.quest.text = text
  await flushPromises()
  await vi.advanceTimersByTimeAsync(50)
  await flushPromises()
}

beforeEach(() => {
  setActivePinia(createPinia())
  vi.useFakeTimers()
  asks = []
})
afterEach(() => {
  wrapper.unmount()
  vi.useRealTimers()
})

describe('the question', () => {
  it('comes from the address', async () => {
    await open('/symbols?q=tide&reading=regex&kind=class&repo=tidewatch')
    expect(page.quest).toMatchObject({ text: 'tide', reading: 'regex', kind: 'class', scope: { repo: ['tidewatch'] } })
    expect(asks.map(ask => ask.text)).toEqual(['tide'])
  })

  it('goes into the address, without what is usual', async () => {
    await open('/symbols?q=tide&reading=plain')
    Object.assign(page.quest, { reading: 'fragments', kind: 'class' })
    await type('surge')
    expect(router.currentRoute.value.query).toEqual({ q: 'surge', kind: 'class' })
  })

  it('is not overwritten while its address is on the way', async () => {
    await open('/symbols?q=t')
    let release = () => {}
    router.beforeEach(
      () =>
        new Promise<void>(resolve => {
          release = resolve
        }),
    ) // an address that takes its time
    await type('ti')
    page.quest.text = 'tid'
    release()
    await flushPromises()
    expect(page.quest.text).toBe('tid')
  })

  it('follows the address that somebody goes back to', async () => {
    await open('/symbols?q=tide')
    await router.push('/symbols?q=surge')
    await vi.advanceTimersByTimeAsync(50)
    expect(page.quest.text).toBe('surge')
    expect(asks.map(ask => ask.text)).toEqual(['tide', 'surge'])
  })

  it('is remembered for the other subjects', async () => {
    await open('/symbols?q=tide&repo=tidewatch&reading=regex')
    expect(useSubjects(wrapper.vm.$pinia).addressOf('files')).toEqual({
      q: 'tide',
      repo: ['tidewatch'],
      reading: 'regex',
    })
  })
})

describe('answers', () => {
  it('are asked for at once; while one is on its way, once a pause; and not twice for the same question', async () => {
    await open('/symbols')
    page.quest.text = 't'
    await flushPromises()
    expect(asks.map(ask => ask.text)).toEqual(['t'])
    page.quest.text = 'ti'
    await flushPromises()
    await type('tid')
    await type('tid')
    expect(asks.map(ask => ask.text)).toEqual(['t', 'tid'])
  })

  it('to older questions are never shown, and their requests end', async () => {
    await open('/symbols?q=tide')
    await type('tides')
    expect(asks[0]!.signal.aborted).toBe(true)
    await asks[1]!.answer({ found: ['tides'] })
    await asks[0]!.answer({ found: ['tide'] })
    expect(page.items.value).toEqual(['tides'])
  })

  it('go when nothing is asked any more', async () => {
    await open('/symbols?q=tide')
    await asks[0]!.answer({})
    await type('')
    expect(page.items.value).toEqual([])
    expect(page.answer.value).toBeUndefined()
  })

  it('with lower bounds are followed by exact figures', async () => {
    await open('/symbols?q=tide')
    await asks[0]!.answer({ counts: { exact: false, all: 3 }, found: ['a', 'b'] })
    expect(asks[1]!.more).toEqual({ counts: 'exact' })
    await asks[1]!.answer({ counts: { exact: true, all: 7 }, found: [] })
    expect(page.answer.value!.counts).toEqual({ exact: true, all: 7 })
    expect(page.items.value).toEqual(['a', 'b'])
  })

  it('that fail are told, and the same may be asked again', async () => {
    await open('/symbols?q=tide')
    await asks[0]!.fail(new Error('That cannot be.'))
    expect(page.problem.value!.detail).toBe('That cannot be.')
    expect(page.items.value).toEqual([])
    await type('tides')
    await asks[1]!.answer({})
    expect(page.problem.value).toBeUndefined()
    await type('tide')
    expect(asks.map(ask => ask.text)).toEqual(['tide', 'tides', 'tide'])
  })

  it('stay while an expression is not finished', async () => {
    await open('/symbols?q=tide')
    await asks[0]!.answer({ found: ['tide'] })
    await type('tide and (')
    const mistake = { message: 'a bracket is missing', position: 10, length: 0, unfinished: true }
    await asks[1]!.fail(new ServiceError({ title: 'Bad', status: 400, detail: 'no', mistakes: [mistake] } as Problem))
    expect(page.unfinished.value!.message).toBe('a bracket is missing')
    expect(page.problem.value).toBeUndefined()
    expect(page.items.value).toEqual(['tide'])
  })

  it('stay while the service is gone, and are asked for again when it is back', async () => {
    await open('/symbols?q=tide')
    await asks[0]!.answer({ found: ['tide'] })
    await type('tides')
    await asks[1]!.fail(new ServiceGone('The service does not answer.'))
    expect(page.gone.value).toBe(true)
    expect(page.items.value).toEqual(['tide'])
    const repositories = useRepositories(wrapper.vm.$pinia)
    repositories.gone = true
    await flushPromises()
    repositories.gone = false
    await flushPromises()
    await asks[2]!.answer({ found: ['tides'] })
    expect(page.gone.value).toBe(false)
    expect(page.items.value).toEqual(['tides'])
  })

  it('that the service cancelled for another request are asked for again', async () => {
    await open('/symbols?q=tide')
    await asks[0]!.answer({ stopped: 'cancelled', found: [] })
    expect(asks.map(ask => ask.text)).toEqual(['tide', 'tide'])
    await asks[1]!.answer({ found: ['tide'] })
    expect(page.items.value).toEqual(['tide'])
  })

  it('are renewed when indexing makes progress, but not under somebody who has read on', async () => {
    await open('/symbols?q=tide')
    await asks[0]!.answer({ found: ['a'], next: 'two' })
    const repositories = useRepositories(wrapper.vm.$pinia)
    const at = (commits: string) =>
      (repositories.overview = { repositories: 1, waiting: 0, indexing: 0, failed: 0, labels: [], commits })
    at('1')
    await flushPromises()
    at('2')
    await flushPromises()
    expect(asks).toHaveLength(2)
    await asks[1]!.answer({ found: ['a', 'b'], next: 'two' })
    expect(page.items.value).toEqual(['a', 'b'])
    void page.more()
    await asks[2]!.answer({ found: ['c'], next: 'three' })
    at('3')
    await flushPromises()
    expect(asks).toHaveLength(3)
  })
})

describe('pages', () => {
  it('follow each other with the cursor, one at a time', async () => {
    await open('/symbols?q=tide')
    await asks[0]!.answer({ found: ['a'], next: 'two', counts: { exact: true, all: 3 } })
    void page.more()
    void page.more()
    expect(asks.slice(1).map(ask => ask.more)).toEqual([{ cursor: 'two' }])
    await asks[1]!.answer({ found: ['b', 'c'], next: null, counts: { exact: true, all: 0 } })
    expect(page.items.value).toEqual(['a', 'b', 'c'])
    expect(page.answer.value!.counts.all).toBe(3)
    void page.more()
    expect(asks).toHaveLength(2)
  })

  it('of an older question are not added', async () => {
    await open('/symbols?q=tide')
    await asks[0]!.answer({ found: ['a'], next: 'two' })
    void page.more()
    await type('surge')
    await asks[2]!.answer({ found: ['s'] })
    await asks[1]!.answer({ found: ['b'] })
    expect(page.items.value).toEqual(['s'])
  })
})

describe('a click on a count', () => {
  it('narrows to it, and another takes it back', async () => {
    await open('/symbols?q=tide&repo=a&repo=b')
    page.choose('repo', 'c')
    expect(page.quest.scope.repo).toEqual(['c'])
    page.choose('repo', 'c')
    expect(page.quest.scope.repo).toEqual([])
  })

  it('leaves several traits out, one after the other', async () => {
    await open('/symbols?q=tide')
    page.choose('notTrait', 'test')
    page.choose('notTrait', 'generated')
    expect(page.quest.scope.notTrait).toEqual(['test', 'generated'])
    page.choose('notTrait', 'test')
    expect(page.quest.scope.notTrait).toEqual(['generated'])
  })
})

describe('keys', () => {
  const press = (key: string) =>
    document.activeElement!.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))

  it('step through the list and back into the text', async () => {
    await open('/symbols?q=tide')
    await asks[0]!.answer({ found: ['a', 'b'] })
    ;(wrapper.find('.box').element as HTMLElement).focus()
    press('ArrowDown')
    press('ArrowDown')
    expect(document.activeElement!.textContent).toBe('b')
    press('ArrowDown')
    expect(document.activeElement!.textContent).toBe('b')
    press('ArrowUp')
    press('ArrowUp')
    expect(document.activeElement).toBe(wrapper.find('.box').element)
  })

  it('find the list as it was, and ask nothing, when the page is opened again', async () => {
    await open('/symbols?q=tide')
    await asks[0]!.answer({ found: ['a', 'b'] })
    await router.push('/file')
    await flushPromises()
    await router.push('/symbols?q=tide')
    await vi.advanceTimersByTimeAsync(50)
    expect(page.items.value).toEqual(['a', 'b'])
    expect(asks).toHaveLength(1)
    ;(wrapper.find('.box').element as HTMLElement).focus()
    press('ArrowDown')
    expect(document.activeElement!.textContent).toBe('a')
  })

  it('do nothing while another page is open', async () => {
    await open('/symbols?q=tide')
    await router.push('/file')
    await flushPromises()
    await router.push('/file?q=surge')
    await vi.advanceTimersByTimeAsync(50)
    expect(page.quest.text).toBe('tide')
    expect(asks).toHaveLength(1)
  })
})
