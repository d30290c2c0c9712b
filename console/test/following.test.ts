import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import RepositoriesPage from '../src/pages/RepositoriesPage.vue'
import RostersPage from '../src/pages/RostersPage.vue'
import RemoveRepository from '../src/parts/RemoveRepository.vue'
import * as requests from '../src/requests'
import { useRepositories } from '../src/state/repositories'
import type { Repository, RosterEntry, RosterInfo } from '../src/wire'

vi.mock('../src/requests')
const asked = vi.mocked(requests)
const router = createRouter({
  history: createMemoryHistory(),
  routes: ['search', 'repositories', 'rosters', 'health', 'credentials', 'tree', 'commits'].map(name => ({
    path: `/${name}`,
    name,
    component: {},
  })),
})
const fleet: RosterInfo = {
  roster: {
    name: 'fleet',
    source: '/srv/git',
    path: null,
    only: [],
    rules: [
      { match: '*', labels: ['ours'], branches: ['main'], visibleTo: [] },
      { match: 'pay*', labels: ['money'], branches: [], visibleTo: ['team:money'] },
    ],
    graceDays: 7,
  },
  read: '2026-05-01T12:00:00Z',
  problem: null,
  repositories: 12,
  leaving: 1,
  leftOut: 0,
}
const entry = (name: string, standing: RosterEntry['standing'], problem: string | null = null): RosterEntry => ({
  name,
  title: name,
  location: `/srv/git/${name}`,
  labels: [],
  branches: [],
  visibleTo: [],
  standing,
  problem,
})
const minutesAgo = (minutes: number) => new Date(Date.now() - minutes * 60_000).toISOString()
const repository = (name: string, following: Repository['following']): Repository => ({
  name,
  title: name,
  location: `/srv/git/${name}`,
  labels: [],
  state: 'ready',
  problem: null,
  progress: null,
  branches: [],
  history: { complete: true, commits: 1, oldest: null, cut: 0, withoutLines: 0, problem: null },
  following,
  disk: { mirrorBytes: 12_000, pastBytes: 3_000 },
})

beforeEach(() => {
  vi.resetAllMocks()
  setActivePinia(createPinia())
  asked.session.mockResolvedValue({ accounts: false, person: null, issuer: null, guests: false })
  asked.rosters.mockResolvedValue([fleet])
})

async function rostersPage() {
  const page = mount(RostersPage, { global: { plugins: [router] } })
  await flushPromises()
  return page
}

describe('rosters', () => {
  it('are looked at before they are followed', async () => {
    asked.previewRoster.mockResolvedValue({
      entries: [entry('map', 'new'), entry('old', 'leaving', 'It is not in the list any more.')],
      problem: null,
    })
    asked.followRoster.mockResolvedValue(fleet)
    const page = await rostersPage()
    expect(page.text()).not.toContain('Follow it')
    await page.find('input[placeholder="fleet"]').setValue('fleet')
    await page.find('input[placeholder="/srv/git"]').setValue('/srv/git')
    await page.find('input[placeholder^="ours"]').setValue('ours, pay*=money')
    await page.find('input[placeholder^="what HEAD"]').setValue('main tags/v*:3')
    await page.find('form').trigger('submit')
    await flushPromises()
    expect(asked.previewRoster).toHaveBeenCalledWith({
      name: 'fleet',
      source: '/srv/git',
      path: null,
      only: [],
      rules: [
        { match: '*', labels: ['ours'], branches: ['main', 'tags/v*:3'], visibleTo: [] },
        { match: 'pay*', labels: ['money'], branches: [], visibleTo: [] },
      ],
      graceDays: 7,
    })
    expect(page.find('[data-part=counts]').text()).toMatch(/\+ new 1.*− leaves 1/)
    expect(page.text()).toContain('It is not in the list any more.')
    expect(asked.followRoster).not.toHaveBeenCalled()
    await page
      .findAll('button')
      .find(button => button.text() === 'Follow it')!
      .trigger('click')
    await flushPromises()
    expect(asked.followRoster).toHaveBeenCalledOnce()
    expect(page.find('[role=status]').text()).toContain('fleet is followed: 12 repositories')
  })

  it('must be looked at again after a change', async () => {
    asked.previewRoster.mockResolvedValue({ entries: [entry('map', 'new')], problem: null })
    const page = await rostersPage()
    await page.find('[aria-label="Change fleet"]').trigger('click')
    expect((page.find('input[placeholder^="ours"]').element as HTMLInputElement).value).toBe('ours pay*=money')
    await page.find('form').trigger('submit')
    await flushPromises()
    expect(page.text()).toContain('Follow it')
    await page.find('input[placeholder="/srv/git"]').setValue('/srv/other')
    expect(page.text()).not.toContain('Follow it')
  })

  it('tell what is wrong', async () => {
    asked.previewRoster.mockRejectedValue(new Error('The folder cannot be read.'))
    const page = await rostersPage()
    await page.find('form').trigger('submit')
    await flushPromises()
    expect(page.find('[role=alert]').text()).toBe('The folder cannot be read.')
  })
})

describe('the page of repositories', () => {
  it.each<[string, Repository['following']]>([
    ['', null],
    [
      'checked 3 min ago',
      { checked: minutesAgo(3), changed: minutesAgo(9), behind: false, commits: null, problem: null },
    ],
    ['behind', { checked: minutesAgo(3), changed: minutesAgo(0), behind: true, commits: null, problem: null }],
    [
      'behind by 3 commits',
      { checked: minutesAgo(3), changed: minutesAgo(0), behind: true, commits: 3, problem: null },
    ],
    [
      'last answered 90 min ago',
      { checked: minutesAgo(90), changed: minutesAgo(90), behind: false, commits: null, problem: 'It is gone.' },
    ],
    [
      'does not answer',
      { checked: null, changed: minutesAgo(1), behind: false, commits: null, problem: 'It is gone.' },
    ],
  ])('says how it stands: %s', async (words, following) => {
    asked.repositories.mockResolvedValue([repository('tide', following)])
    await useRepositories().load()
    const page = mount(RepositoriesPage, { global: { plugins: [router] } })
    await flushPromises()
    const standing = page.find('[data-part=standing]')
    expect(standing.exists() ? standing.text() : '').toBe(words.replace('90 min', '1 h'))
    page.unmount()
  })
})

describe('a repository that is to go', () => {
  const dialog = async () => {
    setActivePinia(createPinia())
    const one = mount(RemoveRepository, { props: { repository: repository('fares', null) }, attachTo: document.body })
    await flushPromises()
    const button = (text: string) =>
      [...document.querySelectorAll('button')].find(it => it.textContent?.trim() === text)!
    return { one, button }
  }
  it('is removed, or purged only', async () => {
    const { one, button } = await dialog()
    button('Purge').click()
    await flushPromises()
    expect(asked.purge.mock.calls).toEqual([['fares']])
    expect(asked.remove).not.toHaveBeenCalled()
    expect(one.emitted('close')).toHaveLength(1)
    one.unmount()
  })
  it('stays where that is refused, with the reason', async () => {
    asked.remove.mockRejectedValue(new Error('fares is in a roster that is followed.'))
    const { one, button } = await dialog()
    button('Remove').click()
    await flushPromises()
    expect(document.querySelector('[role=alert]')!.textContent).toContain('in a roster')
    expect(one.emitted('close')).toBeUndefined()
    one.unmount()
  })
})

describe('thousands of repositories', () => {
  it('are drawn a few hundred at a time, and found by their state', async () => {
    setActivePinia(createPinia())
    const many = Array.from({ length: 450 }, (_, i) => repository(`r${String(i).padStart(3, '0')}`, null))
    many[449]!.state = 'failed'
    const repositories = useRepositories()
    many.forEach(one => repositories.put(one))
    repositories.loaded = true
    const page = mount(RepositoriesPage, { global: { plugins: [router] } })
    await flushPromises()
    expect(page.findAll('[data-repository]')).toHaveLength(200)
    expect(page.find('[data-part=more]').text()).toContain('200 of 450 are shown')
    await page.find('[data-part=more] button').trigger('click')
    expect(page.findAll('[data-repository]')).toHaveLength(450)
    await page.find('#filter').setValue('failed')
    expect(page.findAll('[data-repository]').map(one => one.attributes('data-repository'))).toEqual(['r449'])
    page.unmount()
  })
})
