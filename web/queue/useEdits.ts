import type { QueueContent, QueueJob, StoredQueue } from '@sable/contract/queues'
import { useState } from 'react'
import { mergeRecord } from '../api/kept/mergeRecord'
import type { QueueChange } from './writeMerged'

const MOST = 50

/** Changes of a queue, each stored at once; the ones made on this page can be taken back, the last first. */
export function useEdits(stored: StoredQueue, onWrite: (change: QueueChange) => Promise<void>) {
  const [past, setPast] = useState<readonly { readonly what: string; readonly before: QueueContent }[]>([])
  const edit = async (change: QueueChange, what: string): Promise<void> => {
    const { id: _, revision: __, changedAt: ___, ...before } = stored
    setPast((all) => [...all, { what, before }].slice(-MOST))
    await onWrite(change)
  }
  const put = (more: Partial<QueueContent>, what: string): Promise<void> => edit((content) => ({ ...content, ...more }), what)
  const editJobs = (change: (jobs: readonly QueueJob[]) => QueueJob[], what: string): Promise<void> =>
    edit((content) => ({ ...content, jobs: change(content.jobs) }), what)
  /** Only what differs from the job as this page has it: what was changed a moment before, and is still on its way, stands. */
  const putJob = (job: QueueJob, what: string): Promise<void> => {
    const before = stored.jobs.find(({ id }) => id === job.id) ?? job
    return editJobs((jobs) => jobs.map((one) => (one.id === job.id ? mergeRecord(before, job, one) : one)), what)
  }
  const dropJob = (job: QueueJob): Promise<void> => editJobs((jobs) => jobs.filter(({ id }) => id !== job.id), `${job.name} out`)
  const undo = async (): Promise<void> => {
    const last = past.at(-1)
    if (!last) return
    setPast((all) => all.slice(0, -1))
    await onWrite((content) => ({ ...content, ...last.before }))
  }
  return { put, putJob, dropJob, undo, past }
}
