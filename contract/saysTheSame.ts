/** Whether two values say the same, in whatever order their fields stand; a field that is undefined says no more than none. */
export function saysTheSame(a: unknown, b: unknown): boolean {
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((value, i) => saysTheSame(value, b[i]))
  if (isFields(a) && isFields(b)) {
    const keys = new Set([...Object.keys(a), ...Object.keys(b)])
    return [...keys].every((key) => saysTheSame(a[key], b[key]))
  }
  return a === b
}

/** Whether a value is an object with fields, no list. */
export const isFields = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
