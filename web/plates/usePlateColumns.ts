import type { Candidate, Lineup } from '@sable/contract/lineup'
import type { StoredPart } from '@sable/contract/part'
import type { PlateItem } from '@sable/contract/plate'
import type { Shelf } from '@sable/contract/shelf'
import { useQueries, useQuery } from '@tanstack/react-query'
import { RequestError } from '../api/client'
import { fetchLineup } from '../api/lineups'
import { partsQuery } from '../api/parts'
import { keyOf, requestFor } from '../predictions/predictionStore'
import type { PlateColumn } from '../predictions/worker/plating'

/** An item of a plate with the column that it stands for, as that is now. */
export interface Item extends PlateItem {
  readonly lineupName: string
  readonly candidateOf: Candidate
  readonly lineupOf: Lineup
  readonly partOf: StoredPart
  readonly column: PlateColumn
  /** Says all that its paths depend on. */
  readonly key: string
}

export interface PlateColumns {
  /** Those whose columns are there. */
  readonly items: readonly Item[]
  /** Those whose column, part or shelf record is gone. */
  readonly gone: readonly PlateItem[]
  readonly parts: readonly StoredPart[] | undefined
  readonly isLoading: boolean
  /** The server did not tell of some. */
  readonly isUnread: boolean
}

/** The columns that a plate is made of. They are followed: what is edited on the bench is edited here. */
export function usePlateColumns(all: readonly PlateItem[], shelf: Shelf): PlateColumns {
  const parts = useQuery(partsQuery)
  const ids = [...new Set(all.map(({ lineup }) => lineup))]
  const lineups = useQueries({
    queries: ids.map((id) => ({ queryKey: ['lineup of a plate', id], queryFn: () => fetchLineup(id), staleTime: 0, retry: false })),
  })
  // Nothing is gone that could only not be read.
  const isRead = parts.data !== undefined && lineups.every(({ isSuccess, error }) => isSuccess || isAway(error))
  const byId = new Map(ids.map((id, i) => [id, lineups[i]?.data]))
  const found = all.map((item): Item | PlateItem => itemOf(item, byId.get(item.lineup), parts.data, shelf) ?? item)
  const items = found.filter((one): one is Item => 'column' in one)
  const named = new Map<string, number>()
  for (const { column } of items) named.set(column.name, (named.get(column.name) ?? 0) + 1)
  const seen = new Map<string, number>()
  return {
    // Those of one name are told apart by numbers, so that what is wrong can be told by name.
    items: items.map((item) => {
      const { name } = item.column
      if (named.get(name) === 1) return item
      const n = (seen.get(name) ?? 0) + 1
      seen.set(name, n)
      return { ...item, column: { ...item.column, name: `${name} ${n}` } }
    }),
    gone: isRead ? found.filter((one) => !('column' in one)) : [],
    parts: parts.data,
    isLoading: parts.isPending || lineups.some(({ isPending }) => isPending),
    isUnread: lineups.some(({ error }) => error !== null && !isAway(error)),
  }
}

const isAway = (error: unknown): boolean => error instanceof RequestError && error.problem.status === 404

/** The column that an item stands for; nothing where it, its part or what it prints with is gone. */
export function itemOf(
  item: PlateItem,
  lineup: Lineup | undefined,
  parts: readonly StoredPart[] | undefined,
  shelf: Shelf,
): Item | undefined {
  const candidate = lineup?.candidates.find(({ id }) => id === item.candidate)
  const part = parts?.find(({ id }) => id === lineup?.partId)
  const request = lineup && candidate && part && requestFor(candidate, lineup, part, shelf)
  if (!request) return undefined
  return {
    ...item,
    lineupName: lineup.name,
    candidateOf: candidate,
    lineupOf: lineup,
    partOf: part,
    column: { name: part.name, request },
    key: keyOf(request),
  }
}

/** A plate has one printer, nozzle and reel. */
export const sharesSetup = ({ candidateOf: a }: Pick<Item, 'candidateOf'>, { candidateOf: b }: Pick<Item, 'candidateOf'>): boolean =>
  a.printer === b.printer && a.nozzle === b.nozzle && a.material === b.material && a.spool === b.spool

/** Why a column cannot share the plate of another; nothing where it can. */
export function whyNot({ candidates }: Lineup, candidate: string, first: Item | undefined): string | undefined {
  const own = candidates.find(({ id }) => id === candidate)
  if (!own || !first || sharesSetup({ candidateOf: own }, first)) return undefined
  const { candidateOf: there } = first
  if (own.printer !== there.printer) return 'another printer'
  if (own.nozzle !== there.nozzle) return 'another nozzle'
  return own.material === there.material ? 'another reel' : 'another material'
}
