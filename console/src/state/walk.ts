import { defineStore } from 'pinia'
import * as requests from '../requests'
import type { FileHits, Search } from '../wire'

const PAGES = 20 // of files, at most, before it is given up to find a file among them

/** What is asked of a search: its files, whatever is shown of them. */
const filesOf = (search: Search): Search => ({ ...search, shown: 'files', context: 0 })

/** From a file with hits to the next one of the same search, in the order of its list. */
export const useWalk = defineStore('walk', () => {
  let key = ''
  let files: FileHits[] = []
  let next: string | null = null
  /** At which end of the hits of the file that is opened next to begin. */
  let begins: 'first' | 'last' | undefined

  async function readOn(search: Search, signal: AbortSignal): Promise<boolean> {
    const quest = filesOf(search)
    const asked = JSON.stringify(quest)
    if (asked !== key) {
      files = []
      next = null
    } else if (files.length && next === null) return false
    const page = await requests.searchLines(quest, signal, { ...(next ? { cursor: next } : {}), asker: '' })
    key = asked
    files.push(...page.files)
    next = page.next
    return page.files.length > 0
  }

  /**
   * The file after or before one; undefined if there is none.
   *
   * @param way 1 or -1
   */
  async function beside(
    search: Search,
    at: { repository: string; path: string; branch: string },
    way: number,
    signal: AbortSignal,
  ): Promise<FileHits | undefined> {
    if (JSON.stringify(filesOf(search)) !== key) await readOn(search, signal)
    for (let page = 0; page < PAGES; page++) {
      const place = files.findIndex(
        file => file.repository === at.repository && file.path === at.path && file.branch === at.branch,
      )
      if (place >= 0 && (way < 0 || place + 1 < files.length)) return files[place + way]
      if (!(await readOn(search, signal))) return undefined
    }
    return undefined
  }

  function begin(end: 'first' | 'last') {
    begins = end
  }
  /** Tells where to begin, once. */
  function takeBeginning() {
    const end = begins
    begins = undefined
    return end
  }

  return { beside, begin, takeBeginning }
})
