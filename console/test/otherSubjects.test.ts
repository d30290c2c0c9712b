import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Run } from '../src/answers'
import { useOtherSubjects } from '../src/otherSubjects'
import * as requests from '../src/requests'
import { emptySearch } from '../src/searchUrl'
import type { FilesAnswer, Search } from '../src/wire'

vi.mock('../src/requests')

let answerFiles: Map<string, (answer: FilesAnswer) => void>
const search = (text: string): Search => ({ ...emptySearch(), text })
const run = (): Run => ({ signal: new AbortController().signal, isCurrent: () => true })
const files = (count: number) => ({ counts: { files: count } }) as FilesAnswer

beforeEach(() => {
  answerFiles = new Map()
  vi.mocked(requests.searchFiles).mockImplementation(
    ({ text }) => new Promise(resolve => answerFiles.set(text, resolve)),
  )
  vi.mocked(requests.findSymbols).mockRejectedValue(new Error('no symbols'))
  vi.mocked(requests.findCommits).mockRejectedValue(new Error('no commits'))
})

describe('other subjects', () => {
  it('are shown with the lines of the same text', async () => {
    const others = useOtherSubjects()
    const tide = run()
    others.ask(search('tide'), tide)
    answerFiles.get('tide')!(files(7))
    await flushPromises()
    expect(others.answers.value.files).toBeUndefined()
    others.show(tide)
    expect(others.answers.value.files).toEqual(files(7))
    expect(others.settled.value).toBe(true)
  })

  it('of an older text go when the lines of a newer one come', async () => {
    const others = useOtherSubjects()
    const [tide, surge] = [run(), run()]
    others.ask(search('tide'), tide)
    others.show(tide)
    answerFiles.get('tide')!(files(7))
    await flushPromises()
    others.ask(search('surge'), surge)
    expect(others.answers.value.files).toEqual(files(7)) // like the lines that are still shown
    others.show(surge)
    expect(others.answers.value.files).toBeUndefined()
    expect(others.settled.value).toBe(false)
    answerFiles.get('surge')!(files(2))
    await flushPromises()
    expect(others.answers.value.files).toEqual(files(2))
    expect(others.settled.value).toBe(true)
  })

  it('that answer an older text late are dropped', async () => {
    const others = useOtherSubjects()
    const [tide, surge] = [run(), run()]
    others.ask(search('tide'), tide)
    others.ask(search('surge'), surge)
    others.show(surge)
    answerFiles.get('tide')!(files(7))
    await flushPromises()
    expect(others.answers.value.files).toBeUndefined()
  })

  it('are not asked for what cannot be a name', () => {
    useOtherSubjects().ask(search('two\nlines'), run())
    expect(vi.mocked(requests.findSymbols).mock.calls.map(([quest]) => quest.text)).not.toContain('two\nlines')
  })
})
