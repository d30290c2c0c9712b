// Lines of a file: ranges as addresses have them, and what is looked for among them.

export interface LineRange {
  from: number
  to: number
}

/** What is looked for within a file. */
export interface Find {
  text: string
  caseCounts: boolean
  word: boolean
  regex: boolean
  within?: LineRange
}

export const nothing = (): Find => ({ text: '', caseCounts: false, word: false, regex: false })

/** "12" or "12-20"; nothing if it is neither. */
export function parseRange(text: string): LineRange | undefined {
  const match = /^([1-9]\d{0,8})(?:-([1-9]\d{0,8}))?$/.exec(text)
  if (!match) return undefined
  const from = Number(match[1])
  return { from, to: Math.max(from, Number(match[2] ?? from)) }
}

export const printRange = (range: LineRange): string =>
  range.to > range.from ? `${range.from}-${range.to}` : String(range.from)
