/** A list without a value that it has, or with one that it lacks. */
export const toggled = (values: string[], value: string) => (values.includes(value) ? values.filter(other => other !== value) : [...values, value])
