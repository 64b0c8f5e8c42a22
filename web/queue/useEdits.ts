import type { QueueContent, QueueJob, StoredQueue } from '@sable/contract/queues'
import { useState } from 'react'
import { mergeQueue } from './mergeQueue'
import type { QueueChange } from './writeMerged'

const MOST = 50

interface Edit {
  readonly what: string
  readonly before: QueueContent
  readonly after: QueueContent
}

/** Changes of a queue, each stored at once; the ones made on this page can be taken back, the last first. */
export function useEdits(stored: StoredQueue, onWrite: (change: QueueChange) => Promise<void>) {
  const [past, setPast] = useState<readonly Edit[]>([])
  const { id: _, revision: __, changedAt: ___, ...before } = stored
  const put = async (more: Partial<QueueContent>, what: string): Promise<void> => {
    const after = { ...before, ...more }
    setPast((all) => [...all, { what, before, after }].slice(-MOST))
    await onWrite((latest) => mergeQueue(before, after, latest))
  }
  const putJob = (job: QueueJob, what: string): Promise<void> =>
    put({ jobs: before.jobs.map((one) => (one.id === job.id ? job : one)) }, what)
  const dropJob = (job: QueueJob): Promise<void> => put({ jobs: before.jobs.filter(({ id }) => id !== job.id) }, `${job.name} out`)
  const undo = async (): Promise<void> => {
    const last = past.at(-1)
    if (!last) return
    setPast((all) => all.slice(0, -1))
    await onWrite((latest) => mergeQueue(last.after, last.before, latest))
  }
  return { put, putJob, dropJob, undo, past }
}
