import * as requests from './requests'

// What follows a person from browser to browser. Each part is kept in this browser first, and on the service a moment
// later; without accounts, or where the service is gone, in this browser alone.

export const parts = {
  searches: 'oddbeacon.searches',
  opened: 'oddbeacon.opened',
  pinned: 'oddbeacon.pinned',
  layout: 'oddbeacon.layout',
} as const
export type Part = keyof typeof parts
const PAUSE = 1_500 // milliseconds
const MOST = 100

let following = false
const waiting = new Map<Part, number>()

export function read(part: Part): unknown {
  try {
    return JSON.parse(localStorage.getItem(parts[part]) ?? 'null')
  } catch {
    return null // what was kept cannot be read: as if nothing had been
  }
}

function write(part: Part, content: unknown) {
  try {
    localStorage.setItem(parts[part], JSON.stringify(content))
  } catch {
    // a browser that keeps nothing
  }
}

/** Keeps a part; many changes in a row are sent as one. */
export function keep(part: Part, content: unknown) {
  write(part, content)
  if (!following) return
  clearTimeout(waiting.get(part))
  waiting.set(
    part,
    window.setTimeout(() => {
      waiting.delete(part)
      requests.keepOnDesk(part, read(part)).catch(() => {
        // it is sent with the next change
      })
    }, PAUSE),
  )
}

/** Both lists in one, what this browser has first. */
function joined(own: unknown, kept: unknown): unknown[] {
  const all = [...(Array.isArray(own) ? own : []), ...(Array.isArray(kept) ? kept : [])]
  const seen = new Set<string>()
  return all.filter(one => !seen.has(JSON.stringify(one)) && seen.add(JSON.stringify(one))).slice(0, MOST)
}

/** Takes what the service has kept of somebody who has signed in, beside what this browser has. */
export async function follow() {
  following = true
  try {
    const kept = await requests.desk()
    write('searches', joined(read('searches'), kept.searches))
    write('opened', joined(read('opened'), kept.opened))
    write('pinned', joined(read('pinned'), kept.pinned))
    if (kept.layout) write('layout', kept.layout)
  } catch {
    // as if nothing had been kept
  }
}

export function stopFollowing() {
  following = false
  waiting.forEach(timer => clearTimeout(timer))
  waiting.clear()
}
