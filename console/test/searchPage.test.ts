import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter, type Router } from 'vue-router'
import SearchPage from '../src/pages/SearchPage.vue'
import { everywhere } from '../src/searchUrl'
import { useLayout } from '../src/state/layout'
import { useRepositories } from '../src/state/repositories'

interface Sent {
  subject: string
  query: URLSearchParams
}
let sent: Sent[]
let router: Router
let wrapper: ReturnType<typeof mount>
let linesOf: (text: string) => string[]
const none = { repository: [], type: [], trait: [], folder: [], spread: [], person: [], year: [], kind: [], role: [] }
const index = { complete: true, repositories: 7, indexing: 0, missingFiles: 0, parts: [] }

/** What the service would answer. */
function answer({ subject, query }: Sent): unknown {
  const text = query.get('q') ?? ''
  const lines = linesOf(text)
  switch (subject) {
    case 'saved-searches':
      return []
    case 'search/lines':
      return {
        query: { text, reading: 'plain', expression: `"${text}" not except(translations)`, unfinished: null },
        index,
        stopped: null,
        counts: { hits: lines.length, files: lines.length ? 1 : 0, repositories: lines.length ? 1 : 0, exact: true },
        facets: none,
        files: lines.length
          ? [
              {
                repository: 'tidewatch',
                branch: 'main',
                commit: 'c0ffee',
                path: 'gauge.py',
                type: 'python',
                traits: [],
                hits: lines.length,
                enclosing: [],
                excerpts: lines.slice(0, Number(query.get('perFile') ?? lines.length)).map((line, i) => ({
                  lines: [
                    {
                      number: i + 1,
                      text: line,
                      textStart: 0,
                      matches: [{ start: 0, end: text.length }],
                      regions: [],
                      declares: false,
                    },
                  ],
                })),
              },
            ]
          : [],
        next: null,
        tookMillis: 1,
      }
    case 'search/lines/second-looks':
      return {
        looks: [
          {
            change: 'ignoring case',
            text,
            reading: 'plain',
            caseMode: 'ignore',
            word: false,
            scope: everywhere(),
            hits: 2,
            files: 1,
            exact: true,
          },
        ],
      }
    case 'search/lines/left-out':
      return { sets: [{ name: 'translations', hits: 5, files: 2, exact: true }] }
    case 'search/files':
      return { index, counts: { files: 0, repositories: 0, exact: true }, facets: none, files: [], next: null }
    case 'search/symbols':
      return { index, counts: { symbols: 0, files: 0, exact: true }, facets: none, symbols: [], next: null }
    case 'search/commits':
      return { index, counts: { commits: 0, exact: true }, facets: none, commits: [], next: null }
    default:
      return { types: [], traits: [], courses: [], points: [] }
  }
}

async function open(address: string) {
  router = createRouter({
    history: createMemoryHistory(),
    routes: [
      '',
      'file',
      'files',
      'symbols',
      'commits',
      'replace',
      'tree',
      'learn',
      'types',
      'sets',
      'repositories',
    ].map(name => ({
      path: `/${name}`,
      name: name || 'search',
      component: name ? { render: () => null } : SearchPage,
    })),
  })
  await router.push(address)
  useRepositories().overview = { repositories: 1, waiting: 0, indexing: 0, failed: 0, labels: [], commits: '1' }
  wrapper = mount(SearchPage, { global: { plugins: [router] }, attachTo: document.body })
  await settle()
}
async function settle() {
  await flushPromises()
  await vi.advanceTimersByTimeAsync(60)
  await flushPromises()
}
const asked = (subject: string) => sent.filter(one => one.subject === subject).map(one => one.query.get('q'))
async function press(key: string, more: KeyboardEventInit = {}) {
  document.activeElement!.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more }))
  await settle()
}
const leaveBox = () => (document.activeElement as HTMLElement | null)?.blur()

beforeEach(() => {
  setActivePinia(createPinia())
  localStorage.clear()
  vi.useFakeTimers()
  sent = []
  linesOf = text => [`${text} is low`, `${text} is high`]
  vi.stubGlobal('fetch', async (path: string) => {
    const [subject, query] = path.replace('/api/v1/', '').split('?')
    const one = { subject: subject!, query: new URLSearchParams(query) }
    sent.push(one)
    return new Response(JSON.stringify(answer(one)))
  })
})
afterEach(() => {
  wrapper.unmount()
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('the page of lines', () => {
  it('asks each subject once a key', async () => {
    await open('/')
    sent = []
    const box = wrapper.find('textarea')
    for (const text of ['t', 'ti', 'tid', 'tide']) {
      await box.setValue(text)
      await settle()
    }
    for (const subject of ['search/lines', 'search/files', 'search/symbols', 'search/commits'])
      expect(asked(subject), subject).toEqual(['t', 'ti', 'tid', 'tide'])
  })

  it('shows an introduction while nothing is asked, and asks nothing', async () => {
    await open('/')
    expect(wrapper.text()).toContain('Type or paste what you saw')
    expect(asked('search/lines')).toEqual([])
  })

  it('shows hits and how many there are', async () => {
    await open('/?q=tide')
    expect(wrapper.find('[data-part=counts]').text()).toContain('2 hits in 1 file of 1 repository')
    expect(wrapper.findAll('a.hit').map(hit => hit.attributes('data-line'))).toEqual(['1', '2'])
  })

  it('shows ten hits of a likely file, and all of them if they are wanted', async () => {
    linesOf = text => Array.from({ length: 14 }, (_, i) => `${text} ${i}`)
    await open('/?q=tide&repo=tidewatch&under=src&type=python')
    expect(wrapper.findAll('a.hit')).toHaveLength(10)
    expect(wrapper.find('[data-part=whole]').text()).toBe('4 more hits in this file')
    await wrapper.find('[data-part=whole]').trigger('click')
    await settle()
    const last = sent.filter(one => one.subject === 'search/lines').at(-1)!.query
    expect([last.getAll('under'), last.getAll('type'), last.get('perFile')]).toEqual([['/gauge.py'], ['python'], null])
    expect(wrapper.findAll('a.hit')).toHaveLength(14)
    expect(wrapper.find('[data-part=whole]').exists()).toBe(false)
  })

  it('shows all hits of a file in the order of paths', async () => {
    linesOf = text => Array.from({ length: 14 }, (_, i) => `${text} ${i}`)
    await open('/?q=tide&order=path')
    expect(wrapper.findAll('a.hit')).toHaveLength(14)
  })

  it('leaves the list as it is if the service does not answer for a file', async () => {
    linesOf = text => Array.from({ length: 14 }, (_, i) => `${text} ${i}`)
    await open('/?q=tide')
    vi.stubGlobal('fetch', async () => Promise.reject(new TypeError('gone')))
    await wrapper.find('[data-part=whole]').trigger('click')
    await settle()
    expect(wrapper.findAll('a.hit')).toHaveLength(10)
  })

  it('goes back to what the address says', async () => {
    await open('/?q=tide&word=true')
    await router.push('/?q=surge&reading=regex')
    await settle()
    expect((wrapper.find('textarea').element as HTMLTextAreaElement).value).toBe('surge')
    const last = sent.filter(one => one.subject === 'search/lines').at(-1)!.query
    expect([last.get('reading'), last.get('word')]).toEqual(['regex', 'false'])
  })

  it('takes an exclusion set out of the search by Alt L', async () => {
    await open('/?q=tide&except=translations')
    expect(wrapper.find('[data-part=left-out]').text()).toContain('5 hits in 2 files left out by translations')
    await press('l', { altKey: true, code: 'KeyL' })
    expect(router.currentRoute.value.query).toEqual({ q: 'tide' })
  })

  it.each([
    ['KeyF', 'files'],
    ['KeyS', 'symbols'],
    ['KeyC', 'commits'],
  ])('goes to another subject by Alt and %s, with text and scope', async (code, subject) => {
    await open('/?q=tide&repo=tidewatch&word=true')
    await press(code.slice(3).toLowerCase(), { altKey: true, code })
    expect(router.currentRoute.value.name).toBe(subject)
    expect(router.currentRoute.value.query).toEqual({ q: 'tide', repo: ['tidewatch'] })
  })

  it('takes more and fewer lines around hits by + and -', async () => {
    await open('/?q=tide')
    leaveBox()
    await press('+')
    expect(
      sent
        .filter(one => one.subject === 'search/lines')
        .at(-1)!
        .query.get('context'),
    ).toBe('3')
    for (let i = 0; i < 5; i++) await press('-')
    expect(wrapper.find('[data-part=context]').text()).toBe('0 context lines')
    expect(useLayout().layout.context).toBe(0)
  })

  it('changes the layout by letters, but not while they are typed', async () => {
    await open('/?q=tide')
    const { layout } = useLayout()
    wrapper.find('textarea').element.focus()
    await press('d')
    expect(layout.dense).toBe(false)
    leaveBox()
    await press('d')
    await press('v')
    expect([layout.dense, layout.preview]).toEqual([true, true])
  })

  it('goes from hit to hit and back into the box', async () => {
    await open('/?q=tide')
    wrapper.find('textarea').element.focus()
    await press('Enter')
    expect((document.activeElement as HTMLElement).dataset.line).toBe('1')
    await press('ArrowDown')
    expect((document.activeElement as HTMLElement).dataset.line).toBe('2')
    await press('ArrowUp')
    await press('ArrowUp')
    expect(document.activeElement).toBe(wrapper.find('textarea').element)
  })

  it('folds the file that one stands on', async () => {
    await open('/?q=tide')
    wrapper.find('textarea').element.focus()
    await press('Enter')
    await press('f')
    expect(wrapper.findAll('a.hit[data-line]')).toHaveLength(0)
  })
})

describe('a search for lines that finds nothing', () => {
  beforeEach(() => {
    linesOf = () => []
  })

  it('says why, and what would have found something', async () => {
    await open('/?q=Tide&word=true&repo=tidewatch')
    expect(wrapper.text()).toContain('Nothing found')
    expect(wrapper.text()).toContain('It had to be a whole word. Its case counted. The scope was narrowed.')
    expect(wrapper.find('[data-part=second-looks]').text()).toContain('ignoring case')
  })

  it('takes a second look by Alt and its number', async () => {
    await open('/?q=Tide')
    await press('1', { altKey: true, code: 'Digit1' })
    expect(router.currentRoute.value.query).toEqual({ q: 'Tide', case: 'ignore' })
  })
})
