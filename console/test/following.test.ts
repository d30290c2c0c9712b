import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import { createMemoryHistory, createRouter } from 'vue-router'
import RepositoryList from '../src/parts/RepositoryList.vue'
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

const overview = (repositories: number) => ({
  repositories,
  waiting: 0,
  indexing: 0,
  failed: 0,
  labels: [],
  commits: '1',
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
    useRepositories().overview = overview(1)
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
  const many = Array.from({ length: 450 }, (_, i) => repository(`r${String(i).padStart(3, '0')}`, null))
  beforeEach(() => {
    setActivePinia(createPinia())
    asked.repositories.mockImplementation(({ find = '', name, limit = 1000 } = {}) =>
      Promise.resolve(
        many.filter(one => one.name.includes(find) && (!name || name.includes(one.name))).slice(0, limit),
      ),
    )
    useRepositories().overview = overview(450)
  })
  const names = (page: ReturnType<typeof mount>) =>
    page.findAll('[data-repository]').map(one => one.attributes('data-repository'))

  it('are asked for a hundred at a time, and by what is typed', async () => {
    const page = mount(RepositoriesPage, { global: { plugins: [router] } })
    await flushPromises()
    expect(names(page)).toHaveLength(100)
    expect(page.find('[data-part=more]').text()).toContain('100 of 450 are shown')
    await page.find('[data-part=more] button').trigger('click')
    await flushPromises()
    expect(names(page)).toHaveLength(450)
    expect(page.find('[data-part=more]').exists()).toBe(false)
    await page.find('#filter').setValue('r44')
    await flushPromises()
    expect(names(page)).toHaveLength(10)
    page.unmount()
  })
  it('are read again when any of them has changed', async () => {
    const page = mount(RepositoriesPage, { global: { plugins: [router] } })
    await flushPromises()
    asked.overview.mockResolvedValue(overview(450))
    const before = asked.repositories.mock.calls.length
    await useRepositories().load()
    await flushPromises()
    expect(asked.repositories.mock.calls.length).toBe(before + 1)
    page.unmount()
  })
  it('are found for a scope by a part of their name; those that are ticked stay in sight', async () => {
    const chosen = ref(['r300'])
    const list = mount(RepositoryList, {
      props: { modelValue: chosen.value, 'onUpdate:modelValue': (now: string[]) => (chosen.value = now) },
    })
    await flushPromises()
    expect(list.findAll('label')).toHaveLength(51)
    expect(list.find('label input').element).toHaveProperty('checked', true)
    expect(list.text()).toContain('There are more')
    await list.find('input.field').setValue('r44')
    await flushPromises()
    expect(list.findAll('label')).toHaveLength(10)
    await list.find('label input').setValue(true)
    expect(chosen.value).toEqual(['r300', 'r440'])
    list.unmount()
  })
  it('tell their titles when they are shown, all that are wanted in one request', async () => {
    const repositories = useRepositories()
    asked.repositories.mockClear()
    expect(['r001', 'r002'].map(repositories.title)).toEqual(['r001', 'r002'])
    await flushPromises()
    expect(asked.repositories.mock.calls).toEqual([[{ name: ['r001', 'r002'] }]])
    expect(repositories.title('r001')).toBe(many[1]!.title)
  })
})
