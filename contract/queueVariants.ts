import type { Queue } from '@sable/core/queue/queue'
import type { Variant } from '@sable/core/queue/whatIf'
import { quietFrom, windowsFrom } from './queueHours'

/** Hours from one clock to another. */
export interface Hours {
  readonly from: string
  readonly to: string
}

const ALL_DAYS = [0, 1, 2, 3, 4, 5, 6]
/** Quiet hours that are tried where there are none: the usual ones. */
const NIGHT: Hours = { from: '22:00', to: '07:00' }

/** A queue with other hours: in which somebody is there, and quiet ones or none. */
export function hourVariants(queue: Queue, there: Hours, now: Date): Variant[] {
  const { quiet: _, ...loud } = queue
  const presence = there.to > there.from ? windowsFrom([{ days: ALL_DAYS, ...there }], now) : undefined
  return [
    ...(presence
      ? [{ id: 'hours', words: `somebody is there ${there.from} to ${there.to}, every day`, queue: { ...queue, presence } }]
      : []),
    queue.quiet
      ? { id: 'loud', words: 'no quiet hours', queue: loud }
      : { id: 'quiet', words: `nothing is printed ${NIGHT.from} to ${NIGHT.to}`, queue: { ...queue, quiet: quietFrom(NIGHT, now) } },
  ]
}
