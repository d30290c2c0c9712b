import { describe, expect, it } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import { emptySearch, fromUrl, toUrl } from '../src/searchUrl'
import { type Search, scopeParts } from '../src/wire'

const router = createRouter({ history: createMemoryHistory(), routes: [{ path: '/', component: {} }] })
/** What stands in the line of addresses, and is read from there again. */
const there = (search: Search) =>
  fromUrl(router.resolve(router.resolve({ path: '/', query: toUrl(search) }).href).query)

describe('the address of a search', () => {
  it('is empty for the empty search', () => expect(toUrl(emptySearch())).toEqual({}))

  it.each(['tide', ' two  blanks ', 'a&b=c#d', '100 %', 'ä⛴\u{1f6a2}', '"quoted" (x|y)+', 'line\nbreak', '+'])(
    'brings back the text %j',
    text => {
      expect(there({ ...emptySearch(), text }).text).toBe(text)
    },
  )

  it.each(scopeParts)('brings back several values of the part %s', part => {
    const search = emptySearch()
    search.scope[part] = ['a b', 'c&d', '*.java']
    expect(there(search)).toEqual(search)
  })

  it('brings back every option', () => {
    for (const reading of ['plain', 'regex', 'expression'] as const) {
      for (const caseMode of ['auto', 'match', 'ignore'] as const) {
        for (const shown of ['lines', 'files', 'without'] as const) {
          for (const order of ['path', 'relevance', 'recent'] as const) {
            const search: Search = {
              ...emptySearch(),
              text: 'tide',
              reading,
              caseMode,
              shown,
              order,
              word: reading === 'plain',
              context: 7,
            }
            expect(there(search)).toEqual(search)
          }
        }
      }
    }
  })

  it('takes what it does not know for the usual', () => {
    expect(fromUrl({ reading: 'tealeaves', case: 'x', shown: 'y', order: 'z', context: 'many' })).toEqual(emptySearch())
  })
  it('keeps context within bounds', () => {
    expect(fromUrl({ context: '-3' }).context).toBe(0)
    expect(fromUrl({ context: '5000' }).context).toBe(50)
  })
})
