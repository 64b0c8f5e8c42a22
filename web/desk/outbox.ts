import { type LineupContent, type LineupWrite, lineupContentSchema } from '@sable/contract/lineup'
import { storedWrite } from '@sable/contract/stored/storedLineups'

/**
 * What has been typed and is not yet on the server stands in the browser's own storage too, so that neither a closed
 * window nor a server that is away loses it.
 */
export interface Outbox {
  put(lineupId: string, write: LineupWrite): void
  take(lineupId: string): LineupWrite | undefined
  clear(lineupId: string, sent: LineupContent): void
}

export function createOutbox(storage: Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>): Outbox {
  const keyOf = (lineupId: string) => `sable.unsaved.${lineupId}`
  const take = (lineupId: string): LineupWrite | undefined => {
    const text = storage.getItem(keyOf(lineupId))
    if (text === null) return undefined
    try {
      return storedWrite.read(text)
    } catch {
      // Written by a newer version of the program, or damaged: nothing in it can be used.
      return undefined
    }
  }
  return {
    take,
    put: (lineupId, write) => storage.setItem(keyOf(lineupId), storedWrite.write(write)),
    clear(lineupId, sent) {
      const waiting = take(lineupId)
      if (!waiting) return storage.removeItem(keyOf(lineupId))
      // Typed on while the write was under way: that later version still waits.
      if (saysTheSame(waiting, sent)) storage.removeItem(keyOf(lineupId))
    },
  }
}

/** Whether two lineups say the same, in whatever order their fields were written. */
export const saysTheSame = (a: LineupContent, b: LineupContent): boolean => textOf(a) === textOf(b)

const textOf = (content: LineupContent): string => JSON.stringify(lineupContentSchema.parse(content))
