// The wire format of /api/v1, as the service describes it in openapi.json.

export interface Match {
  start: number
  end: number
}
export interface Line {
  number: number
  text: string
  textStart: number
  matches: Match[]
  declares?: boolean
  regions?: number[]
}
/** The declaration that the first hit of an excerpt stands in. */
export interface Enclosing {
  name: string
  kind: string
  container: string
  line: number
}
export interface Excerpt {
  lines: Line[]
  enclosing: Enclosing | null
}
export interface FileHits {
  repository: string
  branch: string
  commit: string
  path: string
  type: string
  traits: string[]
  hits: number
  relevance: { points: number; reasons: string[] } | null
  excerpts: Excerpt[]
}
/** What tells a file of a branch from all others. */
export const keyOf = (file: { repository: string; branch: string; path: string }): string =>
  `${file.repository}\n${file.branch}\n${file.path}`

export interface IndexState {
  complete: boolean
  repositories: number
  indexing: number
  missingFiles: number
  /** What can be searched of those that are being read for the first time, of the first few. */
  parts: SearchedPart[]
}
export interface SearchedPart {
  repository: string
  searchedBytes: number
  bytes: number
}
/** Files and hits in a folder of a repository; files that lie in none have an empty folder. */
export interface Spread {
  repository: string
  folder: string
  files: number
  hits: number
}
export interface Facet {
  value: string
  files: number
  hits: number
}
export interface LinesAnswer {
  query: {
    text: string
    reading: Reading
    caseMode: CaseMode
    word: boolean
    expression: string
    unfinished: Mistake | null
  }
  index: IndexState
  stopped: 'time' | 'memory' | 'cancelled' | null
  counts: { hits: number; files: number; repositories: number; exact: boolean }
  facets: { repository: Facet[]; type: Facet[]; trait: Facet[]; folder: Facet[]; spread: Spread[] }
  files: FileHits[]
  next: string | null
  tookMillis: number
}
export interface FoundFile {
  repository: string
  branch: string
  commit: string
  path: string
  kind: 'file' | 'folder'
  type: string
  traits: string[]
  bytes: number
  lines: number
  changed: string
  skipped: string | null
  matches: Match[]
}
export interface FilesAnswer {
  index: IndexState
  counts: { files: number; repositories: number; exact: boolean }
  facets: { repository: Facet[]; type: Facet[]; trait: Facet[] }
  files: FoundFile[]
  next: string | null
  tookMillis: number
}
export type Role = 'declaration' | 'use' | 'any'
export interface FoundSymbol {
  name: string
  kind: string | null
  container: string
  role: 'declaration' | 'use'
  repository: string
  branch: string
  commit: string
  path: string
  type: string
  traits: string[]
  line: number
  endLine: number
  column: number
  signature: string
  text: string
  textStart: number
  matches: Match[]
  certainty: Certainty | null
}
/** How surely a use means what is asked for. */
export type Certainty = 'sure' | 'likely' | 'by-name'
export interface SymbolsAnswer {
  index: IndexState
  stopped: string | null
  counts: { symbols: number; files: number; repositories: number; exact: boolean }
  facets: { kind: Facet[]; role: Facet[]; certainty: Facet[]; repository: Facet[]; type: Facet[]; trait: Facet[] }
  symbols: FoundSymbol[]
  next: string | null
  tookMillis: number
}
/** A search for symbols: what the URL of the page of symbols holds. */
export interface SymbolQuest {
  text: string
  reading: SymbolReading
  role: Role
  kind: string[]
  certainty: Certainty[]
  /** A place where the symbol is named whose uses are asked for; empty if it is asked for by its name. */
  of: string
  family: boolean
  scope: Scope
}
export type SymbolReading = 'fragments' | 'plain' | 'glob' | 'regex' | 'expression'
export interface OutlineSymbol {
  name: string
  kind: string
  container: string
  depth: number
  line: number
  endLine: number
  column: number
  signature: string
  uses: number | null
  usesMeant: number | null
}
export interface Outline {
  language: string | null
  type: string
  total: number
  symbols: OutlineSymbol[]
}
export interface Target {
  name: string
  kind: string
  container: string
  repository: string
  branch: string
  path: string
  line: number
  column: number
  signature: string
  reason: string
}
/** Who calls something, or what it calls: one level. */
export interface CallsAnswer {
  of: Target[]
  direction: CallDirection
  ends: CallEnd[]
  byName: number
  exact: boolean
}
export type CallDirection = 'callers' | 'callees'
/** The other end of calls. */
export interface CallEnd {
  /** Null if the calls stand in none: the file itself makes them. */
  declaration: Target | null
  repository: string
  branch: string
  path: string
  /** What asks for the calls of this end in turn. */
  at: string | null
  certainty: Certainty
  sites: CallSite[]
}
export interface CallSite {
  line: number
  column: number
  text: string
  certainty: Certainty
}
/** What the name at a place may mean. */
export interface SymbolAt {
  name: string
  declared: Target | null
  declarations: Target[]
  uses: number
  usesExact: boolean
  usesNearby: { type: string; expression: string; uses: number; exact: boolean } | null
  usesMeant: { of: string | null; sure: number; likely: number; byName: number; exact: boolean } | null
  supertypes: Target[]
  subtypes: Target[]
  family: Target[]
}
export interface Counterparts {
  test: boolean
  byConvention: string[]
  candidates: string[]
}
/** Where a submodule leads: to a repository that is registered, or to a location only. */
export interface Submodule {
  commit: string
  location: string | null
  repository: string | null
}

export interface TreeEntry {
  name: string
  path: string
  kind: 'folder' | 'file' | 'link' | 'submodule'
  type: string
  traits: string[]
  bytes: number
  lines: number
  files: number
  skipped: string | null
  submodule: Submodule | null
}
export interface Tree {
  repository: string
  branch: string
  commit: string
  path: string
  entries: TreeEntry[]
}
export interface PlaceFile {
  repository: string
  branch: string
  commit: string
  path: string
  lines: number
}
export interface Place {
  textLine: number
  start: number
  end: number
  text: string
  named: string
  line: number
  column: number
  files: PlaceFile[]
  guess: boolean
}
export interface PlacesAnswer {
  places: Place[]
  matched: number
  more: boolean
  tookMillis: number
}
export interface Branch {
  name: string
  commit: string
  committed: string
  indexed: string
  files: number
  lines: number
  bytes: number
  skipped: number
  /** Of files that are not searched yet, while it is read for the first time. */
  unreadBytes: number
}
export interface Repository {
  name: string
  title: string
  location: string
  labels: string[]
  state: 'waiting' | 'indexing' | 'ready' | 'failed'
  problem: string | null
  progress: { phase: string; done: number; total: number } | null
  branches: Branch[]
  history: {
    complete: boolean
    commits: number
    oldest: string | null
    cut: number
    withoutLines: number
    problem: string | null
  }
  following: {
    checked: string | null
    changed: string
    behind: boolean
    commits: number | null
    problem: string | null
  } | null
  /** What it takes on the disk of the service, beside its text in the index. */
  disk: { mirrorBytes: number; pastBytes: number }
}
export interface NewRepository {
  name: string
  title: string | null
  location: string
  branches: string[]
  labels: string[]
}
export interface FileContent {
  repository: string
  branch: string
  commit: string
  path: string
  type: string
  traits: string[]
  bytes: number
  lines: number
  encoding: string | null
  skipped: string | null
  image: boolean
  text: string | null
  submodule: Submodule | null
}
export interface FoundInFile {
  repository: string
  commit: string
  path: string
  matches: Match[]
  more: boolean
}
/** A text in all languages, the one that was asked about first, and the code that shows it. */
export interface Translations {
  repository: string
  branch: string
  commit: string
  key: string
  languages: { language: string; path: string; line: number; text: string }[]
  form: string
  uses: { repository: string; branch: string; path: string; line: number; text: string }[]
  usesTotal: number
  exact: boolean
}
/** Expressions that find where code is written again; alike is null if it would say nothing else. */
export interface ShapeOfCode {
  same: string
  alike: string | null
}
export interface SkippedFiles {
  repository: string
  branch: string
  commit: string
  files: { path: string; bytes: number; reason: string }[]
}
export interface Mistake {
  message: string
  position: number
  length: number
  suggestion: string | null
  unfinished: boolean
}
export interface Problem {
  title: string
  status: number
  detail: string
  position?: number
  mistakes?: Mistake[]
}
export interface SecondLook {
  change: string
  text: string
  reading: Reading
  caseMode: CaseMode
  word: boolean
  scope: Scope
  hits: number
  files: number
  exact: boolean
}

export interface LeftOut {
  name: string
  byDefault: boolean
  hits: number
  files: number
  exact: boolean
}
export interface AboutFile {
  repository: string
  branch: string
  path: string
  indexed: boolean
  nearestPaths: string[]
  found: boolean
  hits: number
  type: string
  traits: Record<string, string>
  checks: { limit: string; holds: boolean; why: string }[]
  nearest: { number: number; text: string } | null
}
export type SavedSubject = 'lines' | 'files' | 'symbols' | 'commits' | 'scope'
export interface SavedSearch {
  name: string
  of: string
  description: string
  subject: SavedSubject
  parameters: Record<string, string[]>
  replacement: Instead | null
  worklist: boolean
  source: string | null
  problem: string | null
  version: number
  changed: string
  changedBy: string | null
}
/** What stands instead of what a saved search finds. */
export interface Instead {
  with: string
  keepCase: boolean | null
  in: ReplacedIn | null
  mentions: boolean | null
}
/** A mistake in a file of a repository that keeps saved searches. */
export interface FollowedFileProblem {
  repository: string
  path: string
  problem: string
}
export interface SavedSearchChange {
  of: string
  description: string
  subject: SavedSubject
  parameters: Record<string, string[]>
  replacement: Instead | null
  worklist: boolean | null
  version: number | null
}
/** A line, a file, a symbol or a commit that a saved search has found. */
export interface FoundResult {
  repository: string
  branch: string | null
  commit: string
  path: string | null
  line: number | null
  name: string | null
  text: string | null
}
export interface Comparison {
  with: string | null
  at: string | null
  found: number
  came: FoundResult[]
  cameCount: number
  went: FoundResult[] | null
  wentCount: number
  complete: boolean
}
export interface SearchCheck {
  name: string
  at: string
  by: string | null
  results: number
}
export type Gathered = 'not' | 'hour' | 'day'
export interface Watch {
  search: string
  of: string
  went: boolean
  gathered: Gathered
  mutedUntil: string | null
  webhook: string | null
  mail: string | null
  feed: string | null
  secret: string | null
  problem: string | null
  last: string | null
}
export interface WatchChange {
  went: boolean | null
  gathered: Gathered | null
  mutedUntil: string | null
  webhook: string | null
  mail: string | null
  newFeed: boolean | null
}
export interface WatchNotice {
  id: number
  happened: string
  repository: string
  cameCount: number
  came: FoundResult[]
  wentCount: number
  went: FoundResult[]
}
export interface WatchNotices {
  notices: WatchNotice[]
  next: number | null
}
export interface WatchDelivery {
  id: number
  channel: 'webhook' | 'mail'
  message: string
  made: string
  notices: number
  attempts: number
  state: 'waiting' | 'sent' | 'failed'
  answer: string
  nextAttempt: string | null
}
export type ReplacedIn = 'text' | 'paths' | 'both'
export interface Replacement {
  subject: 'lines' | 'symbols'
  parameters: Record<string, string[]>
  with: string
  keepCase: boolean
  in: ReplacedIn
  mentions: boolean
  generated: boolean
  except: string[]
  own: Record<string, string>
  lines: EditedLine[]
  message: string | null
  author: string | null
}
/** A line that is written anew. */
export interface EditedLine {
  repository: string
  branch: string | null
  path: string
  line: number
  was: string
  with: string
}
export interface ReplacementChange {
  line: number
  column: number
  before: string
  after: string
  match: string
  with: string
  applied: boolean
  warnings: string[]
}
export interface ReplacedFile {
  repository: string
  branch: string
  commit: string
  path: string
  newPath: string | null
  changes: ReplacementChange[]
}
export interface LeftFile {
  repository: string
  path: string
  why: string
}
export interface ReplacementPreview {
  matches: number
  files: ReplacedFile[]
  fileCount: number
  renamed: number
  repositories: string[]
  left: LeftFile[]
  outside: OutsideScope | null
  symbol: ReplacedSymbol | null
}
/** A file as it would be. */
export interface ReplacedText {
  path: string
  text: string
}
/** Where a text stands outside the scope as well. */
export interface OutsideScope {
  hits: number
  files: number
}
/** How sure it is that uses of a name are of one symbol. */
export interface ReplacedSymbol {
  declarations: number
  containers: string[]
  uses: number
  sure: number
  likely: number
  others: number
}
export interface Worklist {
  search: string
  of: string
  open: number
  claimed: number
  done: number
  stays: number
  gone: number
  made: string
  madeBy: string | null
  problem: string | null
}
export type WorklistState = 'open' | 'done' | 'stays' | 'gone'
export interface WorklistItem {
  id: number
  result: FoundResult
  state: WorklistState
  owners: string[]
  claimedBy: string | null
  why: string
  changed: string
  changedBy: string | null
  version: number
}
export interface WorklistItems {
  items: WorklistItem[]
  count: number
  at: string
}
export interface WorklistChange {
  state: WorklistState | null
  claimed: boolean | null
  why: string | null
  by: string | null
  version: number | null
}
export interface WorklistDay {
  day: string
  items: number
  repositories: { repository: string; items: number }[]
  owners: { owners: string; items: number }[]
}
export interface WorklistLeft {
  days: WorklistDay[]
  zero: string | null
}
export interface ExclusionSet {
  name: string
  own: boolean
  repository: string | null
  description: string
  byDefault: boolean
  patterns: string
  version: number
  changed: string
}
export interface ExclusionChange {
  description: string
  byDefault: boolean
  patterns: string
  version: number | null
}
export interface Sample {
  repository: string
  branch: string
  path: string
  files: number
}
export interface PatternEffect {
  line: number
  text: string
  bringsBack: boolean
  files: number
  folders: number
  filesInFolders: number
  sampleFolders: Sample[]
  sampleFiles: Sample[]
  warning: string | null
}
export interface ExclusionPreview {
  files: number
  left: number
  patterns: PatternEffect[]
  mistakes: Mistake[]
  tookMillis: number
}
export interface TypesAndTraits {
  types: { name: string; title: string; names: string[]; interpreters: string[] }[]
  traits: { name: string; meaning: string }[]
}

export interface Person {
  name: string
  email: string
}
/** People as the repository's .mailmap names them; dates with the zone they were made in. */
export interface CommitInfo {
  repository: string
  id: string
  author: Person
  authored: string
  committer: Person
  committed: string
  parents: string[]
  summary: string
  message: string
}
export type ChangeKind = 'added' | 'modified' | 'deleted' | 'renamed'
export interface ChangedFile {
  path: string
  change: ChangeKind
  from: string | null
  added: number
  removed: number
  binary: boolean
}
export interface ChangedLine {
  path: string
  kind: '+' | '-'
  number: number
  text: string
  textStart: number
  matches: Match[]
}
export interface FoundCommit {
  commit: CommitInfo
  matches: Match[]
  files: ChangedFile[]
  fileCount: number
  lines: ChangedLine[]
}
export interface CommitFacet {
  value: string
  commits: number
}
export interface Timeline {
  unit: 'day' | 'week' | 'month' | 'year'
  bars: { from: string; commits: number }[]
}
/** How much of the past is searched. */
export interface Covered {
  commits: number
  cut: number
  withoutLines: number
}
export interface CommitsAnswer {
  query: { expression: string }
  index: IndexState
  covered: Covered
  stopped: string | null
  counts: { commits: number; repositories: number; exact: boolean }
  facets: { person: CommitFacet[]; repository: CommitFacet[]; year: CommitFacet[]; timeline: Timeline }
  commits: FoundCommit[]
  next: string | null
  tookMillis: number
}
export type CommitReading = 'fragments' | 'plain' | 'regex' | 'glob' | 'expression'
/** A search for commits: what the URL of the page of commits holds. */
export interface CommitQuest {
  text: string
  reading: CommitReading
  by: string[]
  touches: string[]
  adds: string
  removes: string
  after: string
  before: string
  scope: Scope
}
export interface OverTimeOfRepository {
  repository: string
  points: { day: string; lines: number }[]
  now: number
  difference: number
}
export interface OverTimeEvent {
  commit: CommitInfo
  added: number
  removed: number
}
/** When matching lines came in, and when they left. */
export interface OverTimeAnswer {
  expression: string
  index: IndexState
  covered: Covered
  stopped: string | null
  courses: OverTimeOfRepository[]
  commits: number
  first: OverTimeEvent | null
  last: OverTimeEvent | null
  events: OverTimeEvent[]
  next: string | null
  tookMillis: number
}
export interface CommitPage {
  commit: CommitInfo
  branches: string[]
  tags: string[]
  children: string[]
}
export interface LogEntry {
  commit: CommitInfo
  path: string
  from: string | null
  change: ChangeKind | null
  added: number
  removed: number
}
export interface LogAnswer {
  repository: string
  path: string
  revision: string
  entries: LogEntry[]
  next: string | null
}
/** Lines that follow each other and come from the same commit. */
export interface Origin {
  fromLine: number
  toLine: number
  commit: string
  author: Person
  authored: string
  summary: string
  path: string
  line: number
  previous: { commit: string; path: string } | null
}
export interface BlameAnswer {
  repository: string
  path: string
  revision: string
  origins: Origin[]
}
export interface DiffLine {
  kind: ' ' | '+' | '-'
  text: string
}
export interface DiffHunk {
  oldStart: number
  oldLines: number
  newStart: number
  newLines: number
  lines: DiffLine[]
}
export interface DiffFile {
  path: string
  from: string | null
  change: ChangeKind
  binary: boolean
  added: number
  removed: number
  hunks: DiffHunk[]
}
export interface DiffAnswer {
  repository: string
  from: string
  to: string
  total: number
  files: DiffFile[]
}
export interface Revision {
  name: string
  kind: 'branch' | 'tag'
  commit: string
  committed: string
  author: string
  summary: string
  indexed: boolean
}
export interface RevisionsAnswer {
  repository: string
  total: number
  revisions: Revision[]
}

/** What limits a search, by the parameters of the interface. */
export const scopeParts = [
  'repo',
  'label',
  'branch',
  'under',
  'notUnder',
  'type',
  'trait',
  'notTrait',
  'except',
  'lift',
  'file',
  'changedAfter',
  'changedBefore',
  'region',
  'notRegion',
] as const
export type ScopePart = (typeof scopeParts)[number]
export type Scope = Record<ScopePart, string[]>

export type PathReading = 'fragments' | 'plain' | 'regex' | 'glob' | 'expression'
export type FileOrder = 'relevance' | 'path' | 'name' | 'type' | 'lines' | 'size' | 'recent'
/** A search for files: what the URL of the page of files holds. */
export interface FileQuest {
  text: string
  reading: PathReading
  kind: 'file' | 'folder'
  order: FileOrder
  reversed: boolean
  scope: Scope
}

export type Reading = 'plain' | 'regex' | 'expression'
export type Order = 'path' | 'relevance' | 'recent'
/** What is listed: lines, only the files they are in, or the files that lack them. */
export type Shown = 'lines' | 'files' | 'without'
export type CaseMode = 'auto' | 'match' | 'ignore'

/** A whole search: what the URL of the search page holds. */
export interface Search {
  text: string
  reading: Reading
  caseMode: CaseMode
  word: boolean
  scope: Scope
  context: number
  shown: Shown
  order: Order
  /** A file, as repository/path: what is close to it comes first in the order of relevance. Empty for none. */
  near: string
}

export type AccountRole = 'reader' | 'maintainer' | 'administrator'

export interface SignedIn {
  name: string
  displayName: string
  role: AccountRole
  teams: string[]
  token: string | null
}

export interface SessionInfo {
  accounts: boolean
  guests: boolean
  person: SignedIn | null
  issuer: string | null
}

export interface FirstAdministrator {
  secret: string
  name: string
  displayName: string
  password: string
}

export interface AccountInfo {
  name: string
  displayName: string
  role: AccountRole
  teams: string[]
  created: string
  ended: string | null
}

export interface NewAccount {
  name: string | null
  displayName: string | null
  role: AccountRole | null
  teams: string[] | null
  password: string | null
}

export interface TokenInfo {
  id: number
  account: string
  name: string
  role: AccountRole
  repositories: string[]
  created: string
  ends: string
  lastUsed: string | null
}

export interface NewToken {
  name: string
  role: AccountRole | null
  days: number | null
  repositories: string[] | null
}

export interface IssuedToken {
  info: TokenInfo
  token: string
}

export interface Change {
  id: number
  happened: string
  account: string | null
  token: string | null
  address: string
  action: string
  subject: string
}

export interface ChangesAnswer {
  changes: Change[]
  next: number | null
}

export interface DeviceRequest {
  userCode: string
  program: string
  address: string
  token: NewToken | null
}

export interface HostKey {
  type: string
  key: string
  fingerprint: string
}

export interface HostKeys {
  host: string
  keys: HostKey[]
}

export interface NewCredential {
  host: string
  kind: string
  user: string
  secret: string
  hostKeys: string[]
}

export interface CredentialInfo {
  id: number
  host: string
  kind: string
  user: string
  fingerprint: string | null
  hostKeys: HostKey[]
  givenBy: string | null
  given: string
}

export interface SeesPerson {
  name: string
  displayName: string
  why: string[]
}

export interface WhoSees {
  visibleTo: string[]
  people: SeesPerson[]
}
export interface RosterRule {
  match: string
  labels: string[]
  branches: string[]
  visibleTo: string[]
}
export interface NewRoster {
  name: string
  source: string
  path: string | null
  only: string[]
  rules: RosterRule[]
  graceDays: number | null
}
export interface RosterInfo {
  roster: NewRoster
  read: string | null
  problem: string | null
  repositories: number
  leaving: number
  leftOut: number
}
export interface RosterEntry {
  name: string
  title: string
  location: string
  labels: string[]
  branches: string[]
  visibleTo: string[]
  standing: 'new' | 'changed' | 'same' | 'leaving' | 'left-out'
  problem: string | null
}
export interface RosterPreview {
  entries: RosterEntry[]
  problem: string | null
}

/** Figures of the service; of what varies, the worst within the time. */
export interface HealthReading {
  at: string
  seconds: number
  searches: number
  failedSearches: number
  medianMillis: number | null
  slowMillis: number | null
  waiting: number
  oldestSeconds: number
  repositories: number
  failed: number
  behind: number
  segments: number
  indexBytes: number
  freeBytes: number
  heapBytes: number
  heapLimitBytes: number
  residentBytes: number
  mappings: number
  handles: number
  threads: number
}

export interface HealthFinding {
  level: 'act' | 'watch'
  about: string
  what: string
  advice: string
}

export interface HealthFailure {
  reason: string
  count: number
  repositories: string[]
}

/** What one may see, in short. */
export interface Overview {
  repositories: number
  waiting: number
  indexing: number
  failed: number
  labels: string[]
  /** Another one whenever other commits are indexed. */
  commits: string
}

/** A process that works on the index. */
export interface HealthProcess {
  duties: string[]
  host: string
  pid: number
  started: string
  heapBytes: number
  heapLimitBytes: number
}

/** The machines of a cluster; none with one machine alone. */
export interface Machines {
  cluster: string
  objects: string
  machines: Machine[]
}

export interface Machine {
  name: string
  address: string
  peerAddress: string
  isReached: boolean
  state: 'serving' | 'joining' | 'leaving' | 'gone'
  isAnswering: boolean
  isInCharge: boolean
  joined: string
  files: number
  bytes: number
  missing: number
  brought: number
  mirrors: number
  mirrorsBehind: number
}

export interface Health {
  started: string
  findings: HealthFinding[]
  failures: HealthFailure[]
  processes: HealthProcess[]
  now: HealthReading
  past: HealthReading[]
}
