import { bytes, number } from './amounts'
import type { HealthReading } from './wire'

/** What a plot of the page about health shows. */
export interface Figure {
  name: string
  lines: { name: string; of: (reading: HealthReading) => number | null }[]
  /** The least that the scale reaches to. */
  least: number
  limit?: (now: HealthReading) => number
  shown: (value: number) => string
}

/** Milliseconds, as few digits as tell something. */
export const millis = (value: number): string =>
  value >= 1000 ? `${(value / 1000).toFixed(1)} s` : `${value >= 10 ? Math.round(value) : value} ms`

const perMinute = (count: number, reading: HealthReading) => (count * 60) / Math.max(1, reading.seconds)
const few = (value: number) => number(Math.round(value * 10) / 10)

export const figures: Figure[] = [
  {
    name: 'Searches',
    lines: [
      { name: 'a minute', of: it => perMinute(it.searches, it) },
      { name: 'failed', of: it => perMinute(it.failedSearches, it) },
    ],
    least: 5,
    shown: few,
  },
  {
    name: 'Answered within',
    lines: [
      { name: '95 %', of: it => it.slowMillis },
      { name: 'half', of: it => it.medianMillis },
    ],
    least: 10,
    shown: millis,
  },
  {
    name: 'Queue',
    lines: [
      { name: 'jobs', of: it => it.waiting },
      { name: 'minutes that the oldest waits', of: it => it.oldestSeconds / 60 },
    ],
    least: 5,
    shown: few,
  },
  {
    name: 'Repositories',
    lines: [
      { name: 'failing', of: it => it.failed },
      { name: 'behind', of: it => it.behind },
    ],
    least: 5,
    shown: few,
  },
  { name: 'Disk', lines: [{ name: 'free', of: it => it.freeBytes }], least: 1e9, shown: bytes },
  { name: 'Index', lines: [{ name: 'on disk', of: it => it.indexBytes }], least: 1e6, shown: bytes },
  {
    name: 'Heap',
    lines: [{ name: 'in use', of: it => it.heapBytes }],
    least: 1e8,
    limit: it => it.heapLimitBytes,
    shown: bytes,
  },
  { name: 'Memory', lines: [{ name: 'of its own', of: it => it.residentBytes }], least: 1e8, shown: bytes },
  {
    name: 'Mappings',
    lines: [
      { name: 'now', of: it => it.mappings },
      { name: 'segments', of: it => it.segments },
    ],
    least: 100,
    shown: few,
  },
  {
    name: 'Handles',
    lines: [
      { name: 'now', of: it => it.handles },
      { name: 'threads', of: it => it.threads },
    ],
    least: 100,
    shown: few,
  },
]

const hours = new Intl.DateTimeFormat('en', { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' })
const days = new Intl.DateTimeFormat('en', { month: 'short', day: 'numeric' })

/** A moment as an axis names it: the time of day, or the day where several are shown. */
export const moment = (seconds: number, shown: { min?: number; max?: number }): string =>
  ((shown.max ?? 0) - (shown.min ?? 0) > 2 * 86_400 ? days : hours).format(new Date(seconds * 1000))

/** Times in seconds since 1970 with what was read then; nothing where a reading is missing, so that a line breaks off. */
export function gapped(past: HealthReading[]): [number, HealthReading | null][] {
  const usual = Math.max(60, ...past.map(reading => reading.seconds))
  const points: [number, HealthReading | null][] = []
  let before = 0
  for (const reading of past) {
    const time = Date.parse(reading.at) / 1000
    if (points.length && time - before > 2.5 * usual) points.push([before + usual, null])
    points.push([time, reading])
    before = time
  }
  return points
}
