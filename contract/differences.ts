/** One thing in which two records differ. */
export interface Difference {
  /** "limits.speed.x" */
  readonly path: string
  readonly here: string
  readonly there: string
  /** The first record with this one thing as the second has it. */
  readonly taken: unknown
}

type Plain = Readonly<Record<string, unknown>>

/** Where two records differ, field by field; lists count as one field. Keys name a record and are left out. */
export function differences(here: object, there: object): Difference[] {
  return [...paths(here as Plain, there as Plain)]
    .filter((path) => path.join('.') !== 'key')
    .map((path) => ({
      path: path.join('.'),
      here: shown(valueAt(here, path)),
      there: shown(valueAt(there, path)),
      taken: withValue(here as Plain, path, valueAt(there, path)),
    }))
}

function* paths(a: Plain, b: Plain): Generator<string[]> {
  for (const name of new Set([...Object.keys(a), ...Object.keys(b)])) {
    const [here, there] = [a[name], b[name]]
    if (JSON.stringify(here) === JSON.stringify(there)) continue
    if (isGroup(here) && isGroup(there)) for (const rest of paths(here, there)) yield [name, ...rest]
    else yield [name]
  }
}

const isGroup = (value: unknown): value is Plain => typeof value === 'object' && value !== null && !Array.isArray(value)

const valueAt = (record: unknown, path: readonly string[]): unknown =>
  path.reduce<unknown>((value, name) => (isGroup(value) ? value[name] : undefined), record)

function withValue(record: Plain, [name, ...rest]: readonly string[], value: unknown): Plain {
  if (name === undefined) return record
  if (rest.length > 0) return { ...record, [name]: withValue((record[name] ?? {}) as Plain, rest, value) }
  const { [name]: _, ...others } = record
  return value === undefined ? others : { ...others, [name]: value }
}

const shown = (value: unknown): string => (value === undefined ? '–' : typeof value === 'object' ? JSON.stringify(value) : String(value))
