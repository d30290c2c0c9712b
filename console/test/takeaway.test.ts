import { beforeEach, describe, expect, it, vi } from 'vitest'
import * as requests from '../src/requests'
import { emptySearch } from '../src/searchUrl'
import { type Format, takeAway, type What } from '../src/takeaway'
import type { FileHits, LinesAnswer } from '../src/wire'

vi.mock('../src/requests')

const file = (path: string, lines: [number, string, number, number][]): FileHits =>
  ({
    repository: 'tidewatch',
    branch: 'main',
    commit: 'c0ffee',
    path,
    hits: lines.length,
    excerpts: [
      {
        lines: lines.map(([number, text, start, end]) => ({
          number,
          text,
          textStart: 0,
          matches: end ? [{ start, end }] : [],
        })),
      },
    ],
  }) as unknown as FileHits
const first = file('gauge.py', [
  [3, 'low, "tide"', 6, 10],
  [4, 'context', 0, 0],
])
const second = file('surge.py', [[9, ' tide', 1, 5]])
let told: number[]
const taken = (what: What, format: Format) =>
  takeAway({ ...emptySearch(), text: 'tide' }, what, format, new AbortController().signal, count => told.push(count))

beforeEach(() => {
  told = []
  vi.mocked(requests.allLines).mockImplementation(
    async (_search, _only, cursor) =>
      ({
        files: cursor ? [second] : [first],
        next: cursor ? null : 'two',
        stopped: null,
      }) as unknown as LinesAnswer,
  )
})

describe('results that are taken away', () => {
  it('are all pages, and only hits', async () => {
    const { text, whole } = await taken('lines', 'text')
    expect(text).toBe('tidewatch/gauge.py:3:7: low, "tide"\ntidewatch/surge.py:9:2:  tide\n')
    expect(whole).toBe(true)
    expect(told).toEqual([1, 2])
  })

  it('are quoted in CSV where that is needed', async () => {
    const { text } = await taken('lines', 'csv')
    expect(text.split('\n')).toEqual([
      'repository,branch,commit,path,line,column,text',
      'tidewatch,main,c0ffee,gauge.py,3,7,"low, ""tide"""',
      'tidewatch,main,c0ffee,surge.py,9,2," tide"',
      '',
    ])
  })

  it('are JSON a line', async () => {
    const { text } = await taken('matches', 'jsonl')
    expect(
      text
        .trim()
        .split('\n')
        .map(line => JSON.parse(line)),
    ).toEqual([
      { repository: 'tidewatch', path: 'gauge.py', line: 3, text: 'tide' },
      { repository: 'tidewatch', path: 'surge.py', line: 9, text: 'tide' },
    ])
  })

  it.each([
    ['files', 'text', 'tidewatch/gauge.py\ntidewatch/surge.py\n'],
    ['repositories', 'text', 'tidewatch\n'],
    ['repositories', 'csv', 'repository\ntidewatch\n'],
    ['matches', 'text', 'tide\ntide\n'],
  ] as const)('are %s as %s', async (what, format, text) => {
    expect((await taken(what, format)).text).toBe(text)
  })

  it('say so when the search came only so far', async () => {
    vi.mocked(requests.allLines).mockResolvedValue({
      files: [first],
      next: 'two',
      stopped: 'time',
    } as unknown as LinesAnswer)
    expect((await taken('lines', 'text')).whole).toBe(false)
  })
})
