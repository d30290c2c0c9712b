import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { emptySearch } from '../src/searchUrl'
import { useWalk } from '../src/state/walk'

const pages: Record<string, { files: string[]; next: string | null }> = {
  '': { files: ['a.py', 'b.py'], next: 'two' },
  two: { files: ['c.py'], next: null },
}
let asked: URLSearchParams[]
const search = { ...emptySearch(), text: 'gauge' }
const at = (path: string) => ({ repository: 'tidewatch', branch: 'main', path })
const beside = async (path: string, way: number, quest = search) =>
  (await useWalk().beside(quest, at(path), way, new AbortController().signal))?.path

beforeEach(() => {
  setActivePinia(createPinia())
  asked = []
  vi.stubGlobal('fetch', (url: string) => {
    const query = new URL(url, 'http://localhost').searchParams
    asked.push(query)
    const page = pages[query.get('cursor') ?? '']!
    const files = page.files.map(path => ({ ...at(path), excerpts: [] }))
    return Promise.resolve(new Response(JSON.stringify({ files, next: page.next })))
  })
})
afterEach(() => vi.unstubAllGlobals())

describe('from file to file of a search', () => {
  it('goes on beyond what was asked for, and ends where it ends', async () => {
    expect(await beside('a.py', 1)).toBe('b.py')
    expect(asked).toHaveLength(1)
    expect(asked[0]!.get('only')).toBe('files')
    expect(await beside('b.py', 1)).toBe('c.py')
    expect(asked).toHaveLength(2)
    expect(await beside('c.py', 1)).toBeUndefined()
    expect(await beside('c.py', -1)).toBe('b.py')
    expect(await beside('a.py', -1)).toBeUndefined()
    expect(asked).toHaveLength(2)
  })

  it('knows no neighbour of a file that the search does not find', async () => {
    expect(await beside('z.py', 1)).toBeUndefined()
  })

  it('asks again for another search', async () => {
    await beside('a.py', 1)
    await beside('a.py', 1, { ...search, text: 'tide' })
    expect(asked.map(query => query.get('q'))).toEqual(['gauge', 'tide'])
  })

  it('says once at which end of a file to begin', () => {
    const walk = useWalk()
    walk.begin('last')
    expect(walk.takeBeginning()).toBe('last')
    expect(walk.takeBeginning()).toBeUndefined()
  })
})
