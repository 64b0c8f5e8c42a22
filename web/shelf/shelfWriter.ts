import { type Kept, recordSchemas, type Shelf, type ShelfKind, type ShelfRecords } from '@sable/contract/shelf'
import type { QueryClient } from '@tanstack/react-query'
import { RequestError } from '../api/client'
import { RecordWriter } from '../api/kept/recordWriter'
import { shelfQuery, writeRecord } from '../api/shelf'

export type AnyRecord = ShelfRecords[ShelfKind]
export type KeptRecord = AnyRecord & Kept

/** A record was changed in another window since this page read it: both versions. */
export class ShelfConflict extends Error {
  constructor(
    readonly kind: ShelfKind,
    readonly mine: AnyRecord,
    readonly theirs: AnyRecord,
    /** Of what is there now. */
    readonly revision: number,
  ) {
    super(`${theirs.name} was changed in another window since this page read it. Open it on the shelf to choose which version to keep.`)
  }
}

/** Everything that one page writes to the shelf goes through one writer, whichever screen it comes from. */
const writers = new WeakMap<QueryClient, RecordWriter<AnyRecord>>()

export const idOf = (kind: ShelfKind, key: string): string => `${kind}/${key}`

/** The shelf with what is typed and not yet stored over what is stored. */
export function withWanted(shelf: Shelf, writer: RecordWriter<AnyRecord>): Shelf {
  const kinds = Object.entries(shelf) as [ShelfKind, readonly KeptRecord[]][]
  return Object.fromEntries(
    kinds.map(([kind, records]) => [
      kind,
      records.map((record) => {
        const wanted = writer.wantedOf(idOf(kind, record.key))
        const { starter, archived, revision } = record
        return wanted ? { ...wanted, starter, archived, revision } : record
      }),
    ]),
  ) as unknown as Shelf
}

export function writerOf(queries: QueryClient): RecordWriter<AnyRecord> {
  const known = writers.get(queries)
  if (known) return known
  const writer = new RecordWriter<AnyRecord>({
    async send(id, record, revision) {
      const kind = id.slice(0, id.indexOf('/')) as ShelfKind
      try {
        const shelf = await writeRecord(kind, record.key, record, revision)
        queries.setQueryData(shelfQuery.queryKey, withWanted(shelf, writer))
        return (shelf[kind] as readonly KeptRecord[]).find(({ key }) => key === record.key)?.revision ?? revision + 1
      } catch (error) {
        const current = error instanceof RequestError && error.problem.code === 'stale-write' ? error.problem.current : undefined
        if (current === undefined) throw error
        const { revision: theirs, ...rest } = current as AnyRecord & { revision: number }
        throw new ShelfConflict(kind, writer.wantedOf(id) ?? record, recordSchemas[kind].parse(rest) as AnyRecord, theirs)
      }
    },
    staleOf: (error) => (error instanceof ShelfConflict ? { record: error.theirs, revision: error.revision } : undefined),
    isAway: (error) => error instanceof RequestError && (error.problem.status === 0 || error.problem.status === 503),
    onChange: () => queries.setQueryData(shelfQuery.queryKey, (shelf) => (shelf ? withWanted(shelf, writer) : shelf)),
  })
  writers.set(queries, writer)
  return writer
}
