import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { figures, gapped, millis } from '../src/health'
import HealthPage from '../src/pages/HealthPage.vue'
import * as requests from '../src/requests'
import type { Health, HealthReading } from '../src/wire'

vi.mock('../src/requests')
vi.mock('../src/plot')
const asked = vi.mocked(requests)
const reading = (at: string, more: Partial<HealthReading> = {}): HealthReading => ({
  at,
  seconds: 60,
  searches: 30,
  failedSearches: 0,
  medianMillis: 2.5,
  slowMillis: 1200,
  waiting: 0,
  oldestSeconds: 0,
  repositories: 7,
  failed: 0,
  behind: 0,
  segments: 3,
  indexBytes: 4e6,
  freeBytes: 8e10,
  heapBytes: 2e8,
  heapLimitBytes: 1e9,
  residentBytes: 4e8,
  mappings: 900,
  handles: 150,
  threads: 40,
  ...more,
})
const well: Health = {
  started: '2026-04-01T05:00:00Z',
  findings: [],
  failures: [],
  processes: [
    {
      duties: ['serving', 'indexing'],
      host: 'lamp',
      pid: 4711,
      started: '2026-04-01T05:00:00Z',
      heapBytes: 3e8,
      heapLimitBytes: 1e9,
    },
  ],
  now: reading('2026-04-01T06:00:00Z'),
  past: [reading('2026-04-01T05:58:00Z'), reading('2026-04-01T05:59:00Z')],
}

beforeEach(() => {
  vi.resetAllMocks()
  asked.machines.mockResolvedValue({ cluster: '', objects: '', machines: [] })
})

describe('readings over time', () => {
  it('break off where some are missing', () => {
    const points = gapped([
      reading('2026-04-01T06:00:00Z'),
      reading('2026-04-01T06:01:00Z'),
      reading('2026-04-01T07:00:00Z'),
    ])
    expect(points.map(([, one]) => one !== null)).toEqual([true, true, false, true])
    expect(points.map(([time]) => time)).toEqual([...points.map(([time]) => time)].sort((a, b) => a - b))
  })
  it('are told by the minute, however long they are', () => {
    const searches = figures.find(figure => figure.name === 'Searches')!
    expect(searches.lines[0]!.of(reading('2026-04-01T06:00:00Z', { seconds: 900, searches: 450 }))).toBe(30)
  })
  it('have times in a unit that fits', () => {
    expect([2.5, 48.2, 1200].map(millis)).toEqual(['2.5 ms', '48 ms', '1.2 s'])
  })
})

describe('the page', () => {
  it('says that all is well, with every figure', async () => {
    asked.health.mockResolvedValue(well)
    const page = mount(HealthPage)
    expect(page.text()).toContain('Loading')
    await flushPromises()
    expect(page.find('[data-part=well]').text()).toContain('All is well')
    expect(page.findAll('figure')).toHaveLength(figures.length)
    expect(page.find('[data-figure=Heap]').text()).toMatch(/in use\s*200 MB.*at most 1.0 GB/)
    page.unmount()
  })
  it('says what is wrong, how pressing it is, and what to do', async () => {
    asked.health.mockResolvedValue({
      ...well,
      findings: [
        { level: 'act', about: 'disk', what: 'Indexing pauses.', advice: 'Make room.' },
        { level: 'watch', about: 'queue', what: '3 jobs wait.', advice: 'It passes.' },
      ],
    })
    const page = mount(HealthPage)
    await flushPromises()
    const [act, watch] = page.findAll('li')
    expect(act!.text()).toMatch(/act\s*Indexing pauses\.\s*Make room\./)
    expect(act!.attributes('data-level')).toBe('act')
    expect(watch!.text()).toMatch(/watch\s*3 jobs wait\./)
    page.unmount()
  })
  it('shows the processes when there are several', async () => {
    const one = well.processes[0]!
    asked.health.mockResolvedValueOnce(well).mockResolvedValueOnce({
      ...well,
      processes: [
        { ...one, duties: ['serving'] },
        { ...one, pid: 12, host: 'keel', duties: ['indexing'] },
      ],
    })
    const alone = mount(HealthPage)
    await flushPromises()
    expect(alone.find('[data-part=processes]').exists()).toBe(false)
    alone.unmount()
    const page = mount(HealthPage)
    await flushPromises()
    expect(page.findAll('[data-part=processes] tbody tr').map(row => row.text())).toEqual([
      expect.stringMatching(/4711 on lamp\s*serving/),
      expect.stringMatching(/12 on keel\s*indexing.*300 MB of 1.0 GB/),
    ])
    page.unmount()
  })
  it('asks for the time that is chosen', async () => {
    asked.health.mockResolvedValue(well)
    const page = mount(HealthPage)
    await flushPromises()
    await page.findAll('button')[2]!.trigger('click')
    expect(asked.health.mock.calls.map(([over]) => over)).toEqual(['hour', 'month'])
    page.unmount()
  })
  it('keeps what it has when the service does not answer', async () => {
    asked.health.mockResolvedValueOnce(well).mockRejectedValueOnce(new Error('The service does not answer.'))
    const page = mount(HealthPage)
    await flushPromises()
    await page.findAll('button')[1]!.trigger('click')
    await flushPromises()
    expect(page.find('[role=alert]').text()).toBe('The service does not answer.')
    expect(page.findAll('figure')).toHaveLength(figures.length)
    page.unmount()
  })
})
