import { create } from 'zustand'

/** A row or a column of the ledger that somebody wants to go to. */
interface Wish {
  readonly setting?: string
  readonly candidateId?: string
}

export const useGoTo = create<Wish>()(() => ({}))

/** Goes to a row or a column of the ledger, as soon as it is open. */
export const goTo = (wish: Wish): void => useGoTo.setState(wish, true)
