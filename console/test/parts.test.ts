import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import { h, ref } from 'vue'
import { earlierSearches, remember } from '../src/earlier'
import ChoiceBar from '../src/parts/ChoiceBar.vue'
import FacetBars from '../src/parts/FacetBars.vue'
import MarkedText from '../src/parts/MarkedText.vue'
import ScopeFacets from '../src/parts/ScopeFacets.vue'
import ScopeSentence from '../src/parts/ScopeSentence.vue'
import SearchBox from '../src/parts/SearchBox.vue'
import SecondLooks from '../src/parts/SecondLooks.vue'
import TickList from '../src/parts/TickList.vue'
import { emptySearch, everywhere } from '../src/searchUrl'
import { useRepositories } from '../src/state/repositories'
import { useSets } from '../src/state/sets'
import type { ExclusionSet, Facet, Scope, Search, SecondLook } from '../src/wire'

vi.mock('../src/requests')
const router = createRouter({
  history: createMemoryHistory(),
  routes: ['', 'types', 'sets'].map(name => ({ path: `/${name}`, name: name || 'search', component: {} })),
})

beforeEach(() => {
  setActivePinia(createPinia())
  localStorage.clear()
})

describe('a box for the text', () => {
  function box(search: Partial<Search> = {}, more: object = {}) {
    const model = ref<Search>({ ...emptySearch(), ...search })
    const left = vi.fn()
    const wrapper = mount(
      () =>
        h(SearchBox, {
          modelValue: model.value,
          running: false,
          onLeave: left,
          ...more,
        }),
      { attachTo: document.body },
    )
    const area = wrapper.find('textarea')
    return { model, left, wrapper, area }
  }

  it('grows with its lines, up to six', async () => {
    const { area } = box({ text: 'one\ntwo\nthree' })
    expect(area.attributes('rows')).toBe('3')
    expect(box({ text: 'x\n'.repeat(20) }).area.attributes('rows')).toBe('6')
  })

  it('leaves by Enter and by the arrow, not by Shift Enter', async () => {
    const { area, left } = box({ text: 'tide' })
    await area.trigger('keydown', { key: 'Enter', shiftKey: true })
    expect(left).not.toHaveBeenCalled()
    await area.trigger('keydown', { key: 'Enter' })
    await area.trigger('keydown', { key: 'ArrowDown' })
    expect(left).toHaveBeenCalledTimes(2)
  })

  it('brings earlier searches back and forth', async () => {
    remember({ ...emptySearch(), text: 'older' })
    remember({ ...emptySearch(), text: 'newer', reading: 'regex' })
    const { area, model } = box({ text: 'typed' })
    await area.trigger('keydown', { key: 'ArrowUp' })
    expect(model.value).toMatchObject({ text: 'newer', reading: 'regex' })
    await area.trigger('keydown', { key: 'ArrowUp' })
    expect(model.value.text).toBe('older')
    await area.trigger('keydown', { key: 'ArrowUp' })
    expect(model.value.text).toBe('older')
    await area.trigger('keydown', { key: 'ArrowDown' })
    await area.trigger('keydown', { key: 'ArrowDown' })
    expect(model.value).toMatchObject({ text: 'typed', reading: 'plain' })
  })

  it('moves within a text of several lines, and brings nothing back', async () => {
    remember({ ...emptySearch(), text: 'older' })
    const { area, model } = box({ text: 'two\nlines' })
    await area.trigger('keydown', { key: 'ArrowUp' })
    expect(model.value.text).toBe('two\nlines')
  })

  it('marks a mistake where it is, and offers what was perhaps meant', async () => {
    const mistake = { position: 0, length: 4, message: 'There is no naer( ).', suggestion: 'near(3, a, b)' }
    const problem = { title: '', status: 400, detail: 'wrong', mistakes: [mistake] }
    const { wrapper, model } = box({ text: 'naer(3, a, b)', reading: 'expression' }, { problem })
    expect(wrapper.find('[data-part=mistake]').text()).toBe('naer')
    await wrapper.find('[data-part=suggestion]').trigger('click')
    expect(model.value.text).toBe('near(3, a, b)')
  })

  it('calls what is unfinished a mistake only once Enter was pressed', async () => {
    const unfinished = { position: 8, length: 0, message: 'A bracket is missing.', unfinished: true }
    const { wrapper, area } = box({ text: 'tide and (', reading: 'expression' }, { unfinished })
    expect(wrapper.find('[role=alert]').exists()).toBe(false)
    expect(wrapper.text()).toContain('Go on: A bracket is missing.')
    await area.trigger('keydown', { key: 'Enter' })
    expect(wrapper.find('[role=alert]').text()).toContain('A bracket is missing.')
    await area.trigger('keydown', { key: 't' })
    expect(wrapper.find('[role=alert]').exists()).toBe(false)
  })

  it('changes how case counts, one after the other', async () => {
    const { wrapper, model } = box()
    const seen: string[] = []
    for (let i = 0; i < 3; i++) {
      await wrapper.find('[data-option=case]').trigger('click')
      seen.push(model.value.caseMode)
    }
    expect(seen).toEqual(['match', 'ignore', 'auto'])
  })
})

describe('earlier searches', () => {
  it('are each kept once, the latest first', () => {
    for (const text of ['a', 'b', 'a', ' ']) remember({ ...emptySearch(), text })
    expect(earlierSearches().map(search => search.text)).toEqual(['a', 'b'])
  })
  it('are at most a hundred', () => {
    for (let i = 0; i < 120; i++) remember({ ...emptySearch(), text: `tide ${i}` })
    expect(earlierSearches()).toHaveLength(100)
  })
  it('that cannot be read are none', () => {
    localStorage.setItem('oddbeacon.searches', '{broken')
    expect(earlierSearches()).toEqual([])
  })
})

describe('a choice of a few', () => {
  const choices = [
    { value: 'plain', title: 'Plain' },
    { value: 'regex', title: 'Regular expression' },
  ]
  it('says which is chosen, to ears too', async () => {
    const wrapper = mount(ChoiceBar, { props: { modelValue: 'plain', label: 'Reading', choices } })
    expect(wrapper.findAll('[role=radio]').map(one => one.attributes('aria-checked'))).toEqual(['true', 'false'])
    await wrapper.find('[data-option=regex]').trigger('click')
    expect(wrapper.emitted('update:modelValue')).toEqual([['regex']])
  })
})

describe('counts beside the list', () => {
  const facets: Facet[] = Array.from({ length: 9 }, (_, i) => ({ value: `value${i}`, hits: 90 - 10 * i, files: 1 }))

  it('show the most frequent, and all when asked', async () => {
    const wrapper = mount(FacetBars, { props: { title: 'By type', facets, exact: true } })
    expect(wrapper.findAll('[aria-pressed]')).toHaveLength(6)
    await wrapper.find('button.part').trigger('click')
    expect(wrapper.findAll('[aria-pressed]')).toHaveLength(9)
  })
  it('say that they are lower bounds', () => {
    expect(mount(FacetBars, { props: { title: 'By type', facets, exact: false } }).text()).toContain('90+')
    expect(mount(FacetBars, { props: { title: 'By type', facets, exact: true } }).text()).not.toContain('+')
  })
  it('are folded away, and stay so on other pages', async () => {
    const wrapper = mount(FacetBars, { props: { title: 'By type', facets, exact: true } })
    await wrapper.find('[aria-expanded]').trigger('click')
    expect(wrapper.findAll('[aria-pressed]')).toHaveLength(0)
    expect(mount(FacetBars, { props: { title: 'By type', facets, exact: true } }).findAll('[aria-pressed]')).toEqual([])
  })
  it('narrow by what was clicked, and leave traits out', async () => {
    const facets = {
      repository: [{ value: 'tidewatch', hits: 1, files: 1 }],
      type: [],
      trait: [{ value: 'test', hits: 1, files: 1 }],
    }
    const wrapper = mount(ScopeFacets, { props: { facets, exact: true, scope: everywhere() } })
    await wrapper.find('[title=tidewatch]').trigger('click')
    await wrapper.find('[aria-label="Leave out test"]').trigger('click')
    expect(wrapper.emitted('choose')).toEqual([
      ['repo', 'tidewatch'],
      ['notTrait', 'test'],
    ])
  })
})

describe('the sentence of the scope', () => {
  function sentence(given: Partial<Scope> = {}) {
    const scope = ref<Scope>({ ...everywhere(), ...given })
    const wrapper = mount(ScopeSentence, {
      props: { modelValue: scope.value, 'onUpdate:modelValue': (value: Scope) => (scope.value = value) },
      global: { plugins: [router] },
    })
    return { scope, wrapper, says: (part: string) => wrapper.find(`[data-part=${part}]`).text() }
  }
  beforeEach(() => {
    useRepositories().overview = { repositories: 3, waiting: 0, indexing: 0, failed: 0, labels: [], commits: '1' }
    useSets().put([{ name: 'translations', byDefault: true } as ExclusionSet])
  })

  it('says that everything is searched, but for what sets leave out', () => {
    const { says } = sentence()
    expect(says('repositories')).toBe('all 3 repositories')
    expect(says('branches')).toBe('default branches')
    expect(says('under')).toBe('in every folder')
    expect(says('sets')).toBe('leaving out translations')
  })
  it('names up to three, and counts the rest', () => {
    expect(sentence({ repo: ['heron', 'dunlin'] }).says('repositories')).toBe('heron or dunlin')
    expect(sentence({ type: ['java', 'c', 'go', 'rust'] }).says('types')).toBe('in java, c and 2 more')
    expect(sentence({ under: ['src'], notUnder: ['vendor'] }).says('under')).toBe('under src but not vendor')
    expect(sentence({ trait: ['test'], notTrait: ['generated'] }).says('traits')).toBe('that are test, not generated')
    expect(sentence({ changedAfter: ['2024'] }).says('changed')).toBe('changed since 2024')
    expect(sentence({ lift: ['translations'] }).says('sets')).toBe('leaving nothing out')
    expect(sentence({ region: ['comment', 'string'] }).says('regions')).toBe('only in comments and strings')
  })
  it('is lifted as a whole', async () => {
    const { scope, wrapper } = sentence({ repo: ['heron'], type: ['java'] })
    await wrapper
      .findAll('button')
      .find(button => button.text() === 'Search everywhere')!
      .trigger('click')
    expect(scope.value).toEqual(everywhere())
  })
  it('has no way to lift what is not limited', () => {
    expect(sentence().wrapper.text()).not.toContain('Search everywhere')
  })
})

describe('values to tick', () => {
  const options = Array.from({ length: 12 }, (_, i) => ({ value: `type${i}`, title: `Title ${i}` }))
  it('have a filter when they are many, by name and title', async () => {
    const wrapper = mount(TickList, { props: { modelValue: ['type3'], options, what: 'types' } })
    expect(wrapper.findAll('[type=checkbox]')).toHaveLength(12)
    await wrapper.find('input.field').setValue('title 1')
    expect(wrapper.findAll('label').map(label => label.text())).toEqual([
      'type1Title 1',
      'type10Title 10',
      'type11Title 11',
    ])
    await wrapper.find('input.field').setValue('kelp')
    expect(wrapper.text()).toContain('None of the types fits.')
  })
  it('begin with those that are ticked', () => {
    const wrapper = mount(TickList, { props: { modelValue: ['type9'], options, what: 'types' } })
    expect(wrapper.find('label').text()).toContain('type9')
  })
})

describe('marked text', () => {
  const marked = (props: { text: string; matches: { start: number; end: number }[]; offset?: number }) =>
    mount(() => h('p', h(MarkedText, props)))

  it('marks matches, counted from where the text begins', () => {
    const matches = [
      { start: 104, end: 108 },
      { start: 115, end: 119 },
    ]
    const wrapper = marked({ text: 'low tide, high tide', matches, offset: 100 })
    expect(wrapper.findAll('mark').map(mark => mark.text())).toEqual(['tide', 'tide'])
    expect(wrapper.text()).toBe('low tide, high tide')
  })
  it('shows markup as text', () => {
    const wrapper = marked({ text: '<b>tide</b>', matches: [] })
    expect(wrapper.find('b').exists()).toBe(false)
    expect(wrapper.text()).toBe('<b>tide</b>')
  })
})

describe('second looks', () => {
  it('say what each would find, and are taken by a click', async () => {
    const look = { change: 'ignoring case', hits: 3, files: 2, exact: false } as SecondLook
    const wrapper = mount(SecondLooks, { props: { looks: [look] } })
    await flushPromises()
    expect(wrapper.text()).toContain('at least 3 hits')
    await wrapper
      .findAll('button')
      .find(button => button.text().includes('ignoring case'))!
      .trigger('click')
    expect(wrapper.emitted('take')).toEqual([[look]])
  })
})
