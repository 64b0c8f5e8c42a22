import type { Cause } from './cause'

/** What a failed print looks like. */
export interface Fault {
  readonly id: string
  readonly name: string
  /** What one sees, so that it can be told from others. */
  readonly looks: string
  /** Ids of causes in the order in which practice tries them. */
  readonly causes: readonly Cause['id'][]
  /** Practice does not rank them: each has a sign of its own. */
  readonly unranked?: boolean
  /** Settled by so many prints in a row: what comes and goes is not gone after one. */
  readonly confirm?: number
}

/** Something that only a person can tell, asked when it would tell most. */
export interface Question {
  readonly id: string
  readonly asks: string
  /** Ids of the faults of which it is asked; of any where that is not told. */
  readonly of?: readonly Fault['id'][]
  /** How many times likelier an answer is where a cause is true; causes that are not named say nothing. */
  readonly answers: Readonly<Record<string, { readonly words: string; readonly factors: Readonly<Record<Cause['id'], number>> }>>
  /** Where the factors come from. */
  readonly basis: string
}
