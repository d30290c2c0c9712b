// Files opened lately, the latest first, and files that are pinned, kept on the desk of whoever opens them.

import { keep, read } from './desk'
import { toggled } from './toggled'

const MOST = 100

/** As repository/path. */
const files = (part: 'opened' | 'pinned'): string[] => {
  const names = read(part)
  return Array.isArray(names) ? names.filter((name): name is string => typeof name === 'string') : []
}
export const openedFiles = (): string[] => files('opened')
export const pinnedFiles = (): string[] => files('pinned')

export function rememberOpened(repository: string, path: string) {
  const name = `${repository}/${path}`
  keep('opened', [name, ...openedFiles().filter(other => other !== name)].slice(0, MOST))
}

/** Pins a file, or takes it off; tells what is pinned then. */
export function togglePin(name: string): string[] {
  const pinned = toggled(pinnedFiles(), name).slice(-MOST)
  keep('pinned', pinned)
  return pinned
}
