import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import SavedSearches from '../src/parts/SavedSearches.vue'
import SaveSearch from '../src/parts/SaveSearch.vue'
import * as requests from '../src/requests'
import { placeOf, subjectOf, toKeep } from '../src/saved'
import { useSession } from '../src/state/session'
import type { AccountRole, SavedSearch } from '../src/wire'

vi.mock('../src/requests')
const asked = vi.mocked(requests)
const router = createRouter({
  history: createMemoryHistory(),
  routes: ['search', 'files', 'symbols', 'commits', 'tree', 'saved', 'worklist', 'file', 'commit'].map(name => ({
    path: `/${name}`,
    name,
    component: {},
  })),
})
const search = (more: Partial<SavedSearch> = {}): SavedSearch => ({
  name: 'asks-tidewatch',
  of: 'everybody',
  description: 'What asks it',
  subject: 'lines',
  parameters: { q: ['tidewatch'] },
  replacement: null,
  worklist: false,
  source: null,
  problem: null,
  version: 3,
  changed: '2026-03-01T07:00:00Z',
  changedBy: null,
  ...more,
})
async function signIn(role: AccountRole, teams: string[] = []) {
  asked.session.mockResolvedValue({
    accounts: true,
    person: { name: 'edda', displayName: 'Edda Voss', role, teams, token: null },
    issuer: null,
    guests: false,
  })
  await useSession().load()
}

beforeEach(() => {
  vi.resetAllMocks()
  setActivePinia(createPinia())
  asked.savedSearches.mockResolvedValue([])
  asked.watches.mockResolvedValue([])
  asked.worklists.mockResolvedValue([])
  asked.followedFileProblems.mockResolvedValue([])
})

describe('what is kept of a page', () => {
  it('is what the service takes, and leads back to the same page', async () => {
    for (const [page, address] of [
      ['search', '/search?q=a%20b&reading=regex&case=match&word=true&repo=x&repo=y&shown=without&order=recent'],
      ['search', '/search?q=a&shown=files&notTrait=test'],
      ['files', '/files?q=a&kind=folder&order=size&reversed=true'],
      ['symbols', '/symbols?q=a&role=any&kind=class&kind=method'],
      ['commits', '/commits?by=Ines&after=2026&adds=tide'],
    ] as const) {
      await router.push(address)
      const kept = toKeep(router.currentRoute.value.query)
      expect(Object.keys(kept)).not.toContain('shown')
      const place = router.resolve(placeOf(search({ subject: subjectOf(page), parameters: kept })))
      expect(place.name).toBe(page)
      expect({ ...place.query }).toEqual({ ...router.currentRoute.value.query, ...oneEach(place.query) })
      expect(Object.keys(place.query).sort()).toEqual(Object.keys(router.currentRoute.value.query).sort())
    }
  })
  /** A value that is given once is the same as a list of one. */
  const oneEach = (query: Record<string, unknown>) =>
    Object.fromEntries(Object.entries(query).filter(([, value]) => Array.isArray(value) && value.length === 1))

  it('leaves out what only says how to show it', async () => {
    await router.push('/search?q=a&context=5')
    expect(toKeep(router.currentRoute.value.query)).toEqual({ q: ['a'] })
    expect(subjectOf('tree')).toBeUndefined()
  })
})

describe('keeping a search', () => {
  async function panel() {
    await router.push('/search?q=tide&shown=files')
    const wrapper = mount(SaveSearch, { global: { plugins: [router] }, attachTo: document.body })
    await wrapper.find('[data-part="save-search"]').trigger('click')
    await flushPromises()
    return wrapper
  }

  it('sends what the page shows, for oneself unless another is chosen', async () => {
    await signIn('reader', ['bridge'])
    asked.saveSearch.mockResolvedValue(search())
    const wrapper = await panel()
    expect(wrapper.findAll('option').map(option => option.text())).toEqual(['your own', 'of the team bridge'])
    await wrapper.find('[data-part="search-name"]').setValue(' gauges ')
    await wrapper.find('form').trigger('submit')
    await flushPromises()
    expect(asked.saveSearch).toHaveBeenCalledWith('gauges', {
      of: 'me',
      description: '',
      subject: 'lines',
      parameters: { q: ['tide'], only: ['files'] },
      replacement: null,
      worklist: null,
      version: null,
    })
    expect(wrapper.find('[role="status"]').text()).toContain('Saved')
  })

  it('names the version of the one whose place it takes, and says what is refused', async () => {
    await signIn('maintainer')
    asked.savedSearches.mockResolvedValue([search({ of: 'me' })])
    asked.saveSearch.mockRejectedValue(new Error('Somebody else changed it.'))
    const wrapper = await panel()
    await wrapper.find('[data-part="search-name"]').setValue('asks-tidewatch')
    expect(wrapper.find('button[type="submit"]').text()).toBe('Save in its place')
    await wrapper.find('form').trigger('submit')
    await flushPromises()
    expect(asked.saveSearch.mock.calls[0]?.[1]).toMatchObject({ version: 3, description: 'What asks it' })
    expect(wrapper.find('[role="alert"]').text()).toBe('Somebody else changed it.')
  })
})

describe('the list of saved searches', () => {
  async function list() {
    const wrapper = mount(SavedSearches, { global: { plugins: [router] } })
    await flushPromises()
    return wrapper
  }

  it('tells what each finds now, and why one cannot be run', async () => {
    await signIn('reader')
    asked.savedSearches.mockResolvedValue([
      search(),
      search({ name: 'gates', of: 'me', subject: 'symbols' }),
      search({ name: 'lost', problem: 'There is no exclusion set old.' }),
    ])
    asked.countSaved.mockImplementation(async ({ subject }) => ({
      counts: subject === 'lines' ? { hits: 16, files: 9, exact: false } : { symbols: 1, files: 1, exact: true },
    }))
    const wrapper = await list()
    expect(wrapper.findAll('[data-part="found"]').map(found => found.text())).toEqual([
      'at least 16 hits',
      '1 symbol',
      '',
    ])
    expect(wrapper.text()).toContain('There is no exclusion set old.')
    expect(asked.countSaved).toHaveBeenCalledTimes(2)
    expect(wrapper.findAll('button').map(button => button.attributes('aria-label'))).toEqual(['Remove gates'])
  })

  it('removes one when that is confirmed', async () => {
    await signIn('maintainer')
    asked.savedSearches.mockResolvedValue([search()])
    asked.countSaved.mockResolvedValue({ counts: { hits: 1, files: 1, exact: true } })
    const confirm = vi.spyOn(window, 'confirm').mockReturnValue(false)
    const wrapper = await list()
    await wrapper.find('button').trigger('click')
    expect(asked.removeSearch).not.toHaveBeenCalled()
    confirm.mockReturnValue(true)
    await wrapper.find('button').trigger('click')
    await flushPromises()
    expect(asked.removeSearch).toHaveBeenCalledWith(search())
    expect(asked.savedSearches).toHaveBeenCalledTimes(2)
  })

  it('leads to files of repositories, tells of mistakes in them, and lets nobody remove what stands there', async () => {
    await signIn('maintainer')
    asked.savedSearches.mockResolvedValue([search({ of: 'repository:cove', source: '.oddbeacon/feet.yaml' })])
    asked.countSaved.mockResolvedValue({ counts: { hits: 1, files: 1, exact: true } })
    asked.followedFileProblems.mockResolvedValue([
      { repository: 'cove', path: '.oddbeacon/<b>.yaml', problem: 'Line 4: expected a key.' },
    ])
    const wrapper = await list()
    expect(wrapper.text()).toContain('kept in cove')
    expect(wrapper.find('button').exists()).toBe(false)
    expect(wrapper.find('[data-part="mistake"]').text()).toBe(
      'cove/.oddbeacon/<b>.yaml: Line 4: expected a key. What it held before stays.',
    )
  })

  it('is not there while nothing is kept', async () => {
    await signIn('reader')
    expect((await list()).find('section').exists()).toBe(false)
  })
})
