import { type Moved, movedBetween } from '@sable/core/queue/moved'
import type { QueuePlan } from '@sable/core/queue/plan'
import { useState } from 'react'
import { type Basis, reasonsBetween, touchedJobs } from './reasons'

export interface WhatMoved {
  readonly reasons: readonly string[]
  readonly moves: readonly Moved[]
}

interface Kept {
  readonly id: string
  readonly plan: QueuePlan
  readonly now: number
  readonly basis: Basis
  readonly moved: WhatMoved | undefined
}

/** What somebody just moved is what they look for, however far it pushed others. */
const touchedFirst = (moves: readonly Moved[], touched: ReadonlySet<string>): Moved[] => [
  ...moves.filter(({ job }) => touched.has(job)),
  ...moves.filter(({ job }) => !touched.has(job)),
]

/** What the latest plan has elsewhere than the one before it, and why, until somebody has read it. */
export function useWhatMoved(id: string, plan: QueuePlan | undefined, basis: Basis, now: Date, printerName: (key: string) => string) {
  const [kept, setKept] = useState<Kept>()
  // A new plan is there: it is held against the last one while this is rendered, not after.
  if (plan && kept?.plan !== plan) {
    const moves = kept?.id === id ? touchedFirst(movedBetween(kept, { plan, now: now.getTime() }), touchedJobs(kept.basis, basis)) : []
    const reasons = kept?.id === id ? reasonsBetween(kept.basis, basis, printerName) : []
    const moved = moves.length > 0 ? { moves, reasons } : reasons.length > 0 ? undefined : kept?.id === id ? kept.moved : undefined
    setKept({ id, plan, now: now.getTime(), basis, moved })
  }
  const read = (): void => setKept((all) => all && { ...all, moved: undefined })
  return { moved: kept?.id === id ? kept.moved : undefined, read }
}
