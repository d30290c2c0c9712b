// Searches of before, the latest first, kept in this browser.

import { emptySearch, fromUrl, toUrl } from './searchUrl'
import type { Search } from './wire'

const KEY = 'oddbeacon.searches'
const MOST = 100

function read(): Record<string, string | string[]>[] {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '[]')
  } catch {
    return []
  }
}

export function earlierSearches(): Search[] {
  return read().map(query => ({ ...emptySearch(), ...fromUrl(query) }))
}

export function remember(search: Search) {
  if (!search.text.trim()) return
  const own = JSON.stringify(toUrl(search))
  const others = read().filter(query => JSON.stringify(query) !== own)
  try {
    localStorage.setItem(KEY, JSON.stringify([JSON.parse(own), ...others].slice(0, MOST)))
  } catch {
    // a browser that keeps nothing
  }
}
