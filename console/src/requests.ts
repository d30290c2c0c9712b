import type { Find } from './lines'
import { openedFiles } from './opened'
import { asGlob } from './searchUrl'
import type {
  AccountInfo,
  Health,
  Machines,
  Overview,
  BlameAnswer,
  ChangesAnswer,
  DeviceRequest,
  CommitPage,
  CommitQuest,
  CommitsAnswer,
  OverTimeAnswer,
  DiffAnswer,
  LogAnswer,
  RevisionsAnswer,
  AboutFile,
  ExclusionChange,
  ExclusionPreview,
  ExclusionSet,
  FileContent,
  FirstAdministrator,
  FoundInFile,
  FileQuest,
  FilesAnswer,
  IssuedToken,
  LeftOut,
  LinesAnswer,
  NewAccount,
  CredentialInfo,
  HostKeys,
  NewCredential,
  NewRoster,
  RosterInfo,
  RosterPreview,
  NewRepository,
  NewToken,
  PlacesAnswer,
  Problem,
  Reading,
  Repository,
  Comparison,
  FollowedFileProblem,
  SavedSearch,
  SavedSearchChange,
  SearchCheck,
  ShapeOfCode,
  Watch,
  WatchChange,
  WatchDelivery,
  WatchNotices,
  ReplacedText,
  Replacement,
  ReplacementPreview,
  Worklist,
  WorklistChange,
  WorklistItem,
  WorklistItems,
  WorklistLeft,
  Scope,
  Search,
  SecondLook,
  SessionInfo,
  SkippedFiles,
  SymbolAt,
  SymbolQuest,
  SymbolsAnswer,
  Counterparts,
  CallDirection,
  CallsAnswer,
  Outline,
  TokenInfo,
  Tree,
  TypesAndTraits,
  WhoSees,
  Translations,
} from './wire'

/** The service refused or failed, and says why. */
export class ServiceError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail)
  }
}

/** The service does not answer at all. */
export class ServiceGone extends Error {}

let signedOut = () => {}
/** Says what is done when an answer tells that nobody is signed in any more. */
export function whenSignedOut(done: () => void) {
  signedOut = done
}

type Values = Record<string, string | string[] | number | boolean>

function query(values: Values): string {
  const parameters = new URLSearchParams()
  for (const [name, value] of Object.entries(values)) {
    for (const one of Array.isArray(value) ? value : [value]) {
      parameters.append(name, String(one))
    }
  }
  return parameters.toString()
}

async function request<T>(path: string, options: RequestInit = {}): Promise<T> {
  const response = await answer(path, options)
  return response.status === 204 ? (undefined as T) : response.json()
}

/** What is saved as a file. */
const bytesOf = async (path: string, options: RequestInit = {}): Promise<Blob> => (await answer(path, options)).blob()

async function answer(path: string, options: RequestInit): Promise<Response> {
  let response: Response
  try {
    response = await fetch(`/api/v1/${path}`, options)
  } catch (error) {
    if (options.signal?.aborted) {
      throw error
    }
    throw new ServiceGone('The service does not answer.')
  }
  if (!response.ok) {
    if (response.status === 401) signedOut()
    const problem = await response.json().catch(() => ({
      title: 'Failed',
      status: response.status,
      detail: `The service answered with status ${response.status}.`,
    }))
    throw new ServiceError(problem)
  }
  return response
}

const json = (method: string, body: unknown, signal?: AbortSignal): RequestInit => ({
  method,
  headers: { 'Content-Type': 'application/json' },
  body: JSON.stringify(body),
  signal,
})

/** A search; parameters that are too long for an address go as a form. */
function ask<T>(path: string, values: Values, signal?: AbortSignal): Promise<T> {
  const parameters = query(values)
  return parameters.length < LONGEST_ADDRESS
    ? request(`${path}?${parameters}`, { signal })
    : request(path, {
        method: 'POST',
        headers: { 'Content-Type': 'application/x-www-form-urlencoded' },
        body: parameters,
        signal,
      })
}

const LONGEST_ADDRESS = 8_000
// One per page: its newer search cancels its older one in the service too.
const asker = crypto.randomUUID?.() ?? String(Math.random())

/** What is asked, and where. */
const question = (search: Search): Values => ({
  q: search.text,
  reading: search.reading,
  case: search.caseMode,
  word: search.word,
  ...search.scope,
})

export function searchLines(
  search: Search,
  signal: AbortSignal,
  more: { cursor?: string; counts?: 'exact'; typing?: true; perFile?: number; limit?: number; asker?: string } = {},
): Promise<LinesAnswer> {
  return ask(
    'search/lines',
    {
      ...question(search),
      context: search.context,
      limit: more.cursor ? 400 : 100, // who goes on reading wants much
      only: search.shown === 'lines' ? 'lines' : 'files',
      without: search.shown === 'without',
      order: search.order,
      ...(search.near && search.order === 'relevance' ? { near: search.near } : {}),
      regions: true,
      asker: more.counts ? `${asker}-counts` : asker,
      ...more,
    },
    signal,
  )
}

/** Changed searches that would have found something. */
export async function secondLooks(search: Search, signal: AbortSignal): Promise<SecondLook[]> {
  const answer = await ask<{ looks: SecondLook[] }>('search/lines/second-looks', question(search), signal)
  return answer.looks
}

/** What exclusion sets took away. */
export async function leftOut(search: Search, signal: AbortSignal): Promise<LeftOut[]> {
  const answer = await ask<{ sets: LeftOut[] }>('search/lines/left-out', { ...question(search), typing: true }, signal)
  return answer.sets
}

/** Why a file is among the results, or is not. */
export function aboutFile(search: Search, repository: string, path: string): Promise<AboutFile> {
  return ask('search/lines/about', {
    ...question(search),
    without: search.shown === 'without',
    typing: true,
    repository,
    path,
  })
}

/** How many lines and files there are. */
export function countLines(text: string, reading: Reading): Promise<LinesAnswer> {
  return request(`search/lines?${query({ q: text, reading, only: 'counts' })}`)
}

export function searchFiles(search: Search, signal: AbortSignal): Promise<FilesAnswer> {
  return ask('search/files', { q: search.text, limit: 6, ...search.scope }, signal)
}

/** A page of files; those opened lately come first. */
export function findFiles(quest: FileQuest, signal: AbortSignal, cursor = ''): Promise<FilesAnswer> {
  return ask(
    'search/files',
    {
      q: quest.text,
      reading: quest.reading,
      kind: quest.kind,
      order: quest.order,
      reversed: quest.reversed,
      limit: 100,
      ...quest.scope,
      opened: openedFiles(),
      ...(cursor ? { cursor } : {}),
    },
    signal,
  )
}

/** A page of symbols. */
export function findSymbols(
  quest: SymbolQuest,
  signal: AbortSignal,
  more: { cursor?: string; limit?: number; counts?: 'exact' } = {},
): Promise<SymbolsAnswer> {
  return ask(
    'search/symbols',
    {
      q: quest.text,
      reading: quest.reading,
      role: quest.role,
      kind: quest.kind,
      certainty: quest.certainty,
      ...(quest.of && quest.role === 'use' ? { of: quest.of, family: quest.family } : {}),
      limit: more.limit ?? 100,
      ...quest.scope,
      ...(more.cursor ? { cursor: more.cursor } : {}),
      ...(more.counts ? { counts: more.counts } : {}),
    },
    signal,
  )
}

/** A page of commits, the newest first. */
export function findCommits(
  quest: CommitQuest,
  signal: AbortSignal,
  more: { cursor?: string; limit?: number; counts?: 'exact' } = {},
): Promise<CommitsAnswer> {
  const given = Object.fromEntries(
    (['adds', 'removes', 'after', 'before'] as const).filter(name => quest[name]).map(name => [name, quest[name]]),
  )
  return ask(
    'search/commits',
    {
      q: quest.text,
      reading: quest.reading,
      by: quest.by,
      touches: quest.touches,
      ...given,
      limit: more.limit ?? 50,
      ...quest.scope,
      ...(more.cursor ? { cursor: more.cursor } : {}),
      ...(more.counts ? { counts: more.counts } : {}),
    },
    signal,
  )
}

/** When matching lines came in, and when they left. */
export const overTime = (search: Search, signal: AbortSignal): Promise<OverTimeAnswer> =>
  ask('search/lines/over-time', { ...question(search), limit: 50 }, signal)

const inRepository = <T>(what: string, repository: string, values: Values, signal?: AbortSignal): Promise<T> =>
  request(`repositories/${encodeURIComponent(repository)}/${what}?${query(values)}`, { signal })

export const outline = (
  repository: string,
  path: string,
  rev: string,
  uses: boolean,
  signal: AbortSignal,
): Promise<Outline> => inRepository('outline', repository, { path, rev, uses }, signal)

/** Comments and strings of a file: start, end and kind, one after the other. */
export const regions = (repository: string, path: string, rev: string, signal: AbortSignal): Promise<number[]> =>
  inRepository('regions', repository, { path, rev }, signal)

export const symbolAt = (
  repository: string,
  path: string,
  rev: string,
  line: number,
  column: number,
): Promise<SymbolAt> => inRepository('symbol', repository, { path, rev, line, column })

/** Who calls something, or what it calls: asked by a place, REPOSITORY/PATH:LINE:COLUMN, or by a name. */
export const calls = (
  asked: { of: string } | { symbol: string },
  direction: CallDirection,
  signal?: AbortSignal,
): Promise<CallsAnswer> => request(`calls?${query({ ...asked, direction })}`, { signal })

export const commit = (repository: string, id: string, signal: AbortSignal): Promise<CommitPage> =>
  request(`repositories/${encodeURIComponent(repository)}/commits/${encodeURIComponent(id)}`, { signal })

/** What differs between two revisions; without the first, what a commit changed. */
export const diff = (
  repository: string,
  from: string,
  to: string,
  paths: string[],
  signal: AbortSignal,
  more: { context?: number; ignoreSpace?: boolean } = {},
): Promise<DiffAnswer> => inRepository('diff', repository, { from, to, path: paths, ...more }, signal)

/** A difference as a file that git apply takes. */
export const patch = (repository: string, from: string, to: string, paths: string[]): Promise<Blob> =>
  bytesOf(`repositories/${encodeURIComponent(repository)}/diff?${query({ from, to, path: paths })}`, {
    headers: { Accept: 'text/x-diff' },
  })

export const log = (
  repository: string,
  path: string,
  rev: string,
  cursor: string,
  signal: AbortSignal,
): Promise<LogAnswer> => inRepository('log', repository, { path, rev, cursor, limit: 100 }, signal)

export const blame = (
  repository: string,
  path: string,
  rev: string,
  ignoreSpace: boolean,
  signal: AbortSignal,
): Promise<BlameAnswer> => inRepository('blame', repository, { path, rev, ignoreSpace }, signal)

/** Branches and tags by a few letters, the latest first. */
export const revisions = (repository: string, text: string, signal: AbortSignal): Promise<RevisionsAnswer> =>
  inRepository('revisions', repository, { q: text }, signal)

export const counterparts = (
  repository: string,
  path: string,
  rev: string,
  signal: AbortSignal,
): Promise<Counterparts> => inRepository('counterparts', repository, { path, rev }, signal)

/** A text in all languages; fails where no other language has it. */
export const translations = (
  repository: string,
  path: string,
  rev: string,
  line: number,
  signal: AbortSignal,
): Promise<Translations> => inRepository('translations', repository, { path, rev, line }, signal)

/** A page of all results, for taking them away. */
export function allLines(
  search: Search,
  shown: 'lines' | 'files',
  cursor: string,
  signal: AbortSignal,
): Promise<LinesAnswer> {
  return ask(
    'search/lines',
    {
      ...question(search),
      context: 0,
      limit: 1000,
      only: search.shown === 'without' ? 'files' : shown,
      without: search.shown === 'without',
      order: search.order,
      ...(cursor ? { cursor } : {}),
    },
    signal,
  )
}

export const tree = (repository: string, path: string, rev: string, signal: AbortSignal): Promise<Tree> =>
  request(`repositories/${encodeURIComponent(repository)}/tree?${query({ path, rev })}`, { signal })

/** The places that a text names. */
export const places = (text: string, signal: AbortSignal): Promise<PlacesAnswer> =>
  request('places', { method: 'POST', headers: { 'Content-Type': 'text/plain;charset=UTF-8' }, body: text, signal })

/** Several files as one ZIP archive. */
export async function archive(files: string[]): Promise<Blob> {
  const response = await fetch('/api/v1/archive', {
    method: 'POST',
    headers: { 'Content-Type': 'application/x-www-form-urlencoded' },
    body: query({ file: files }),
  })
  if (!response.ok) throw new ServiceError(await response.json())
  return response.blob()
}

/** All hits in one file, for marking them where the file is shown. */
export function hitsInFile(
  search: Search,
  repository: string,
  path: string,
  branch: string,
  lift: string[],
  signal: AbortSignal,
): Promise<LinesAnswer> {
  const glob = `/${asGlob(path)}`
  return request(
    `search/lines?${query({
      q: search.text,
      reading: search.reading,
      case: search.caseMode,
      word: search.word,
      context: 0,
      limit: 1000,
      repo: repository,
      under: glob,
      lift,
      branch: branch ? [asGlob(branch)] : [],
    })}`,
    { signal },
  )
}

export function file(repository: string, path: string, rev: string, signal: AbortSignal): Promise<FileContent> {
  return request(`repositories/${encodeURIComponent(repository)}/file?${query({ path, rev })}`, { signal })
}

/** @param language as an outline names it */
export const shapeOfCode = (code: string, language: string): Promise<ShapeOfCode> =>
  request('shapes', json('POST', { code, language }))

/** Every match of a text in a file, in the dialect of searches. */
export const matchesInFile = (
  repository: string,
  path: string,
  rev: string,
  find: Find,
  signal: AbortSignal,
): Promise<FoundInFile> =>
  request(
    `repositories/${encodeURIComponent(repository)}/file/matches?${query({
      path,
      rev,
      q: find.text,
      reading: find.regex ? 'regex' : 'plain',
      case: find.caseCounts ? 'match' : 'ignore',
      word: find.word,
    })}`,
    { signal },
  )

export function rawAddress(repository: string, path: string, rev: string): string {
  return `/api/v1/repositories/${encodeURIComponent(repository)}/raw?${query({ path, rev })}`
}

/** How many repositories there are and how they are. */
export const overview = (): Promise<Overview> => request('overview')

/** Repositories by name: those with a text in their name, title, label or state, after a name, or of these names. */
export const repositories = (
  which: { find?: string; name?: string[]; after?: string; limit?: number } = {},
): Promise<Repository[]> => request(`repositories?${query(which)}`)

/** Queues all of them, or those that have a text. */
export const refreshAll = (find: string): Promise<{ repositories: number }> =>
  request(`repositories/refresh?${query({ find })}`, { method: 'POST' })

export const skipped = (repository: string, branch: string): Promise<SkippedFiles> =>
  request(`repositories/${encodeURIComponent(repository)}/skipped?${query({ branch })}`)

export const add = (repository: NewRepository): Promise<Repository> => request('repositories', json('POST', repository))

export const refresh = (name: string): Promise<Repository> =>
  request(`repositories/${encodeURIComponent(name)}/refresh`, { method: 'POST' })

export const remove = (name: string): Promise<void> =>
  request(`repositories/${encodeURIComponent(name)}`, { method: 'DELETE' })

/** Has it fetched and indexed anew, with nothing left of what was there before. */
export const purge = (name: string): Promise<Repository> =>
  request(`repositories/${encodeURIComponent(name)}/purge`, { method: 'POST' })

export const types = (): Promise<TypesAndTraits> => request('types')

export const savedSearches = (): Promise<SavedSearch[]> => request('saved-searches')

export const saveSearch = (name: string, change: SavedSearchChange): Promise<SavedSearch> =>
  request(`saved-searches/${encodeURIComponent(name)}`, json('PUT', change))

export const removeSearch = ({ name, of, version }: SavedSearch): Promise<void> =>
  request(`saved-searches/${encodeURIComponent(name)}?${query({ of, version })}`, { method: 'DELETE' })

export const followedFileProblems = (): Promise<FollowedFileProblem[]> => request('saved-searches/file/problems')

/** The one of several of a name that is meant. */
type Named = { name: string; of: string }
const ofSearch = ({ name, of }: Named, what: string, more: Record<string, unknown> = {}) =>
  `saved-searches/${encodeURIComponent(name)}/${what}?${query({ of, ...more })}`
const ofWatch = ({ name, of }: Named, what = '', more: Record<string, unknown> = {}) =>
  `watches/${encodeURIComponent(name)}${what}?${query({ of, ...more })}`

export const savedSearch = ({ name, of }: Named): Promise<SavedSearch> =>
  request(`saved-searches/${encodeURIComponent(name)}?${query({ of })}`)

/** @param other a check that was kept, or a day */
export const compareSearch = (search: Named, other: string): Promise<Comparison> =>
  request(ofSearch(search, 'comparison', { with: other }))

export const searchChecks = (search: Named): Promise<SearchCheck[]> => request(ofSearch(search, 'checks'))

export const keepCheck = (search: Named, check: string): Promise<SearchCheck> =>
  request(ofSearch(search, `checks/${encodeURIComponent(check)}`), { method: 'PUT' })

export const removeCheck = (search: Named, check: string): Promise<void> =>
  request(ofSearch(search, `checks/${encodeURIComponent(check)}`), { method: 'DELETE' })

/** Where all that a saved search finds, or found at a check, can be downloaded. */
export const resultsFile = (search: Named, check?: string): string =>
  `/api/v1/${ofSearch(search, check ? `checks/${encodeURIComponent(check)}` : 'results')}`

export const watches = (): Promise<Watch[]> => request('watches')

export const saveWatch = (search: Named, change: Partial<WatchChange>): Promise<Watch> =>
  request(ofWatch(search), json('PUT', change))

export const removeWatch = (search: Named): Promise<void> => request(ofWatch(search), { method: 'DELETE' })

/** @param before the next of the page before */
export const notices = (search: Named, before?: number): Promise<WatchNotices> =>
  request(ofWatch(search, '/notices', { ...(before && { before }), limit: 20 }))

export const deliveries = (search: Named): Promise<WatchDelivery[]> => request(ofWatch(search, '/deliveries'))

export const sendAgain = (search: Named, id: number): Promise<WatchDelivery> =>
  request(ofWatch(search, `/deliveries/${id}/again`), { method: 'POST' })

export const previewReplacement = (wanted: Replacement): Promise<ReplacementPreview> =>
  request('replacements/preview', json('POST', wanted))

/** A file as it would be, with all that is ticked. */
export const replacedText = (wanted: Replacement, repository: string, path: string): Promise<ReplacedText> =>
  request(`replacements/file?${query({ repository, path })}`, json('POST', wanted))

/** A patch of a repository; without one, a ZIP with one for each. */
export const replacementPatches = (wanted: Replacement, repository?: string): Promise<Blob> =>
  bytesOf(`replacements/patches${repository ? `?${query({ repository })}` : ''}`, json('POST', wanted))

const ofWorklist = ({ name, of }: Named, what = '', more: Record<string, unknown> = {}) =>
  `worklists/${encodeURIComponent(name)}${what}?${query({ of, ...more })}`

export const worklists = (): Promise<Worklist[]> => request('worklists')

export const addWorklist = (search: Named): Promise<Worklist> => request(ofWorklist(search), { method: 'PUT' })

/** @param since the at of an earlier answer, to be told only what has changed */
export const worklistItems = (search: Named, since?: string): Promise<WorklistItems> =>
  request(ofWorklist(search, '/items', { ...(since && { since }), limit: 10_000 }))

export const changeItem = (search: Named, id: number, change: WorklistChange): Promise<WorklistItem> =>
  request(ofWorklist(search, `/items/${id}`), json('PUT', change))

export const worklistLeft = (search: Named): Promise<WorklistLeft> => request(ofWorklist(search, '/left'))

/** How much a saved search finds now; whichever amounts its subject has. */
export const countSaved = ({
  subject,
  parameters,
}: SavedSearch): Promise<{
  counts: { hits?: number; files?: number; symbols?: number; commits?: number; exact: boolean }
}> =>
  ask(`search/${subject}`, {
    ...parameters,
    limit: 1,
    counts: 'exact',
    ...(subject === 'lines' ? { only: 'counts' } : {}),
  })

export const exclusionSets = (): Promise<ExclusionSet[]> => request('exclusion-sets')

export const saveSet = (name: string, own: boolean, change: ExclusionChange): Promise<ExclusionSet> =>
  request(`exclusion-sets/${encodeURIComponent(name)}?${query({ own })}`, json('PUT', change))

export const removeSet = (name: string, own: boolean, version: number): Promise<void> =>
  request(`exclusion-sets/${encodeURIComponent(name)}?${query({ own, version })}`, { method: 'DELETE' })

/** What patterns would do to the files of a scope. */
export const previewSet = (patterns: string, scope: Scope, signal: AbortSignal): Promise<ExclusionPreview> =>
  request(`exclusion-sets/preview?${query(scope)}`, json('POST', { patterns }, signal))

export const setsFile = '/api/v1/exclusion-sets/file'

export const importSets = (yaml: string, own: boolean, replace: boolean): Promise<ExclusionSet[]> =>
  request(`exclusion-sets/file?${query({ own, replace })}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/yaml' },
    body: yaml,
  })

/** What follows a person from browser to browser, by part. */
export const desk = (): Promise<Record<string, unknown>> => request('desk')

export const keepOnDesk = (part: string, content: unknown): Promise<void> =>
  request(`desk/${part}`, json('PUT', content))

export const session = (): Promise<SessionInfo> => request('session')

export const signIn = (name: string, password: string): Promise<SessionInfo> =>
  request('session', json('POST', { name, password }))

export const firstAdministrator = (wanted: FirstAdministrator): Promise<SessionInfo> =>
  request('session/first', json('POST', wanted))

export const signOut = (everywhere: boolean): Promise<void> =>
  request(everywhere ? 'session/all' : 'session', { method: 'DELETE' })

export const accounts = (): Promise<AccountInfo[]> => request('accounts')

export const addAccount = (wanted: NewAccount): Promise<AccountInfo> => request('accounts', json('POST', wanted))

export const changeAccount = (name: string, wanted: NewAccount): Promise<AccountInfo> =>
  request(`accounts/${encodeURIComponent(name)}`, json('PUT', wanted))

export const endAccount = (name: string): Promise<void> =>
  request(`accounts/${encodeURIComponent(name)}`, { method: 'DELETE' })

export const teams = (): Promise<string[]> => request('teams')

export const tokens = (): Promise<TokenInfo[]> => request('tokens')

export const addToken = (wanted: NewToken): Promise<IssuedToken> => request('tokens', json('POST', wanted))

export const removeToken = (id: number): Promise<void> => request(`tokens/${id}`, { method: 'DELETE' })

export const viewers = (repository: string): Promise<WhoSees> =>
  request(`repositories/${encodeURIComponent(repository)}/viewers`)

export const setViewers = (repository: string, visibleTo: string[]): Promise<WhoSees> =>
  request(`repositories/${encodeURIComponent(repository)}/viewers`, json('PUT', { visibleTo }))

export const credentials = (): Promise<CredentialInfo[]> => request('credentials')

/** The keys that a host offers over ssh, to be compared and confirmed. */
export const hostKeys = (host: string): Promise<HostKeys> =>
  request(`credentials/host-keys?${query({ host })}`, { method: 'POST' })

export const giveCredential = (wanted: NewCredential): Promise<CredentialInfo> =>
  request('credentials', json('PUT', wanted))

/** How the service is, and what it was like over this time. */
export const health = (over: 'hour' | 'day' | 'month'): Promise<Health> => request(`health?${query({ over })}`)

export const machines = (): Promise<Machines> => request('machines')

/** Takes a machine out of the cluster. */
export const retireMachine = (name: string): Promise<Machines> =>
  request(`machines/${encodeURIComponent(name)}/retire`, { method: 'POST' })

export const rosters = (): Promise<RosterInfo[]> => request('rosters')

export const previewRoster = (wanted: NewRoster): Promise<RosterPreview> =>
  request('rosters/preview', json('POST', wanted))

export const followRoster = (wanted: NewRoster): Promise<RosterInfo> => request('rosters', json('PUT', wanted))

export const readRoster = (name: string): Promise<RosterInfo> =>
  request(`rosters/${encodeURIComponent(name)}/refresh`, { method: 'POST' })

export const removeRoster = (name: string): Promise<void> =>
  request(`rosters/${encodeURIComponent(name)}`, { method: 'DELETE' })

export const removeCredential = (id: number): Promise<void> => request(`credentials/${id}`, { method: 'DELETE' })

/** Which records of change are wanted; what is left out does not matter. */
export interface ChangesWanted {
  account?: string
  action?: string
  since?: string
  until?: string
}

/** Where what was done can be downloaded, as JSON lines. */
export const changesFile = (which: ChangesWanted): string => `/api/v1/records-of-change/file?${query({ ...which })}`

/** @param before what {@link ChangesAnswer.next} told; undefined for the first page */
export const changes = (which: ChangesWanted, before?: number): Promise<ChangesAnswer> =>
  request(`records-of-change?${query({ ...which, ...(before && { before }) })}`)

/** @param allow undefined to ask what the program calls itself */
export const decideDevice = (userCode: string, allow?: boolean): Promise<DeviceRequest> =>
  request('session/device/decision', json('POST', { userCode, allow }))
