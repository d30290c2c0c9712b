import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import CallsPage from '../src/pages/CallsPage.vue'
import * as requests from '../src/requests'
import type { CallEnd, CallsAnswer, Target } from '../src/wire'

vi.mock('../src/requests')
const ask = vi.mocked(requests.calls)

function target(name: string, line: number): Target {
  const path = 'src/Gauge.java'
  const at = { repository: 'tidewatch', branch: 'main', path, line, column: 9 }
  return { name, kind: 'method', container: 'tide.Gauge', ...at, signature: `int ${name}()`, reason: '' }
}
function end(name: string, line: number, more: Partial<CallEnd> = {}): CallEnd {
  const declaration = target(name, line)
  return {
    declaration,
    repository: 'tidewatch',
    branch: 'main',
    path: declaration.path,
    at: `tidewatch/${declaration.path}:${line}:9`,
    certainty: 'sure',
    sites: [{ line: line + 1, column: 5, text: `${name} calls`, certainty: 'sure' }],
    ...more,
  }
}
const answer = (ends: CallEnd[], more: Partial<CallsAnswer> = {}): CallsAnswer => ({
  of: [target('sound', 7)],
  direction: 'callers',
  ends,
  byName: 0,
  exact: true,
  ...more,
})

async function page(query: Record<string, string>) {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: ['calls', 'file', 'symbols'].map(name => ({ path: `/${name}`, name, component: {} })),
  })
  await router.push({ name: 'calls', query })
  const wrapper = mount(CallsPage, { global: { plugins: [router] } })
  await flushPromises()
  return { wrapper, router }
}

beforeEach(() => {
  ask.mockReset()
})

describe('the page of calls', () => {
  it('unfolds who calls a caller, and not what stands above', async () => {
    ask.mockImplementation(async asked => {
      if ('symbol' in asked) return answer([end('read', 20), end('show', 30, { certainty: 'likely' })], { byName: 3 })
      return asked.of.includes(':20:') ? answer([end('sound', 7), end('run', 40)]) : answer([])
    })
    const { wrapper } = await page({ symbol: 'Gauge.sound' })
    expect(ask.mock.calls[0]?.slice(0, 2)).toEqual([{ symbol: 'Gauge.sound' }, 'callers'])
    expect(wrapper.text()).toContain('3 places were left out')
    expect(wrapper.findAll('li').filter(item => item.text().includes('likely'))).toHaveLength(1)

    const button = wrapper.find('button[aria-label="What calls read"]')
    expect(button.attributes('aria-expanded')).toBe('false')
    await button.trigger('click')
    await flushPromises()
    expect(ask.mock.lastCall?.slice(0, 2)).toEqual([{ of: 'tidewatch/src/Gauge.java:20:9' }, 'callers'])
    expect(wrapper.find('button[aria-label="What calls run"]').exists()).toBe(true)
    expect(wrapper.find('button[aria-label="What calls sound"]').exists()).toBe(false)
    expect(wrapper.text()).toContain('stands above')

    await button.trigger('click')
    expect(wrapper.find('button[aria-label="What calls run"]').exists()).toBe(false)
  })

  it('says so where nothing calls it, and what is wrong', async () => {
    ask.mockResolvedValueOnce(answer([], { exact: false }))
    expect((await page({ of: 'tidewatch/src/Gauge.java:7:9' })).wrapper.text()).toMatch(
      /Nothing that is indexed calls it.*Not all places were looked at/,
    )
    ask.mockRejectedValueOnce(new Error('Nothing that is indexed declares lost.'))
    expect((await page({ symbol: 'lost' })).wrapper.find('[role=alert]').text()).toContain('declares lost')
  })

  it('turns round: what it calls, without the lines of the callees', async () => {
    ask.mockResolvedValue(answer([end('read', 20)], { direction: 'callees' }))
    const { wrapper, router } = await page({ symbol: 'Gauge.sound' })
    await wrapper.find('[data-option=callees]').trigger('click')
    await flushPromises()
    expect(router.currentRoute.value.query).toEqual({ symbol: 'Gauge.sound', direction: 'callees' })
    expect(ask.mock.lastCall?.[1]).toBe('callees')
    expect(wrapper.text()).not.toContain('read calls')
  })

  it('tells of an end that cannot be asked now', async () => {
    ask.mockResolvedValueOnce(answer([end('read', 20)]))
    const { wrapper } = await page({ symbol: 'Gauge.sound' })
    ask.mockRejectedValueOnce(new Error('The service is busy.'))
    await wrapper.find('button[aria-label="What calls read"]').trigger('click')
    await flushPromises()
    expect(wrapper.find('[role=alert]').text()).toBe('The service is busy.')
  })
})
