import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import ReplacePage from '../src/pages/ReplacePage.vue'
import * as requests from '../src/requests'
import { useSession } from '../src/state/session'
import { save } from '../src/takeaway'
import type { ReplacementChange, ReplacementPreview } from '../src/wire'

vi.mock('../src/requests')
vi.mock('../src/takeaway')
const asked = vi.mocked(requests)
const saved = vi.mocked(save)
const router = createRouter({
  history: createMemoryHistory(),
  routes: ['search', 'symbols', 'replace'].map(name => ({ path: `/${name}`, name, component: {} })),
})
const change = (line: number, column: number, more: Partial<ReplacementChange> = {}): ReplacementChange => ({
  line,
  column,
  before: 'a feet <b>',
  after: 'a metres <b>',
  match: 'feet',
  with: 'metres',
  applied: true,
  warnings: [],
  ...more,
})
const found: ReplacementPreview = {
  matches: 4,
  fileCount: 3,
  files: [
    {
      repository: 'tide',
      branch: 'main',
      commit: 'c',
      path: 'a.c',
      newPath: null,
      changes: [change(1, 3), change(2, 3, { warnings: ['it is part of a longer word'] })],
    },
    { repository: 'tide', branch: 'main', commit: 'c', path: 'b.c', newPath: null, changes: [change(7, 3)] },
    { repository: 'cove', branch: 'main', commit: 'c', path: 'c.c', newPath: null, changes: [change(9, 3)] },
  ],
  left: [{ repository: 'tide', path: 'gen.c', why: 'it is generated' }],
  renamed: 0,
  repositories: ['tide', 'cove'],
  outside: null,
  symbol: null,
}

async function page(address = '/replace?q=feet&reading=regex&repo=tide&order=recent') {
  await router.push(address)
  const wrapper = mount(ReplacePage, { global: { plugins: [router] } })
  await flushPromises()
  return wrapper
}
async function look(wrapper: Awaited<ReturnType<typeof page>>) {
  await wrapper.find('[data-part="with"]').setValue('metres')
  await wrapper.find('form').trigger('submit')
  await flushPromises()
}

beforeEach(() => {
  vi.resetAllMocks()
  setActivePinia(createPinia())
  asked.previewReplacement.mockResolvedValue(found)
  asked.savedSearches.mockResolvedValue([])
  asked.replacementPatches.mockResolvedValue(new Blob(['patch']))
})

describe('the page of a replacement', () => {
  it('asks for the search it came from, and shows each match before and after', async () => {
    const wrapper = await page()
    await look(wrapper)
    expect(asked.previewReplacement).toHaveBeenCalledWith({
      subject: 'lines',
      parameters: { q: ['feet'], reading: ['regex'], repo: ['tide'] },
      with: 'metres',
      keepCase: false,
      in: 'text',
      mentions: false,
      generated: false,
      except: [],
      own: {},
      lines: [],
      message: null,
      author: null,
    })
    expect(router.currentRoute.value.query, 'which can be shared').toMatchObject({ q: 'feet', with: 'metres' })
    const first = wrapper.find('[data-match="tide/a.c:1:3"]')
    expect(first.findAll('p')[0]!.text()).toContain('a feet <b>')
    expect(first.findAll('p')[1]!.text()).toContain('a metres <b>')
    expect(wrapper.find('[data-part="warning"]').text()).toBe('it is part of a longer word')
    expect(wrapper.find('[data-part="stays"]').text()).toContain('tide/gen.c: it is generated')
    expect(wrapper.find('[data-part="amount"]').text()).toContain('4 of 4 matches in 3 files')
  })

  it('puts what the variables of a shape stand for, in texts alone', async () => {
    const wrapper = await page('/replace?q=shape(feet(%3Fx))&reading=expression')
    expect(wrapper.find('[data-part="with"]').attributes('placeholder')).toBe('?name is what it stands for')
    expect(wrapper.find('[data-part="in"]').exists()).toBe(false)
    expect(wrapper.text()).not.toContain('in the case of the match')
    await look(wrapper)
    expect(asked.previewReplacement.mock.lastCall?.[0]).toMatchObject({
      parameters: { q: ['shape(feet(?x))'], reading: ['expression'] },
      in: 'text',
    })
  })

  it('leaves out what is not ticked, gives a match its own, and saves the patches', async () => {
    const wrapper = await page()
    await look(wrapper)
    await wrapper.find('[data-match="tide/a.c:1:3"] input[type="checkbox"]').trigger('change')
    await wrapper.find('[data-file="tide/b.c"]').trigger('change')
    await wrapper.find('[data-repository="cove"]').trigger('change')
    const own = wrapper.find('[data-match="tide/a.c:2:3"] input.field')
    await own.setValue('yards')
    expect(wrapper.find('[data-match="tide/a.c:2:3"]').text()).toContain('a yards <b>')
    expect(wrapper.find('[data-part="amount"]').text()).toContain('1 of 4 matches')
    await wrapper.find('[data-part="take"]').trigger('click')
    await flushPromises()
    expect(asked.replacementPatches.mock.lastCall?.[0]).toMatchObject({
      except: ['tide/a.c:1:3', 'tide/b.c', 'cove'],
      own: { 'tide/a.c:2:3': 'yards' },
    })
    expect(saved.mock.lastCall?.[1]).toBe('patches.zip')
    expect(wrapper.text()).toContain('git apply -R takes it back')
    await wrapper
      .findAll('button')
      .find(button => button.text() === 'Its patch')!
      .trigger('click')
    await flushPromises()
    expect(saved.mock.lastCall?.[1]).toBe('tide.patch')
  })

  it('writes whole lines anew, and leaves names as they are', async () => {
    asked.previewReplacement.mockResolvedValue({
      ...found,
      renamed: 1,
      files: found.files.map((file, i) => (i ? file : { ...file, newPath: 'z.c' })),
      outside: { hits: 3, files: 2 },
    })
    const wrapper = await page('/replace?q=feet&with=metres&in=both')
    expect(asked.previewReplacement.mock.lastCall?.[0]).toMatchObject({ in: 'both' })
    expect(wrapper.find('[data-part="outside"]').text()).toContain('outside the scope as well, in 3 lines')
    expect(wrapper.find('[data-part="amount"]').text()).toContain('1 file renamed')
    const match = wrapper.find('[data-match="tide/a.c:1:3"]')
    await match.find('[data-part="edit-line"]').trigger('click')
    await match.find('[data-part="line"]').setValue('b metres')
    await wrapper.find('[data-part="renamed"] input').trigger('change')
    await wrapper.find('[data-part="take"]').trigger('click')
    await flushPromises()
    expect(asked.replacementPatches.mock.lastCall?.[0]).toMatchObject({
      except: ['tide/a.c:path'],
      lines: [{ repository: 'tide', branch: 'main', path: 'a.c', line: 1, was: 'a feet <b>', with: 'b metres' }],
    })
    await match.find('[data-part="edit-line"]').trigger('click')
    await wrapper.find('[data-part="take"]').trigger('click')
    await flushPromises()
    expect(asked.replacementPatches.mock.lastCall?.[0].lines).toEqual([])
  })

  it('shows a file as it would be, and ticks all or nothing', async () => {
    asked.replacedText.mockResolvedValue({ path: 'a.c', text: 'a metres <b>\nrest\n' })
    const wrapper = await page()
    await look(wrapper)
    await wrapper.find('[data-part="whole"]').trigger('click')
    await flushPromises()
    expect(asked.replacedText.mock.lastCall?.slice(1)).toEqual(['tide', 'a.c'])
    expect(wrapper.find('[data-part="afterwards"]').text()).toBe('a metres <b>\nrest')
    await wrapper.find('[data-part="all"]').setValue(false)
    expect(wrapper.find('[data-part="amount"]').text()).toContain('0 of 4 matches')
    await wrapper.find('[data-part="all"]').setValue(true)
    expect(wrapper.find('[data-part="amount"]').text()).toContain('4 of 4 matches')
  })

  it('replaces a symbol, says how sure that is, and is saved under a name', async () => {
    expect(useSession().accounts).toBe(false)
    asked.previewReplacement.mockResolvedValue({
      ...found,
      symbol: { declarations: 2, containers: ['Pier', 'Quay'], uses: 3, sure: 1, likely: 1, others: 2 },
    })
    const wrapper = await page('/replace?q=depth&subject=symbols&role=any&with=metres')
    expect(asked.previewReplacement.mock.lastCall?.[0]).toMatchObject({
      subject: 'symbols',
      parameters: { q: ['depth'], reading: ['plain'] },
    })
    expect(wrapper.find('[data-part="symbol"]').text()).toBe(
      'Declared 2 times, in Pier, Quay. Of 3 uses 1 is surely of it, 1 likely. 2 uses of another with this name stay as they are.',
    )
    await wrapper.find('[data-part="save-search"]').trigger('click')
    await wrapper.find('[data-part="search-name"]').setValue('depths')
    await wrapper.find('[data-part="search-name"]').element.closest('form')!.dispatchEvent(new Event('submit'))
    await flushPromises()
    expect(asked.saveSearch).toHaveBeenCalledWith(
      'depths',
      expect.objectContaining({
        subject: 'symbols',
        parameters: { q: ['depth'], reading: ['plain'] },
        replacement: { with: 'metres', keepCase: null, in: null, mentions: null },
      }),
    )
  })

  it('saves nothing that was not looked at, and says what is refused', async () => {
    const wrapper = await page()
    await look(wrapper)
    await wrapper.find('[data-part="with"]').setValue('$3')
    expect(wrapper.find('[data-part="take"]').attributes('disabled')).toBeDefined()
    asked.previewReplacement.mockRejectedValue(new Error('The regular expression has no group 3.'))
    await wrapper.find('form').trigger('submit')
    await flushPromises()
    expect(wrapper.find('[role="alert"]').text()).toBe('The regular expression has no group 3.')
  })

  it('shows at once what a link is about', async () => {
    const wrapper = await page('/replace?q=feet&with=metres&keepCase=true')
    expect(asked.previewReplacement.mock.lastCall?.[0]).toMatchObject({
      parameters: { q: ['feet'] },
      with: 'metres',
      keepCase: true,
    })
    expect(wrapper.find('[data-part="amount"]').exists()).toBe(true)
  })

  it('asks for a search where there is none', async () => {
    expect((await page('/replace')).text()).toContain('Search for lines first')
  })
})
