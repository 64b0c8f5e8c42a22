import type { Candidate } from '@sable/contract/lineup'
import { useEffect } from 'react'
import { useShallow } from 'zustand/react/shallow'
import { drawSolved, type Solving, useSolving } from './solvedStore'

export interface Solved extends Solving {
  readonly candidate: Candidate
}

/** What is solved of some candidates, with pictures of how they look then. */
export function useSolved(candidates: readonly Candidate[]): Solved[] {
  const ids = candidates.map(({ id }) => id).join(' ')
  useEffect(() => {
    drawSolved(ids.split(' '))
    return () => drawSolved([])
  }, [ids])
  const found = useSolving(useShallow((all) => candidates.map(({ id }) => all[id])))
  return candidates.map((candidate, i) => ({ key: '', ...found[i], candidate }))
}
