import { beforeEach, describe, expect, it } from 'vitest'
import { ago, bytes, counted, day, shortRevision } from '../src/amounts'
import { changedParts } from '../src/inline'
import { parseRange, printRange } from '../src/lines'
import { openedFiles, rememberOpened } from '../src/opened'
import { narrowedTo, toggled } from '../src/toggled'

describe('amounts', () => {
  it('are counted with their words', () => {
    expect(counted(1, 'file')).toBe('1 file')
    expect(counted(12_345, 'repository', 'repositories')).toBe('12,345 repositories')
  })
  it.each([
    [0, '0 B'],
    [999, '999 B'],
    [1_000, '1.0 kB'],
    [12_345, '12 kB'],
    [3_400_000, '3.4 MB'],
    [5e15, '5000 TB'],
  ])('of %i bytes are %s', (value, text) => expect(bytes(value)).toBe(text))
  it('of time are told roughly', () => {
    const now = Date.parse('2026-05-01T12:00:00Z')
    expect(ago('2026-05-01T11:59:40Z', now)).toBe('just now')
    expect(ago('2026-05-01T11:18:00Z', now)).toBe('42 min ago')
    expect(ago('2026-04-29T13:00:00Z', now)).toBe('47 h ago')
    expect(ago('2026-04-21T12:00:00Z', now)).toBe('10 days ago')
  })
  it('days are those of the place where they were written', () => {
    expect(day('2026-05-01T23:30:00-07:00')).toBe('May 1, 2026')
  })
  it('commits are shortened, branches are not', () => {
    expect(shortRevision('0123456789abcdef0123456789abcdef01234567')).toBe('0123456789')
    expect(shortRevision('winter-timetable')).toBe('winter-timetable')
  })
})

describe('lines in addresses', () => {
  it.each(['7', '7-12'])('%s comes back', text => expect(printRange(parseRange(text)!)).toBe(text))
  it.each(['', '0', '-3', '7-', 'a', '7-12-13', '99999999999'])('%j is none', text =>
    expect(parseRange(text)).toBeUndefined(),
  )
  it('that run backwards end where they begin', () => expect(parseRange('9-3')).toEqual({ from: 9, to: 9 }))
})

describe('changed parts of a line', () => {
  const cut = (text: string, spans: { start: number; end: number }[]) =>
    spans.map(({ start, end }) => text.slice(start, end))

  it('are the words that only one side has', () => {
    const [before, after] = ['int depth = 7;', 'int height = 7;']
    const parts = changedParts(before, after)!
    expect(cut(before, parts.before)).toEqual(['depth'])
    expect(cut(after, parts.after)).toEqual(['height'])
  })
  it('bring one side to the other when they are replaced', () => {
    const words = ['tide', ' ', 'low', '(', ')', 'x', '=', ' ', 'berth']
    let seed = 5
    const random = (n: number) => (seed = (seed * 48271) % 2147483647) % n
    for (let i = 0; i < 300; i++) {
      const line = () => Array.from({ length: 1 + random(12) }, () => words[random(words.length)]).join('')
      const [before, after] = [line(), line()]
      const parts = changedParts(before, after)
      const rest = (text: string, spans: { start: number; end: number }[]) =>
        [...text].filter((_, at) => !spans.some(({ start, end }) => at >= start && at < end)).join('')
      if (parts) expect(rest(before, parts.before)).toBe(rest(after, parts.after))
    }
  })
  it('are not told of lines that have little in common', () => {
    expect(changedParts('return tide', 'class Berth {}')).toBeUndefined()
  })
})

describe('opened files', () => {
  beforeEach(() => localStorage.clear())
  it('are each kept once, the latest first', () => {
    for (const path of ['a.c', 'b.c', 'a.c']) rememberOpened('heron', path)
    expect(openedFiles()).toEqual(['heron/a.c', 'heron/b.c'])
  })
  it.each(['{', '7', '[1, {}]'])('that cannot be read (%s) are none', kept => {
    localStorage.setItem('oddbeacon.opened', kept)
    expect(openedFiles()).toEqual([])
  })
})

describe('values', () => {
  it('are toggled among others', () => {
    expect(toggled(['a', 'b'], 'a')).toEqual(['b'])
    expect(toggled(['b'], 'a')).toEqual(['b', 'a'])
  })
  it('are narrowed to one, or taken back', () => {
    expect(narrowedTo(['a', 'b'], 'a')).toEqual(['b'])
    expect(narrowedTo(['b'], 'a')).toEqual(['a'])
  })
})
