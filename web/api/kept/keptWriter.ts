import type { QueryClient, QueryKey } from '@tanstack/react-query'
import { RequestError } from '../client'
import { mergeRecord } from './mergeRecord'
import { RecordWriter } from './recordWriter'

/** What every kept thing has beside its own. */
export interface Kept {
  readonly id: string
  readonly revision: number
  readonly changedAt: string
}

/** Where things of a kind are kept: all of them are read at once, and every write answers with all of them. */
export interface KeptApi<Stored extends Kept> {
  readonly queryKey: QueryKey
  readonly list: () => Promise<Stored[]>
  readonly write: (one: Stored) => Promise<Stored[]>
}

/** It was changed in another window or deleted since this page read it, or cannot be what is wanted: that is given up. */
class GivenUp<Stored> extends RequestError {
  constructor(
    { problem }: RequestError,
    readonly theirs: Stored | undefined,
  ) {
    super(problem)
  }
}

/**
 * Changes of kept things. Each is in sight at once, and is stored once those before it are: who answers and closes a case faster than the server
 * stores it has not met another window.
 *
 * @returns for a page's queries, what changes a thing from what it said to what it says now. @throws RequestError; where it was refused, or
 *   somebody else was first, what stands there now is in sight
 */
export function keptWriter<Stored extends Kept>({ queryKey, list, write }: KeptApi<Stored>) {
  const writers = new WeakMap<QueryClient, RecordWriter<Stored>>()
  const writerOf = (queries: QueryClient): RecordWriter<Stored> => {
    const known = writers.get(queries)
    if (known) return known
    const show = (all: readonly Stored[]): void => {
      queries.setQueryData(queryKey, all.map(withWanted))
    }
    const withWanted = (one: Stored): Stored => {
      const wanted = writer.wantedOf(one.id)
      return wanted ? { ...wanted, revision: one.revision, changedAt: one.changedAt } : one
    }
    const writer = new RecordWriter<Stored>({
      async send(id, record, revision) {
        try {
          const all = await write({ ...record, revision })
          show(all)
          return all.find((one) => one.id === id)?.revision ?? revision + 1
        } catch (error) {
          if (!(error instanceof RequestError) || isAway(error)) throw error
          const all = await list()
          // What is wanted of it is given up, and shown no longer.
          queries.setQueryData(
            queryKey,
            all.map((one) => (one.id === id ? one : withWanted(one))),
          )
          throw new GivenUp(
            error,
            all.find((one) => one.id === id),
          )
        }
      },
      staleOf: (error) =>
        error instanceof GivenUp ? { record: said(error.theirs ?? {}) as Stored, revision: error.theirs?.revision ?? 0 } : undefined,
      isAway,
      onChange: () => show(queries.getQueryData<Stored[]>(queryKey) ?? []),
    })
    writers.set(queries, writer)
    return writer
  }
  return (queries: QueryClient) =>
    (before: Stored, after: Stored): Promise<void> =>
      writerOf(queries).write(
        before.id,
        () => {
          // A page may not have drawn yet what the server answered last.
          const stored = queries.getQueryData<Stored[]>(queryKey)?.find(({ id }) => id === before.id) ?? before
          return { record: said(stored) as Stored, revision: stored.revision }
        },
        (latest) => mergeRecord(said(before), said(after), latest) as Stored,
      )
}

const isAway = (error: unknown): boolean => error instanceof RequestError && [0, 503].includes(error.problem.status)

/** What it says, whenever that was stored. */
const said = ({ revision: _, changedAt: __, ...own }: Partial<Kept>): Omit<Partial<Kept>, 'revision' | 'changedAt'> => own
