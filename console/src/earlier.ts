// Searches of before, the latest first, kept on the desk of whoever searches.

import { keep, read as readPart } from './desk'
import { emptySearch, fromUrl, toUrl } from './searchUrl'
import type { Search } from './wire'

const MOST = 100

function read(): Record<string, string | string[]>[] {
  const kept = readPart('searches')
  return Array.isArray(kept) ? (kept as Record<string, string | string[]>[]) : []
}

export function earlierSearches(): Search[] {
  return read().map(query => ({ ...emptySearch(), ...fromUrl(query) }))
}

export function remember(search: Search) {
  if (!search.text.trim()) return
  const own = JSON.stringify(toUrl(search))
  const others = read().filter(query => JSON.stringify(query) !== own)
  keep('searches', [JSON.parse(own), ...others].slice(0, MOST))
}
