import type { Candidate } from '@sable/contract/lineup'
import { MOST_OVERRIDES, type Override } from '@sable/core/profile/overrides'
import { useState } from 'react'
import { edit } from '../../desk/deskStore'
import { setOverrides } from '../../desk/edits'
import { movedBox, type PlaceBox, roundedBox } from './placeBox'

/** A copy lies so far from what it was copied from, mm. */
const ASIDE = 5

/** Places of a candidate while they are drawn: which of them is chosen, and what can be done with it. Every change is one step back. */
export function usePlaces({ id, overrides }: Candidate) {
  const [wanted, setWanted] = useState(0)
  const chosen = Math.min(wanted, overrides.length - 1)
  const put = (next: readonly Override[]): void => edit((content) => setOverrides(content, id, [...next]))
  const change = (i: number, next: Override): void => put(overrides.with(i, next))
  /** Returns what the new place is called, or nothing where there is room for no more. */
  const add = (place: Omit<Override, 'name' | 'values'> & Partial<Pick<Override, 'name' | 'values'>>): string | undefined => {
    if (overrides.length >= MOST_OVERRIDES) return
    const added = { name: freeName(overrides), values: {}, ...place }
    put([...overrides, added])
    setWanted(overrides.length)
    return added.name
  }
  return {
    overrides,
    chosen,
    choose: setWanted,
    isFull: overrides.length >= MOST_OVERRIDES,
    change,
    setBox: (i: number, box: PlaceBox): void => change(i, { ...overrides[i]!, box: roundedBox(box) }),
    add,
    copy(i: number): void {
      const own = overrides[i]!
      add({ ...own, name: freeName(overrides), ...(own.box ? { box: roundedBox(movedBox(own.box, [ASIDE, ASIDE])) } : {}) })
    },
    remove(i: number): void {
      put(overrides.toSpliced(i, 1))
      setWanted(Math.max(0, i - 1))
    },
  }
}
export type Places = ReturnType<typeof usePlaces>

/** The next name that no place has. */
export function freeName(overrides: readonly Override[]): string {
  let n = overrides.length + 1
  while (overrides.some(({ name }) => name === `place ${n}`)) n++
  return `place ${n}`
}
