import { defineStore } from 'pinia'
import type { LocationQueryRaw } from 'vue-router'
import { reactive } from 'vue'
import { emptySearch, everywhere, scopeToUrl, toUrl } from '../searchUrl'
import type { Scope, Search } from '../wire'

/** The pages that search; each by the name of its address. */
export const subjectPages = ['search', 'files', 'symbols', 'commits'] as const
export type Subject = (typeof subjectPages)[number]

interface Asked {
  text: string
  reading: string
  scope: Scope
}

/** What was asked last: a change of subject keeps text and scope. */
export const useSubjects = defineStore('subjects', () => {
  const asked = reactive<Asked>({ text: '', reading: '', scope: everywhere() }) // of whatever subject
  const lines = reactive<Search>(emptySearch()) // the last search for lines

  function remember(subject: Subject, quest: Asked) {
    Object.assign(asked, { text: quest.text, reading: quest.reading, scope: { ...quest.scope } })
    if (subject === 'search') Object.assign(lines, { ...quest, scope: { ...quest.scope } })
  }

  /** The address of the same question to another subject. */
  function addressOf(subject: Subject, quest: Asked = asked): LocationQueryRaw {
    const reading = ['regex', 'expression'].find(reading => reading === quest.reading) // those that every subject has
    const scope =
      subject === 'commits'
        ? { ...quest.scope, changedAfter: [], changedBefore: [], region: [], notRegion: [] }
        : quest.scope
    return {
      ...(quest.text ? { q: quest.text } : {}),
      ...(reading ? { reading } : {}),
      ...scopeToUrl(scope),
    }
  }

  /** Where a link to a subject leads: for lines, with the options of the last search for lines. */
  function linkTo(subject: Subject): LocationQueryRaw {
    const options = subject === 'search' ? toUrl({ ...lines, text: '', reading: 'plain', scope: everywhere() }) : {}
    return { ...options, ...addressOf(subject) }
  }

  return { asked, lines, remember, addressOf, linkTo }
})
