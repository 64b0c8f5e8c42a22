import type { QueueContent, QueueJob, StoredQueue } from '@sable/contract/queues'
import { useState } from 'react'

const MOST = 50

/** Changes of a queue, each stored at once; the ones made on this page can be taken back, the last first. */
export function useEdits(stored: StoredQueue, onWrite: (next: StoredQueue) => Promise<void>) {
  const [past, setPast] = useState<readonly { readonly what: string; readonly before: QueueContent }[]>([])
  const put = async (more: Partial<QueueContent>, what: string): Promise<void> => {
    const { id: _, revision: __, changedAt: ___, ...before } = stored
    setPast((all) => [...all, { what, before }].slice(-MOST))
    await onWrite({ ...stored, ...more })
  }
  const putJob = (job: QueueJob, what: string): Promise<void> =>
    put({ jobs: stored.jobs.map((one) => (one.id === job.id ? job : one)) }, what)
  const undo = async (): Promise<void> => {
    const last = past.at(-1)
    if (!last) return
    setPast((all) => all.slice(0, -1))
    await onWrite({ ...stored, ...last.before })
  }
  return { put, putJob, undo, past }
}
