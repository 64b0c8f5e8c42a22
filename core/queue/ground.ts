import { mergedWindows } from './presence'
import type { Queue, QueueSpool, Window } from './queue'

/** A queue made ready to be laid on the clock many times. */
export interface Ground {
  readonly queue: Queue
  readonly windows: readonly Window[] | undefined
  readonly quiet: readonly Window[] | undefined
  readonly printerOf: ReadonlyMap<string, number>
  readonly spoolOf: ReadonlyMap<string, QueueSpool>
  /** Whether a lane's times can depend on another's: two printers could want the same reel, or one reel is followed by another. */
  readonly isJoint: boolean
  /** Whether a print may go on from another reel. */
  readonly joinsReels: boolean
}

export function groundOf(queue: Queue): Ground {
  const users = new Map<string, Set<string>>()
  for (const { options } of queue.jobs)
    for (const { spool, printer } of options) if (spool !== undefined) users.set(spool, (users.get(spool) ?? new Set()).add(printer))
  const spoolOf = new Map((queue.spools ?? []).map((spool) => [spool.key, spool]))
  const joinsReels = [...users.keys()].some((spool) => spoolOf.get(spool)?.followedBy !== undefined)
  return {
    queue,
    windows: queue.presence && mergedWindows(queue.presence),
    quiet: queue.quiet && mergedWindows(queue.quiet),
    printerOf: new Map(queue.printers.map(({ key }, i) => [key, i])),
    spoolOf,
    isJoint: joinsReels || [...users.values()].some((printers) => printers.size > 1),
    joinsReels,
  }
}
