// Saved searches, and the addresses of the pages that run them.

import type { LocationQuery, LocationQueryRaw, RouteLocationRaw } from 'vue-router'
import { all } from './searchUrl'
import type { SavedSearch, SavedSubject } from './wire'

/** The page of each subject. */
const pages: Record<SavedSubject, string> = {
  lines: 'search',
  files: 'files',
  symbols: 'symbols',
  commits: 'commits',
  scope: 'search',
}

/** The subject that a page searches; none for a page that is of no search. */
export const subjectOf = (page: unknown): SavedSubject | undefined =>
  (Object.keys(pages) as SavedSubject[]).find(subject => pages[subject] === page)

type Parameters = Record<string, string[]>

/** What of a page's address is kept: as the service takes it, not as the page shows it. */
export function toKeep(query: LocationQuery): Parameters {
  const kept: Parameters = {}
  for (const name of Object.keys(query)) {
    const values = all(query, name)
    if (!values.length || name === 'context') continue
    if (name !== 'shown') kept[name] = values
    else if (values[0] === 'without') kept.without = ['true']
    else kept.only = ['files']
  }
  return kept
}

/** The address of the page that runs a saved search. */
export function placeOf(search: SavedSearch): RouteLocationRaw {
  const { only, without, ...others } = search.parameters
  const shown = without?.[0] === 'true' ? 'without' : only?.[0] === 'files' ? 'files' : ''
  const query: LocationQueryRaw = { ...others, ...(shown ? { shown } : {}) }
  return { name: pages[search.subject], query }
}

/** The address of the page that shows what would change; none for a search that only finds. */
export function placeOfReplacement({ subject, parameters, replacement }: SavedSearch): RouteLocationRaw | undefined {
  if (!replacement) return undefined
  return {
    name: 'replace',
    query: {
      ...parameters,
      ...(subject === 'symbols' && { subject }),
      with: replacement.with,
      ...(replacement.keepCase && { keepCase: 'true' }),
      ...(replacement.in && { in: replacement.in }),
      ...(replacement.mentions && { mentions: 'true' }),
    },
  }
}

/** Whose a search is, in words. */
export const whose = (of: string): string =>
  of === 'me'
    ? 'your own'
    : of.startsWith('team:')
      ? `of the team ${of.slice('team:'.length)}`
      : of.startsWith('repository:')
        ? `kept in ${of.slice('repository:'.length)}`
        : 'of everybody'
