// The wire format of /api/v1, as the service describes it in openapi.json.

export interface Match { start: number; end: number }
export interface Line { number: number; text: string; textStart: number; matches: Match[] }
export interface Excerpt { lines: Line[] }
export interface FileHits {
  repository: string; branch: string; commit: string; path: string; type: string; hits: number
  relevance: { points: number; reasons: string[] } | null; excerpts: Excerpt[]
}
export interface IndexState { complete: boolean; repositories: number; indexing: number }
export interface Facet { value: string; files: number; hits: number }
export interface LinesAnswer {
  query: { text: string; reading: Reading; caseMode: CaseMode; word: boolean; expression: string; unfinished: Mistake | null }
  index: IndexState
  stopped: 'time' | 'memory' | 'cancelled' | null
  counts: { hits: number; files: number; repositories: number; exact: boolean }
  facets: { repository: Facet[]; type: Facet[]; folder: Facet[] }
  files: FileHits[]
  next: string | null
  tookMillis: number
}
export interface FoundFile {
  repository: string; branch: string; commit: string; path: string; type: string; bytes: number; lines: number
  skipped: string | null; matches: Match[]
}
export interface FilesAnswer { index: IndexState; counts: { files: number; repositories: number; exact: boolean }; files: FoundFile[]; tookMillis: number }
export interface Branch {
  name: string; commit: string; committed: string; indexed: string; files: number; lines: number; bytes: number; skipped: number
}
export interface Repository {
  name: string; title: string; location: string; labels: string[]; state: 'waiting' | 'indexing' | 'ready' | 'failed'
  problem: string | null; progress: { phase: string; done: number; total: number } | null; branches: Branch[]
}
export interface NewRepository { name: string; title: string | null; location: string; branches: string[]; labels: string[] }
export interface FileContent {
  repository: string; branch: string; commit: string; path: string; type: string; bytes: number; lines: number
  encoding: string | null; skipped: string | null; image: boolean; text: string | null
}
export interface SkippedFiles { repository: string; branch: string; commit: string; files: { path: string; bytes: number; reason: string }[] }
export interface Mistake { message: string; position: number; length: number; suggestion: string | null; unfinished: boolean }
export interface Problem { title: string; status: number; detail: string; position?: number; mistakes?: Mistake[] }
export interface SecondLook {
  change: string; text: string; reading: Reading; caseMode: CaseMode; word: boolean
  scope: { repo: string[]; label: string[]; branch: string[]; under: string[]; notUnder: string[] }
  hits: number; files: number; exact: boolean
}

export type Reading = 'plain' | 'regex' | 'expression'
export type Order = 'path' | 'relevance' | 'recent'
/** What is listed: lines, only the files they are in, or the files that lack them. */
export type Shown = 'lines' | 'files' | 'without'
export type CaseMode = 'auto' | 'match' | 'ignore'

/** A whole search: what the URL of the search page holds. */
export interface Search {
  text: string; reading: Reading; caseMode: CaseMode; word: boolean
  repositories: string[]; labels: string[]; branches: string[]; under: string[]; notUnder: string[]; context: number
  shown: Shown; order: Order
}
