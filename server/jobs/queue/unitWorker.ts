import type { JobKindName } from '@sable/contract/job'
import { Worker } from 'bullmq'
import type { Lanes, OpenLanes } from '../lanes'
import { connectTo, fetchShared, QUEUE, type QueuedUnit } from './connection'

/** A worker that is not heard of for this long is thought lost, and its units are handed to others, ms. */
const LOST_AFTER_MS = 10_000
/** Jobs whose threads stay open, each with what it remembers. */
const MOST_OPEN = 2

/** Takes units out of the queue and runs them in lanes of this machine. Returns how to end it, units in hand first. */
export function startUnitWorker(url: string, lanes: number, openLanes: OpenLanes): () => Promise<void> {
  const redis = connectTo(url)
  const open = new Map<string, { readonly lanes: Lanes<unknown, unknown>; readonly busy: Set<number> }>()

  const lanesFor = async (kind: JobKindName, key: string) => {
    const known = open.get(key)
    if (known) {
      // Deleting first moves it to the end: the first is always the one not used for longest.
      open.delete(key)
      open.set(key, known)
      return known
    }
    const shared = await fetchShared(redis, key)
    const fresh = open.get(key) ?? { lanes: openLanes<unknown, unknown>(kind, shared), busy: new Set<number>() }
    open.set(key, fresh)
    for (const [old, { lanes: its, busy }] of open) {
      if (open.size <= MOST_OPEN) break
      if (busy.size > 0 || old === key) continue
      open.delete(old)
      await its.close()
    }
    return fresh
  }

  const worker = new Worker<QueuedUnit>(
    QUEUE,
    async ({ name, data: { shared, unit } }) => {
      const { lanes: own, busy } = await lanesFor(name as JobKindName, shared)
      const lane = Array.from({ length: own.count }, (_, i) => i).find((i) => !busy.has(i)) ?? 0
      busy.add(lane)
      try {
        return await own.run(lane, unit)
      } finally {
        busy.delete(lane)
      }
    },
    {
      connection: connectTo(url),
      concurrency: lanes,
      lockDuration: LOST_AFTER_MS,
      stalledInterval: LOST_AFTER_MS / 2,
      maxStalledCount: 10,
    },
  )
  worker.on('error', (error) => console.error(error))
  return async () => {
    await worker.close()
    for (const { lanes: own } of open.values()) await own.close()
    redis.disconnect()
  }
}
