import type { QueueContent, StoredQueue } from '@sable/contract/queues'
import { RequestError } from '../api/client'

/** What is done to a queue: as a change, so that it can be done to a later version of it as well. */
export type QueueChange = (content: QueueContent) => QueueContent

interface Api {
  readonly write: (next: StoredQueue) => Promise<StoredQueue[]>
  readonly list: () => Promise<StoredQueue[]>
}

/** Tries before it is given up: somebody else writes all the time. */
const TRIES = 4

/**
 * Stores a change. Where another window was first, the same change is made to what stands there now: nobody's is lost.
 *
 * @returns all queues, and whether somebody else had changed this one
 * @throws RequestError, also where it is gone
 */
export async function writeMerged(
  stored: StoredQueue,
  change: QueueChange,
  { write, list }: Api,
): Promise<{ queues: StoredQueue[]; wasChanged: boolean }> {
  let latest = stored
  for (let tried = 1; ; tried++) {
    try {
      const { id, revision, changedAt } = latest
      return { queues: await write({ ...change(latest), id, revision, changedAt }), wasChanged: tried > 1 }
    } catch (error) {
      if (!(error instanceof RequestError) || error.problem.code !== 'queue-changed' || tried === TRIES) throw error
      const there = (await list()).find(({ id }) => id === stored.id)
      if (!there) throw error
      latest = there
    }
  }
}
