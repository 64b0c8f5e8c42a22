import type { LineupContent } from '@sable/contract/lineup'
import type { StoredPart } from '@sable/contract/part'
import type { Shelf } from '@sable/contract/shelf'
import { createContext, useContext } from 'react'
import type { Refusal } from '../ui/Notice'

/** What stands on the bench: the open lineup, its part, and the shelf that its columns name. */
export interface Bench {
  readonly content: LineupContent
  readonly part: StoredPart
  readonly shelf: Shelf
  /** Shows what was refused over the view that is open. */
  readonly onRefusal: (refusal: Refusal) => void
}

const Context = createContext<Bench | undefined>(undefined)
export const BenchProvider = Context.Provider

/** What stands on the bench. Only beneath the bench. */
export function useBench(): Bench {
  const bench = useContext(Context)
  if (!bench) throw new Error('There is no bench here.')
  return bench
}
