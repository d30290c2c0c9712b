import type { LocationQuery, LocationQueryRaw } from 'vue-router'
import {
  type CaseMode,
  type Order,
  type Reading,
  type Scope,
  type Search,
  type Shown,
  type SymbolQuest,
  scopeParts,
} from './wire'

export const scopeOf = (values: (part: keyof Scope) => string[]): Scope =>
  Object.fromEntries(scopeParts.map(part => [part, values(part)])) as Scope

/** Lines around each hit, at most. */
export const MOST_CONTEXT = 50

let usualContext = 2
/** How many lines of context a search has whose address does not say. */
export const setUsualContext = (lines: number) => {
  usualContext = lines
}

/** Escapes text so that it matches itself as a glob. */
export const asGlob = (text: string): string => text.replace(/[[*?]/g, '[$&]')

export const everywhere = (): Scope => scopeOf(() => [])

export const emptySearch = (): Search => ({
  text: '',
  reading: 'plain',
  caseMode: 'auto',
  word: false,
  scope: everywhere(),
  context: usualContext,
  shown: 'lines',
  order: 'relevance',
  near: '',
})

/** A search for symbols that asks for nothing yet. */
export const noSymbols = (): SymbolQuest => ({
  text: '',
  reading: 'fragments',
  role: 'declaration',
  kind: [],
  certainty: [],
  of: '',
  family: false,
  scope: everywhere(),
})

/** The first value of a parameter; empty if there is none. */
export const one = (query: LocationQuery, name: string): string => [query[name]].flat()[0] ?? ''
/** The values of a parameter, without empty ones. */
export const all = (query: LocationQuery, name: string): string[] =>
  [query[name]].flat().filter((value): value is string => !!value)

export const scopeFromUrl = (query: LocationQuery): Scope => scopeOf(part => all(query, part))

export const scopeToUrl = (scope: Scope): LocationQueryRaw =>
  Object.fromEntries(scopeParts.filter(part => scope[part].length).map(part => [part, scope[part]]))

export function fromUrl(query: LocationQuery): Search {
  const context = Number.parseInt(one(query, 'context'), 10)
  return {
    text: one(query, 'q'),
    reading: (['regex', 'expression'] as Reading[]).find(reading => reading === one(query, 'reading')) ?? 'plain',
    caseMode: (['match', 'ignore'] as CaseMode[]).find(mode => mode === one(query, 'case')) ?? 'auto',
    word: one(query, 'word') === 'true',
    scope: scopeFromUrl(query),
    shown: (['files', 'without'] as Shown[]).find(shown => shown === one(query, 'shown')) ?? 'lines',
    order: (['path', 'recent'] as Order[]).find(order => order === one(query, 'order')) ?? 'relevance',
    near: one(query, 'near'),
    context: Number.isNaN(context) ? usualContext : Math.min(MOST_CONTEXT, Math.max(0, context)),
  }
}

/** Only what differs from the empty search, so that addresses stay short. */
export function toUrl(search: Search): LocationQueryRaw {
  const query: LocationQueryRaw = {}
  if (search.text) query.q = search.text
  if (search.reading !== 'plain') query.reading = search.reading
  if (search.caseMode !== 'auto') query.case = search.caseMode
  if (search.word) query.word = 'true'
  Object.assign(query, scopeToUrl(search.scope))
  if (search.shown !== 'lines') query.shown = search.shown
  if (search.order !== 'relevance') query.order = search.order
  else if (search.near) query.near = search.near
  if (search.context !== 2 || usualContext !== 2) query.context = String(search.context)
  return query
}
