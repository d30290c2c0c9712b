// Files opened in this browser, the latest first.

const KEY = 'oddbeacon.opened'
const MOST = 100

/** As repository/path. */
export function openedFiles(): string[] {
  try {
    const names: unknown = JSON.parse(localStorage.getItem(KEY) ?? '[]')
    return Array.isArray(names) ? names.filter((name): name is string => typeof name === 'string') : []
  } catch {
    return []
  }
}

export function rememberOpened(repository: string, path: string) {
  const name = `${repository}/${path}`
  try {
    localStorage.setItem(KEY, JSON.stringify([name, ...openedFiles().filter(other => other !== name)].slice(0, MOST)))
  } catch {
    // a browser that keeps nothing
  }
}
