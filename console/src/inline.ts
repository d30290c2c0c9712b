// What changed within a line that was replaced by another: words that only one of them has.

export interface Span {
  start: number
  end: number
}

const MOST_WORDS = 400
const words = (text: string): string[] => text.match(/[\p{L}\p{N}_]+|\s+|[^\p{L}\p{N}_\s]/gu) ?? []

/** The changed parts of two lines; nothing if they have little in common. */
export function changedParts(before: string, after: string): { before: Span[]; after: Span[] } | undefined {
  const a = words(before)
  const b = words(after)
  if (a.length > MOST_WORDS || b.length > MOST_WORDS) return undefined
  // longest common subsequence, from the ends
  const lengths = Array.from({ length: a.length + 1 }, () => new Uint16Array(b.length + 1))
  for (let i = a.length - 1; i >= 0; i--) {
    for (let k = b.length - 1; k >= 0; k--)
      lengths[i]![k] = a[i] === b[k] ? lengths[i + 1]![k + 1]! + 1 : Math.max(lengths[i + 1]![k]!, lengths[i]![k + 1]!)
  }
  const result: { before: Span[]; after: Span[] } = { before: [], after: [] }
  let [i, k, at, there, common] = [0, 0, 0, 0, 0]
  const mark = (spans: Span[], start: number, length: number) => {
    const last = spans[spans.length - 1]
    if (last?.end === start) last.end += length
    else spans.push({ start, end: start + length })
  }
  while (i < a.length || k < b.length) {
    if (i < a.length && k < b.length && a[i] === b[k]) {
      common += a[i]!.trim().length
      at += a[i++]!.length
      there += b[k++]!.length
    } else if (k >= b.length || (i < a.length && lengths[i + 1]![k]! >= lengths[i]![k + 1]!)) {
      mark(result.before, at, a[i]!.length)
      at += a[i++]!.length
    } else {
      mark(result.after, there, b[k]!.length)
      there += b[k++]!.length
    }
  }
  return common * 3 >= Math.max(before.trim().length, after.trim().length) ? result : undefined
}
