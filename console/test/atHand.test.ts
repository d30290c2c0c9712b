import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import { pinnedFiles, rememberOpened, togglePin } from '../src/opened'
import AtHand from '../src/parts/AtHand.vue'
import * as requests from '../src/requests'
import type { CommitsAnswer, FoundCommit } from '../src/wire'

vi.mock('../src/requests')
const asked = vi.mocked(requests)
const router = createRouter({
  history: createMemoryHistory(),
  routes: ['file', 'commit'].map(name => ({ path: `/${name}`, name, component: {} })),
})
const commit = (summary: string): FoundCommit =>
  ({
    commit: { repository: 'tide', id: summary, summary, authored: '2026-03-01T07:00:00Z' },
  }) as FoundCommit

async function startPage() {
  const wrapper = mount(AtHand, { global: { plugins: [router] } })
  await flushPromises()
  return wrapper
}

beforeEach(() => {
  localStorage.clear()
  vi.resetAllMocks()
  asked.findCommits.mockResolvedValue({ commits: [] as FoundCommit[] } as CommitsAnswer)
})

describe('what the start page has at hand', () => {
  it('is nothing at first', async () => {
    expect((await startPage()).find('[data-part="at-hand"]').exists()).toBe(false)
  })

  it('are pinned files until they are taken off, and those opened lately', async () => {
    rememberOpened('tide', 'a/gauge.c')
    rememberOpened('tide', 'sign.c')
    togglePin('tide/a/gauge.c')
    const wrapper = await startPage()
    expect(wrapper.find('[data-part="pinned"] a').text()).toBe('tide/a/gauge.c')
    expect(wrapper.find('[data-part="pinned"] a').attributes('href')).toBe('/file?in=tide&path=a/gauge.c')
    expect(wrapper.findAll('[data-part="opened"] a').map(link => link.text())).toEqual(['tide/sign.c'])
    await wrapper.find('[data-part="pinned"] button').trigger('click')
    expect(wrapper.find('[data-part="pinned"]').exists()).toBe(false)
    expect(pinnedFiles()).toEqual([])
  })

  it('are the latest commits, wherever they are', async () => {
    asked.findCommits.mockResolvedValue({ commits: [commit('Signs in metres')] } as CommitsAnswer)
    const wrapper = await startPage()
    expect(wrapper.find('[data-part="changed"]').text()).toContain('Signs in metres')
    expect(wrapper.find('[data-part="changed"] a').attributes('href')).toContain('/commit?in=tide')
  })

  it('stay when the service is gone', async () => {
    togglePin('tide/a.c')
    asked.findCommits.mockRejectedValue(new Error('gone'))
    expect((await startPage()).find('[data-part="pinned"]').text()).toContain('tide/a.c')
  })
})
