const numbers = new Intl.NumberFormat('en')
const dates = new Intl.DateTimeFormat('en', { dateStyle: 'medium', timeStyle: 'short' })

export const number = (value: number): string => numbers.format(value)

export const date = (iso: string): string => dates.format(new Date(iso))

const days = new Intl.DateTimeFormat('en', { dateStyle: 'medium', timeZone: 'UTC' })

/** The day that an ISO date names, in the zone it names. */
export const day = (iso: string): string => days.format(new Date(`${iso.slice(0, 10)}T00:00:00Z`))

export function counted(count: number, one: string, many = `${one}s`): string {
  return `${number(count)} ${count === 1 ? one : many}`
}

export function bytes(value: number): string {
  const units = ['B', 'kB', 'MB', 'GB', 'TB']
  let unit = 0
  let rest = value
  while (rest >= 1000 && unit < units.length - 1) {
    rest /= 1000
    unit++
  }
  return `${unit === 0 || rest >= 10 ? Math.round(rest) : rest.toFixed(1)} ${units[unit]}`
}

export function ago(iso: string, now: number): string {
  const minutes = Math.floor((now - Date.parse(iso)) / 60_000)
  if (minutes < 1) return 'just now'
  if (minutes < 60) return `${minutes} min ago`
  const hours = Math.floor(minutes / 60)
  return hours < 48 ? `${hours} h ago` : `${Math.floor(hours / 24)} days ago`
}

/** A branch or tag as it is called; of a commit the first digits. */
export const shortRevision = (revision: string) => (/^[0-9a-f]{40}$/.test(revision) ? revision.slice(0, 10) : revision)
