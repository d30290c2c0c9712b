/** A list without a value that it has, or with one that it lacks. */
export const toggled = (values: string[], value: string) =>
  values.includes(value) ? values.filter(other => other !== value) : [...values, value]

/** A list without a value that it has; else that value alone. */
export const narrowedTo = <T extends string>(values: T[], value: T): T[] =>
  values.includes(value) ? values.filter(other => other !== value) : [value]

/** The same without one of its parts. */
export const without = <V>(whole: Record<string, V>, part: string): Record<string, V> =>
  Object.fromEntries(Object.entries(whole).filter(([name]) => name !== part))
