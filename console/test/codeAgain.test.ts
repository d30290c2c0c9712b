import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import CodeAgain from '../src/parts/CodeAgain.vue'
import * as requests from '../src/requests'

vi.mock('../src/requests')
const shapeOfCode = vi.mocked(requests.shapeOfCode)

function shown(code: string) {
  const page = { template: '<p />' }
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/', component: page },
      { path: '/search', name: 'search', component: page },
    ],
  })
  const part = mount(CodeAgain, { props: { code, language: 'java' }, global: { plugins: [router] } })
  return { part, router }
}

describe('selected code', () => {
  beforeEach(() => {
    setActivePinia(createPinia())
    shapeOfCode.mockReset()
  })

  it('is offered once it is more than a name', () => {
    expect(shown('berth').part.find('[data-part=code-again]').exists()).toBe(false)
    expect(shown('').part.find('[data-part=code-again]').exists()).toBe(false)
    expect(
      shown('x'.repeat(9000) + '(1)')
        .part.find('[data-part=code-again]')
        .exists(),
    ).toBe(false)
    expect(shown('berth.of(stay)').part.find('[data-part=code-again]').exists()).toBe(true)
  })

  it('is searched for as it stands, and with other names', async () => {
    shapeOfCode.mockResolvedValue({ same: 'shape(of(stay))', alike: 'shape(of(?stay))' })
    const { part, router } = shown('of(stay)')
    await part.find('[data-part=same-code]').trigger('click')
    await flushPromises()
    expect(shapeOfCode).toHaveBeenCalledWith('of(stay)', 'java')
    expect(router.currentRoute.value.query).toMatchObject({ q: 'shape(of(stay))', reading: 'expression' })
    await part.find('[data-part=code-alike]').trigger('click')
    await flushPromises()
    expect(router.currentRoute.value.query.q).toBe('shape(of(?stay))')
  })

  it('is searched for as it stands where other names would say nothing else', async () => {
    shapeOfCode.mockResolvedValue({ same: 'shape(Stay.of(ROW))', alike: null })
    const { part, router } = shown('Stay.of(ROW)')
    await part.find('[data-part=code-alike]').trigger('click')
    await flushPromises()
    expect(router.currentRoute.value.query.q).toBe('shape(Stay.of(ROW))')
  })

  it('says what is wrong, until something else is selected', async () => {
    shapeOfCode.mockRejectedValue(new Error('There is no code in it, only blanks or comments.'))
    const { part } = shown('// a b')
    await part.find('[data-part=same-code]').trigger('click')
    await flushPromises()
    expect(part.find('[role=alert]').text()).toContain('only blanks or comments')
    await part.setProps({ code: 'c(d)' })
    expect(part.find('[role=alert]').exists()).toBe(false)
  })
})
