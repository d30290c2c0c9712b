import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import SavedSearchPage from '../src/pages/SavedSearchPage.vue'
import WatchPanel from '../src/parts/WatchPanel.vue'
import * as requests from '../src/requests'
import { useSession } from '../src/state/session'
import type { AccountRole, Comparison, FoundResult, SavedSearch, Watch, WatchDelivery, WatchNotice } from '../src/wire'

vi.mock('../src/requests')
const asked = vi.mocked(requests)
const router = createRouter({
  history: createMemoryHistory(),
  routes: ['search', 'saved', 'worklist', 'file', 'commit'].map(name => ({ path: `/${name}`, name, component: {} })),
})
const search: SavedSearch = {
  name: 'feet',
  of: 'everybody',
  description: 'Depths in feet',
  subject: 'lines',
  parameters: { q: ['feet'] },
  replacement: null,
  worklist: false,
  source: null,
  problem: null,
  version: 1,
  changed: '2026-03-01T07:00:00Z',
  changedBy: null,
}
const line = (path: string): FoundResult => ({
  repository: 'tide',
  branch: 'main',
  commit: 'c0ffee0000000000',
  path,
  line: 7,
  name: null,
  text: '  depth_feet <b>',
})
const commit: FoundResult = { ...line(''), path: null, line: null, branch: null, text: 'Feet go' }
const comparison: Comparison = {
  with: 'before',
  at: '2026-03-01T07:00:00Z',
  found: 12,
  came: [line('new.c'), commit],
  cameCount: 5,
  went: [line('old.c')],
  wentCount: 1,
  complete: false,
}
const watched: Watch = {
  search: 'feet',
  of: 'everybody',
  went: false,
  gathered: 'hour',
  mutedUntil: null,
  webhook: 'https://chat.example/h',
  mail: null,
  feed: null,
  secret: null,
  problem: 'The last message was not delivered: Answered with 500',
  last: null,
}
const notice: WatchNotice = {
  id: 9,
  happened: '2026-03-01T07:00:00Z',
  repository: 'tide',
  cameCount: 1,
  came: [line('sign.c')],
  wentCount: 0,
  went: [],
}
const delivery: WatchDelivery = {
  channel: 'webhook',
  id: 4,
  message: 'msg_1',
  made: '2026-03-01T07:00:00Z',
  notices: 1,
  attempts: 8,
  state: 'failed',
  answer: 'Answered with 500',
  nextAttempt: null,
}

async function signIn(role: AccountRole) {
  asked.session.mockResolvedValue({
    accounts: true,
    person: { name: 'edda', displayName: 'Edda Voss', role, teams: [], token: null },
    issuer: null,
    guests: false,
  })
  await useSession().load()
}
beforeEach(() => {
  vi.resetAllMocks()
  setActivePinia(createPinia())
  asked.savedSearch.mockResolvedValue(search)
  asked.searchChecks.mockResolvedValue([])
  asked.compareSearch.mockResolvedValue(comparison)
  asked.watches.mockResolvedValue([])
  asked.notices.mockResolvedValue({ notices: [], next: null })
  asked.deliveries.mockResolvedValue([])
})

describe('the page of a saved search', () => {
  async function page(role: AccountRole = 'maintainer') {
    await signIn(role)
    await router.push('/saved?search=feet&of=everybody')
    const wrapper = mount(SavedSearchPage, { global: { plugins: [router] } })
    await flushPromises()
    return wrapper
  }

  it('compares with the last check that was kept, and says what came, what went and what it does not know', async () => {
    asked.searchChecks.mockResolvedValue([
      { name: 'first', at: '2026-01-01T07:00:00Z', by: 'mira', results: 3 },
      { name: 'before', at: '2026-03-01T07:00:00Z', by: null, results: 4 },
    ])
    const wrapper = await page()
    expect(asked.compareSearch).toHaveBeenCalledWith(search, 'before')
    const told = wrapper.find('[data-part="comparison"]').text()
    expect(told).toContain('5 came, 1 went, 12 found now, since before')
    expect(told).toContain('Not all repositories are indexed yet')
    expect(told).toContain('and 3 more')
    expect(wrapper.findAll('[data-part="result"]').map(one => one.find('a').text())).toEqual([
      'tide/new.c:7',
      'tide c0ffee0000',
      'tide/old.c:7',
    ])
    expect(wrapper.find('[data-part="result"] code').text()).toBe('depth_feet <b>')
  })

  it('compares with a day', async () => {
    const wrapper = await page('reader')
    expect(asked.compareSearch).not.toHaveBeenCalled()
    await wrapper.find('[data-part="day"]').setValue('2026-02-01')
    await wrapper.find('form').trigger('submit')
    await flushPromises()
    expect(asked.compareSearch).toHaveBeenCalledWith(search, '2026-02-01')
    expect(wrapper.find('[data-part="check-name"]').exists()).toBe(false)
  })

  it('keeps what is found, and removes it', async () => {
    asked.keepCheck.mockResolvedValue({ name: 'summer', at: '2026-03-01T07:00:00Z', by: null, results: 12 })
    const wrapper = await page()
    asked.searchChecks.mockResolvedValue([{ name: 'summer', at: '2026-03-01T07:00:00Z', by: null, results: 12 }])
    await wrapper.find('[data-part="check-name"]').setValue(' summer ')
    await wrapper.findAll('form')[1]!.trigger('submit')
    await flushPromises()
    expect(asked.keepCheck).toHaveBeenCalledWith(search, 'summer')
    expect(wrapper.text()).toContain('12 results kept as summer.')
    await wrapper.find('[data-part="checks"] button').trigger('click')
    await flushPromises()
    expect(asked.removeCheck).toHaveBeenCalledWith(search, 'summer')
    expect(wrapper.find('[data-part="checks"]').exists()).toBe(false)
  })

  it('says that there is none, and shows nothing of another', async () => {
    asked.savedSearch.mockRejectedValue(new Error('There is no saved search feet.'))
    const wrapper = await page()
    expect(wrapper.find('[role="alert"]').text()).toBe('There is no saved search feet.')
    expect(wrapper.find('[data-part="watch"]').exists()).toBe(false)
  })
})

describe('the panel of a watch', () => {
  async function panel() {
    const wrapper = mount(WatchPanel, { props: { name: 'feet', of: 'everybody' }, global: { plugins: [router] } })
    await flushPromises()
    return wrapper
  }

  it('begins, and tells the address of the feed once', async () => {
    const wrapper = await panel()
    asked.saveWatch.mockResolvedValue({ ...watched, feed: '/api/v1/feeds/k' })
    asked.watches.mockResolvedValue([watched])
    await wrapper.find('button').trigger('click')
    await flushPromises()
    expect(asked.saveWatch).toHaveBeenCalledWith({ name: 'feet', of: 'everybody' }, {})
    expect(wrapper.find('[data-part="feed"] a').attributes('href')).toBe('http://localhost:3000/api/v1/feeds/k')
    expect(wrapper.text()).toContain('Nothing new has matched since it is watched.')
  })

  it('shows what was told, what was not delivered, and sends that again', async () => {
    asked.watches.mockResolvedValue([{ ...watched, of: 'me' }, watched])
    asked.notices.mockResolvedValue({ notices: [notice], next: 9 })
    asked.deliveries.mockResolvedValue([delivery])
    const wrapper = await panel()
    expect(wrapper.text()).toContain('The last message was not delivered')
    expect(wrapper.find('[data-part="notices"]').text()).toContain('tide/sign.c:7')
    expect(wrapper.find('[data-part="deliveries"]').text()).toContain('8 attempts')
    await wrapper.find('[data-part="deliveries"] button').trigger('click')
    await flushPromises()
    expect(asked.sendAgain).toHaveBeenCalledWith({ name: 'feet', of: 'everybody' }, 4)
    asked.notices.mockResolvedValue({ notices: [{ ...notice, id: 3, repository: 'skiff' }], next: null })
    await wrapper
      .findAll('button')
      .find(button => button.text() === 'What was before')!
      .trigger('click')
    await flushPromises()
    expect(asked.notices).toHaveBeenLastCalledWith({ name: 'feet', of: 'everybody' }, 9)
    expect(wrapper.findAll('[data-part="notices"] h3').map(one => one.text())).toHaveLength(2)
  })

  it('changes how it is told, and says what is refused', async () => {
    asked.watches.mockResolvedValue([watched])
    asked.saveWatch.mockRejectedValue(new Error('Nothing is sent to this webhook.'))
    const wrapper = await panel()
    await wrapper.find('input').setValue(' http://10.0.0.1/ ')
    await wrapper.find('[data-part="mail"]').setValue('edda@quillhaven.example')
    await wrapper.find('form').trigger('submit')
    await flushPromises()
    expect(asked.saveWatch).toHaveBeenCalledWith(
      { name: 'feet', of: 'everybody' },
      { went: false, gathered: 'hour', webhook: 'http://10.0.0.1/', mail: 'edda@quillhaven.example', mutedUntil: null },
    )
    expect(wrapper.find('[role="alert"]').text()).toBe('Nothing is sent to this webhook.')
  })

  it('ends', async () => {
    asked.watches.mockResolvedValueOnce([watched]).mockResolvedValue([])
    const wrapper = await panel()
    await wrapper
      .findAll('button')
      .find(button => button.text() === 'Watch no more')!
      .trigger('click')
    await flushPromises()
    expect(asked.removeWatch).toHaveBeenCalledWith({ name: 'feet', of: 'everybody' })
    expect(wrapper.find('button').text()).toBe('Watch this search')
  })
})
