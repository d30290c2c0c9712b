import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import OverTimeChart from '../src/parts/OverTimeChart.vue'
import WorklistPage from '../src/pages/WorklistPage.vue'
import * as requests from '../src/requests'
import { useSession } from '../src/state/session'
import type { OverTimeAnswer, SavedSearch, Worklist, WorklistItem } from '../src/wire'

vi.mock('../src/requests')
const asked = vi.mocked(requests)
const router = createRouter({
  history: createMemoryHistory(),
  routes: ['search', 'saved', 'worklist', 'file'].map(name => ({ path: `/${name}`, name, component: {} })),
})
const meant = { name: 'feet', of: 'everybody' }
const search: SavedSearch = {
  ...meant,
  description: '',
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
const list: Worklist = {
  search: 'feet',
  of: 'everybody',
  open: 3,
  claimed: 0,
  done: 0,
  stays: 0,
  gone: 0,
  made: '2026-03-01T07:00:00Z',
  madeBy: null,
  problem: null,
}
const item = (id: number, repository: string, path: string, more: Partial<WorklistItem> = {}): WorklistItem => ({
  id,
  result: { repository, branch: 'main', commit: 'c0ffee', path, line: 7, name: null, text: ` feet ${id}` },
  state: 'open',
  owners: [],
  claimedBy: null,
  why: '',
  changed: '2026-03-01T07:00:00Z',
  changedBy: null,
  version: id,
  ...more,
})
const items = () => [item(1, 'tide', 'a.c'), item(2, 'cove', 'b.c', { claimedBy: 'bo' }), item(3, 'tide', 'c.c')]

async function page() {
  asked.session.mockResolvedValue({
    accounts: true,
    person: { name: 'edda', displayName: 'Edda Voss', role: 'reader', teams: [], token: null },
    issuer: null,
    guests: false,
  })
  await useSession().load()
  await router.push('/worklist?search=feet&of=everybody')
  const wrapper = mount(WorklistPage, {
    global: { plugins: [router], stubs: { CodePreview: true, OverTimeChart: true } },
    attachTo: document.body,
  })
  await flushPromises()
  return wrapper
}
const names = (wrapper: Awaited<ReturnType<typeof page>>) =>
  wrapper.findAll('[data-item]').map(one => one.attributes('data-item'))
async function press(key: string) {
  window.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }))
  await flushPromises()
}

beforeEach(() => {
  vi.useFakeTimers()
  vi.resetAllMocks()
  setActivePinia(createPinia())
  Element.prototype.scrollIntoView = () => {}
  asked.savedSearch.mockResolvedValue(search)
  asked.worklists.mockResolvedValue([list])
  asked.worklistItems.mockResolvedValue({ items: items(), count: 3, at: 'then' })
  asked.worklistLeft.mockResolvedValue({
    days: [
      {
        day: '2026-03-01',
        items: 3,
        repositories: [{ repository: 'tide', items: 3 }],
        owners: [{ owners: '@gauges', items: 3 }],
      },
    ],
    zero: '2026-05-01',
  })
  asked.changeItem.mockImplementation(async (_, id, change) => ({
    ...items().find(one => one.id === id)!,
    state: change.state ?? 'open',
    claimedBy: change.claimed ? 'edda' : null,
    why: change.why ?? '',
    version: 9,
  }))
})
afterEach(() => {
  vi.useRealTimers()
  document.body.innerHTML = ''
})

describe('the page of a worklist', () => {
  it('groups what is open, and ticks it off by keyboard, going on to the next', async () => {
    const wrapper = await page()
    expect(wrapper.findAll('section h2').map(one => one.text())).toContain('cove 1 item')
    expect(names(wrapper)).toEqual(['2', '1', '3'])
    expect(wrapper.find('[aria-current="true"]').text()).toContain('b.c:7')
    await press('ArrowDown')
    expect(wrapper.find('[aria-current="true"]').text()).toContain('a.c:7')
    await press('d')
    expect(asked.changeItem).toHaveBeenLastCalledWith(meant, 1, {
      state: 'done',
      claimed: null,
      why: null,
      by: null,
      version: 1,
    })
    expect(names(wrapper)).toEqual(['2', '3'])
    expect(wrapper.find('[aria-current="true"]').text()).toContain('c.c:7')
    await press('c')
    expect(asked.changeItem.mock.lastCall?.[2]).toMatchObject({ claimed: true })
    expect(wrapper.find('[data-item="3"] [data-part="claimed"]').text()).toBe('edda')
    await wrapper.find('[data-state="done"]').trigger('click')
    expect(names(wrapper)).toEqual(['1'])
    expect(wrapper.find('[data-part="left"]').text()).toContain('Nothing is left on')
    wrapper.unmount()
  })

  it('asks why an item stays, and keys typed there do nothing else', async () => {
    const wrapper = await page()
    await press('s')
    const why = wrapper.find('[data-part="why"]')
    await why.trigger('keydown', { key: 'd' })
    expect(asked.changeItem).not.toHaveBeenCalled()
    await why.setValue('Of the old signs')
    await wrapper.find('[data-part="item"] form').trigger('submit')
    await flushPromises()
    expect(asked.changeItem.mock.lastCall?.[2]).toMatchObject({ state: 'stays', why: 'Of the old signs' })
    wrapper.unmount()
  })

  it('shows within a second what others tick off, and says what cannot be', async () => {
    const wrapper = await page()
    asked.worklistItems.mockResolvedValue({ items: [item(3, 'tide', 'c.c', { state: 'done' })], count: 1, at: 'later' })
    await vi.advanceTimersByTimeAsync(1100)
    await flushPromises()
    expect(asked.worklistItems).toHaveBeenLastCalledWith(meant, 'then')
    expect(names(wrapper)).toEqual(['2', '1'])
    asked.changeItem.mockRejectedValue(new Error('Somebody has changed it since.'))
    await press('d')
    expect(wrapper.find('[role="alert"]').text()).toBe('Somebody has changed it since.')
    wrapper.unmount()
    asked.worklistItems.mockClear()
    await vi.advanceTimersByTimeAsync(3000)
    expect(asked.worklistItems).not.toHaveBeenCalled()
  })

  it('reaches back before the list was made, from history, in one plot', async () => {
    asked.overTime.mockResolvedValue({
      courses: [
        {
          repository: 'tide',
          points: [
            { day: '2025-01-01', lines: 7 },
            { day: '2026-03-02', lines: 5 },
          ],
          now: 5,
          difference: 0,
        },
        {
          repository: 'cove',
          points: [
            { day: '2024-01-01', lines: 2 },
            { day: '2024-06-01', lines: 0 },
          ],
          now: 0,
          difference: 0,
        },
      ],
    } as unknown as OverTimeAnswer)
    const wrapper = await page()
    const chart = () => wrapper.findComponent(OverTimeChart).props('courses')
    expect(chart()[0]!.points).toEqual([{ day: '2026-03-01', lines: 3 }])
    await wrapper.find('[data-part="past"]').trigger('click')
    await flushPromises()
    expect(chart().map(course => course.repository)).toEqual(['tide', 'cove'])
    expect(chart()[0]!.points).toEqual([
      { day: '2025-01-01', lines: 7 },
      { day: '2026-03-01', lines: 3 },
    ])
    await wrapper.find('[data-part="past"]').trigger('click')
    await flushPromises()
    expect(chart()).toHaveLength(1)
    wrapper.unmount()
  })

  it('groups by the owners of files', async () => {
    asked.worklistItems.mockResolvedValue({
      items: [item(1, 'tide', 'a.c', { owners: ['@gauges'] }), item(2, 'cove', 'b.c')],
      count: 2,
      at: 'then',
    })
    const wrapper = await page()
    await wrapper.find('select').setValue('owner')
    expect(wrapper.findAll('h2').map(one => one.text())).toEqual(
      expect.arrayContaining(['@gauges 1 item', 'no owner named 1 item']),
    )
    expect(wrapper.findComponent(OverTimeChart).props('courses')[0]).toMatchObject({ repository: '@gauges', now: 3 })
    wrapper.unmount()
  })

  it('offers to make one where there is none', async () => {
    asked.worklists.mockResolvedValueOnce([])
    const wrapper = await page()
    asked.worklistItems.mockResolvedValueOnce({ items: [], count: 0, at: 'then' })
    const button = wrapper.findAll('button').find(one => one.text() === 'Make a worklist')!
    await button.trigger('click')
    await flushPromises()
    expect(asked.addWorklist).toHaveBeenCalledWith(search)
    await vi.advanceTimersByTimeAsync(1100)
    await flushPromises()
    expect(names(wrapper), 'which join a moment later').toHaveLength(3)
    expect(wrapper.find('[aria-current="true"]').exists()).toBe(true)
    wrapper.unmount()
  })
})
