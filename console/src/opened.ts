// Files opened lately, the latest first, kept on the desk of whoever opens them.

import { keep, read } from './desk'

const MOST = 100

/** As repository/path. */
export function openedFiles(): string[] {
  const names = read('opened')
  return Array.isArray(names) ? names.filter((name): name is string => typeof name === 'string') : []
}

export function rememberOpened(repository: string, path: string) {
  const name = `${repository}/${path}`
  keep('opened', [name, ...openedFiles().filter(other => other !== name)].slice(0, MOST))
}
