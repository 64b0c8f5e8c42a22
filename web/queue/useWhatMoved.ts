import { type Moved, movedBetween } from '@sable/core/queue/moved'
import type { QueuePlan } from '@sable/core/queue/plan'
import { useState } from 'react'
import { type Basis, reasonsBetween } from './reasons'

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

/** What the latest plan has elsewhere than the one before it, and why, until somebody has read it. */
export function useWhatMoved(id: string, plan: QueuePlan | undefined, basis: Basis, now: Date, printerName: (key: string) => string) {
  const [kept, setKept] = useState<Kept>()
  // A new plan is there: it is held against the last one while this is rendered, not after.
  if (plan && kept?.plan !== plan) {
    const moves = kept?.id === id ? movedBetween(kept, { plan, now: now.getTime() }) : []
    const reasons = kept?.id === id ? reasonsBetween(kept.basis, basis, printerName) : []
    const moved = moves.length > 0 ? { moves, reasons } : reasons.length > 0 ? undefined : kept?.id === id ? kept.moved : undefined
    setKept({ id, plan, now: now.getTime(), basis, moved })
  }
  const read = (): void => setKept((all) => all && { ...all, moved: undefined })
  return { moved: kept?.id === id ? kept.moved : undefined, read }
}
