// Results as files of other programs have them.

import * as requests from './requests'
import type { FileHits, Search } from './wire'

/** Saves what was made in the browser as a file. */
export function save(blob: Blob, name: string) {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000)
}

/** Saves a difference as a file that git apply takes. */
export async function savePatch(repository: string, from: string, to: string, paths: string[]) {
  save(await requests.patch(repository, from, to, paths), `${repository}-${to.slice(0, 10) || 'now'}.diff`)
}

export type What = 'lines' | 'files' | 'repositories' | 'matches'
export type Format = 'text' | 'jsonl' | 'csv'
export const MOST_HITS = 100_000

const quoted = (text: string) => (/[",\r\n]|^ | $/.test(text) ? `"${text.replace(/"/g, '""')}"` : text)
// A spreadsheet would take it for a formula.
const harmless = (text: string) => (/^\t*[=+\-@]/.test(text) ? `'${text}` : text)
const row = (...fields: (string | number)[]) =>
  fields.map(field => quoted(typeof field === 'number' ? String(field) : harmless(field))).join(',')

/** What is written for a file; each piece is a line. */
function* written(file: FileHits, what: What, format: Format): Generator<string> {
  const { repository, branch, commit, path } = file
  if (what === 'files' || !file.excerpts.length) {
    if (what === 'matches') return
    yield format === 'jsonl'
      ? JSON.stringify({ repository, branch, commit, path, hits: file.hits })
      : format === 'csv'
        ? row(repository, branch, commit, path, file.hits)
        : `${repository}/${path}`
    return
  }
  for (const line of file.excerpts.flatMap(excerpt => excerpt.lines)) {
    const first = line.matches[0]
    if (!first) continue
    if (what === 'lines') {
      const column = first.start + 1
      yield format === 'jsonl'
        ? JSON.stringify({
            repository,
            branch,
            commit,
            path,
            line: line.number,
            column,
            text: line.text,
            textStart: line.textStart,
            matches: line.matches,
          })
        : format === 'csv'
          ? row(repository, branch, commit, path, line.number, column, line.text)
          : `${repository}/${path}:${line.number}:${column}: ${line.text}`
    } else {
      for (const match of line.matches) {
        const text = line.text.slice(Math.max(0, match.start - line.textStart), Math.max(0, match.end - line.textStart))
        yield format === 'jsonl'
          ? JSON.stringify({ repository, path, line: line.number, text })
          : format === 'csv'
            ? row(repository, path, line.number, text)
            : text
      }
    }
  }
}
const heads: Record<What, string> = {
  lines: 'repository,branch,commit,path,line,column,text',
  files: 'repository,branch,commit,path,hits',
  repositories: 'repository',
  matches: 'repository,path,line,text',
}

/**
 * All results of a search, page by page, whatever was shown of them.
 * @param told is told how many lines or files there are so far
 */
export async function takeAway(
  search: Search,
  what: What,
  format: Format,
  signal: AbortSignal,
  told: (count: number) => void,
): Promise<{ text: string; whole: boolean }> {
  const lines: string[] = []
  const repositories = new Set<string>()
  let cursor = ''
  let whole = true
  do {
    const page = await requests.allLines(
      search,
      what === 'lines' || what === 'matches' ? 'lines' : 'files',
      cursor,
      signal,
    )
    for (const file of page.files) {
      repositories.add(file.repository)
      if (what !== 'repositories') for (const line of written(file, what, format)) lines.push(line)
    }
    cursor = page.next ?? ''
    whole = !page.stopped && lines.length < MOST_HITS
    told(lines.length || repositories.size)
  } while (cursor && whole)
  if (what === 'repositories')
    lines.push(
      ...[...repositories]
        .sort()
        .map(name => (format === 'jsonl' ? JSON.stringify({ repository: name }) : format === 'csv' ? row(name) : name)),
    )
  return { text: [...(format === 'csv' ? [heads[what]] : []), ...lines, ''].join('\n'), whole: whole || !cursor }
}
