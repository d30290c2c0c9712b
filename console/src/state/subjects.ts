import { defineStore } from 'pinia'
import type { LocationQueryRaw } from 'vue-router'
import { reactive } from 'vue'
import { emptySearch, everywhere, toUrl } from '../searchUrl'
import type { Scope } from '../wire'

/** The pages that search; each by the name of its address. */
export const subjectPages = ['search', 'files', 'symbols', 'commits'] as const
export type Subject = (typeof subjectPages)[number]

interface Asked {
  text: string
  reading: string
  scope: Scope
}

/** What was asked last, of whatever subject: a change of subject keeps text and scope. */
export const useSubjects = defineStore('subjects', () => {
  const asked = reactive<Asked>({ text: '', reading: '', scope: everywhere() })

  function remember(quest: Asked) {
    Object.assign(asked, { text: quest.text, reading: quest.reading, scope: { ...quest.scope } })
  }

  /** The address of the same question to another subject. */
  function addressOf(subject: Subject, quest: Asked = asked): LocationQueryRaw {
    const reading = quest.reading === 'regex' || quest.reading === 'expression' ? quest.reading : 'plain' // which each subject has
    const scope =
      subject === 'commits'
        ? { ...quest.scope, changedAfter: [], changedBefore: [], region: [], notRegion: [] }
        : quest.scope
    return toUrl({ ...emptySearch(), text: quest.text, reading, scope, context: 2 })
  }

  return { asked, remember, addressOf }
})
