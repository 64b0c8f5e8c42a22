import type { SetAside } from '@sable/contract/setAside'

/** Something stored that cannot be read. */
export type Unreadable = SetAside

/** Reads rows one by one, so that one that cannot be read never stands in the way of the rest. */
export function readEach<Row, T>(rows: readonly Row[], read: (row: Row) => T) {
  const values: T[] = []
  const unreadable: { readonly row: Row; readonly why: string }[] = []
  for (const row of rows) {
    try {
      values.push(read(row))
    } catch (error) {
      unreadable.push({ row, why: reasonOf(error) })
    }
  }
  return { values, unreadable }
}

/** The first thing that is wrong, with its place. */
export function reasonOf(error: unknown): string {
  const issue = (error as { issues?: { path: PropertyKey[]; message: string }[] }).issues?.[0]
  if (issue) return [issue.path.join('.'), issue.message].filter((text) => text !== '').join(': ')
  return error instanceof Error ? error.message : String(error)
}
