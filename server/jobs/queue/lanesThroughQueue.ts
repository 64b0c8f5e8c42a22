import type { JobKindName } from '@sable/contract/job'
import { type Job, Queue, QueueEvents } from 'bullmq'
import type { Lanes, OpenLanes } from '../lanes'
import { connectTo, layDownShared, QUEUE, type QueuedUnit } from './connection'

/** Units of one job that wait or are worked on at once, by however many workers there are. */
const LANES = 16
/** A unit whose worker was lost is handed to another one, as often as this. */
const ATTEMPTS = 5
/** Results are fetched at once, and let go soon, s. */
const KEPT_S = 600

/** Units go through Redis to any number of `npm run worker`; what comes back is the same whoever did them. */
export const lanesThroughQueue =
  (url: string): OpenLanes =>
  <Unit, Result>(kind: JobKindName, shared: unknown): Lanes<Unit, Result> => {
    const redis = connectTo(url)
    const queue = new Queue<QueuedUnit>(QUEUE, { connection: redis })
    const events = new QueueEvents(QUEUE, { connection: connectTo(url) })
    // Each unit that waits listens for its own end.
    queue.setMaxListeners(4 * LANES)
    const key = layDownShared(redis, kind, shared)
    // Told to whoever waits for it, if only later.
    key.catch(() => {})
    const pending = new Map<Job<QueuedUnit>, (left: undefined) => void>()
    const leave = async (): Promise<void> => {
      for (const [job, left] of pending) {
        // One that is being worked on is locked, and soon done.
        const removed = await job.remove().then(
          () => true,
          () => false,
        )
        if (removed) left(undefined)
      }
    }
    return {
      count: LANES,
      leave,
      async run(_, unit) {
        const job = await queue.add(
          kind,
          { shared: await key, unit },
          { attempts: ATTEMPTS, removeOnComplete: { age: KEPT_S }, removeOnFail: { age: KEPT_S } },
        )
        const left = new Promise<undefined>((resolve) => pending.set(job, resolve))
        try {
          return (await Promise.race([job.waitUntilFinished(events), left])) as Result | undefined
        } finally {
          pending.delete(job)
        }
      },
      async close() {
        await leave()
        await events.close()
        await queue.close()
        redis.disconnect()
      },
    }
  }
