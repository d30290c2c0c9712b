import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import * as requests from '../src/requests'
import { emptySearch } from '../src/searchUrl'
import type { Search } from '../src/wire'

let sent: { path: string; options: RequestInit }[]
let answer: () => Promise<Response>
const json =
  (body: unknown, status = 200) =>
  async () =>
    new Response(JSON.stringify(body), { status })
const search = (more: Partial<Search> = {}): Search => ({ ...emptySearch(), text: 'tide', ...more })
const signal = () => new AbortController().signal
const query = (at = 0) => new URLSearchParams(sent[at]!.path.split('?')[1])

beforeEach(() => {
  sent = []
  answer = json({})
  vi.stubGlobal('fetch', (path: string, options: RequestInit) => {
    sent.push({ path, options })
    return answer()
  })
})
afterEach(() => vi.unstubAllGlobals())

describe('a search for lines', () => {
  it('says text, reading, options and scope', async () => {
    const scope = { ...emptySearch().scope, repo: ['tidewatch', 'fare-gate'], notTrait: ['test'] }
    await requests.searchLines(search({ reading: 'regex', word: true, context: 5, scope }), signal())
    expect(sent[0]!.path).toMatch(/^\/api\/v1\/search\/lines\?/)
    expect(query().get('q')).toBe('tide')
    expect(query().get('reading')).toBe('regex')
    expect(query().get('word')).toBe('true')
    expect(query().get('context')).toBe('5')
    expect(query().getAll('repo')).toEqual(['tidewatch', 'fare-gate'])
    expect(query().getAll('notTrait')).toEqual(['test'])
    expect(query().has('type')).toBe(false)
  })

  it('asks for files where only those are shown', async () => {
    await requests.searchLines(search({ shown: 'without' }), signal())
    expect(query().get('only')).toBe('files')
    expect(query().get('without')).toBe('true')
  })

  it('replaces the older one of the same page, but not what counts', async () => {
    await requests.searchLines(search(), signal())
    await requests.searchLines(search({ text: 'tides' }), signal())
    await requests.searchLines(search({ text: 'tides' }), signal(), { counts: 'exact' })
    expect(query(0).get('asker')).toBeTruthy()
    expect(query(1).get('asker')).toBe(query(0).get('asker'))
    expect(query(2).get('asker')).not.toBe(query(0).get('asker'))
  })

  it('that is too long for an address goes as a form', async () => {
    const text = 'x'.repeat(9_000)
    await requests.searchLines(search({ text }), signal())
    expect(sent[0]!.path).toBe('/api/v1/search/lines')
    expect(sent[0]!.options.method).toBe('POST')
    expect(new URLSearchParams(sent[0]!.options.body as string).get('q')).toBe(text)
  })
})

describe('a search for commits', () => {
  it('leaves out what is not asked for', async () => {
    const quest = { text: 'buffer', reading: 'plain', by: ['Mara'], touches: [], adds: '', removes: '' } as const
    await requests.findCommits(
      { ...quest, by: [...quest.by], touches: [], after: '2024', before: '', scope: emptySearch().scope },
      signal(),
    )
    expect([...query().keys()].sort()).toEqual(['after', 'by', 'limit', 'q', 'reading'])
  })
})

describe('an answer', () => {
  it('that refuses brings what the service says', async () => {
    const problem = { title: 'Bad', status: 400, detail: 'A bracket is missing.', mistakes: [] }
    answer = json(problem, 400)
    const error = await requests.searchLines(search(), signal()).catch((e: unknown) => e)
    expect(error).toBeInstanceOf(requests.ServiceError)
    expect((error as requests.ServiceError).problem).toEqual(problem)
    expect((error as Error).message).toBe('A bracket is missing.')
  })

  it('that is no JSON is told by its status', async () => {
    answer = async () => new Response('<html>bad gateway</html>', { status: 502 })
    await expect(requests.searchLines(search(), signal())).rejects.toThrow('The service answered with status 502.')
  })

  it('that does not come is told apart from one that was not wanted any more', async () => {
    answer = () => Promise.reject(new TypeError('failed to fetch'))
    await expect(requests.searchLines(search(), signal())).rejects.toBeInstanceOf(requests.ServiceGone)
    const given = new AbortController()
    given.abort()
    await expect(requests.searchLines(search(), given.signal)).rejects.toBeInstanceOf(TypeError)
  })
})

describe('names in addresses', () => {
  it('are escaped', async () => {
    await requests.outline('odd/name', 'src/a b&c.java', 'main', false, signal())
    expect(sent[0]!.path).toMatch(/^\/api\/v1\/repositories\/odd%2Fname\/outline\?/)
    expect(query().get('path')).toBe('src/a b&c.java')
  })
})
