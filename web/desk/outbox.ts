import { type LineupContent, type LineupWrite, lineupWriteSchema } from '@sable/contract/lineup'

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
      return lineupWriteSchema.parse(JSON.parse(text))
    } catch {
      // Written by another version of the program: nothing in it can be used.
      return undefined
    }
  }
  return {
    take,
    put: (lineupId, write) => storage.setItem(keyOf(lineupId), JSON.stringify(write)),
    clear(lineupId, sent) {
      const waiting = take(lineupId)
      if (!waiting) return storage.removeItem(keyOf(lineupId))
      const { revision: _, ...content } = waiting
      // Typed on while the write was under way: that later version still waits.
      if (JSON.stringify(content) === JSON.stringify(sent)) storage.removeItem(keyOf(lineupId))
    },
  }
}
