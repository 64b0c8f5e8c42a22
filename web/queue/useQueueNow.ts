import { queueNow, type Reel } from '@sable/contract/queueNow'
import type { StoredQueue } from '@sable/contract/queues'
import { type Shelf, spoolsNow } from '@sable/contract/shelf'
import { remainingOf } from '@sable/core/shelf/spool'
import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { printsQuery } from '../api/prints'
import { useNow } from './useNow'

/** Prints of the log that are looked at. */
const PRINTS = 2000

/** A queue as it is to be planned now: with what the log says of what was begun, and what is left of reels. */
export function useQueueNow(stored: StoredQueue, shelf: Shelf) {
  const now = useNow()
  const { data } = useQuery(printsQuery({ limit: PRINTS }))
  const lines = useMemo(() => new Map((data?.prints ?? []).map((line) => [line.id, line])), [data])
  const reels = useMemo(() => reelsOf(shelf), [shelf])
  const queue = useMemo(() => queueNow(stored, { lines, reels, printers: shelf.printers }, now), [stored, lines, reels, shelf, now])
  return { now, lines, reels, queue, isThere: data !== undefined }
}

/** What is left of each reel, with its doubt. */
function reelsOf(shelf: Shelf): Reel[] {
  const all = spoolsNow(shelf)
  return all
    .filter(({ archived }) => !archived)
    .map((spool) => {
      const { density = 1.24 } = shelf.materials.find(({ key }) => key === spool.material) ?? {}
      const { grams, doubtG } = remainingOf(spool, all, density, shelf.printers[0]?.filamentDiameter ?? 1.75)
      return { key: spool.key, material: spool.material, color: spool.color, grams, doubtG }
    })
}
