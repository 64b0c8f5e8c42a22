import { type QueueContent, type QueueJob, queueSchema, type StoredQueue } from '@sable/contract/queues'
import { act, renderHook } from '@testing-library/react'
import { expect, it } from 'vitest'
import { jobOf } from './putIntoQueue'
import { useEdits } from './useEdits'
import type { QueueChange } from './writeMerged'

const job = jobOf([], 'tray', 2)
const stored: StoredQueue = {
  ...queueSchema.parse({ name: 'fair', machines: [{ printer: 'dory' }] }),
  jobs: [job],
  id: '3f1c1a52-3b0a-4a43-9a26-0d5b1a6d7a02',
  revision: 4,
  changedAt: '2026-11-01T08:00:00.000Z',
}

/** A page that has read a queue and draws no answer: all that it changes is made to what the server has by then. */
function page(own: QueueJob = job, more: Partial<QueueContent> = {}) {
  const read = { ...stored, jobs: [own], ...more }
  let server: QueueContent = read
  const onWrite = async (change: QueueChange): Promise<void> => {
    server = change(server)
  }
  const { result } = renderHook(() => useEdits(read, onWrite))
  return { edits: () => result.current, jobs: () => server.jobs, server: () => server }
}

it('two changes of one job that follow each other faster than answers both stand', async () => {
  const { edits, jobs } = page()
  await act(() => edits().putJob({ ...job, copies: 5 }, 'copies'))
  await act(() => edits().putJob({ ...job, deadline: '2026-11-28T18:00:00Z' }, 'a deadline'))
  expect(jobs()).toMatchObject([{ copies: 5, deadline: '2026-11-28T18:00:00Z' }])
})

it('what is taken off a job is off, and a job that is gone meanwhile stays gone', async () => {
  const { edits, jobs } = page({ ...job, heldTo: 'dory' })
  await act(() => edits().putJob(job, 'anywhere'))
  expect(jobs()).toEqual([job])
  await act(() => edits().dropJob(job))
  await act(() => edits().putJob({ ...job, copies: 9 }, 'copies'))
  expect(jobs()).toEqual([])
})

it('the last change is taken back first', async () => {
  const { edits, jobs } = page()
  await act(() => edits().putJob({ ...job, copies: 5 }, 'copies'))
  expect(edits().past.map(({ what }) => what)).toEqual(['copies'])
  await act(() => edits().undo())
  expect(jobs()).toEqual([job])
  expect(edits().past).toEqual([])
})

it('two machines changed in a row are both away, and quiet hours that are taken off are off', async () => {
  const machines = ['dory', 'cutter'].map((printer) => ({ ...stored.machines[0]!, printer }))
  const { edits, server } = page(job, { machines, quiet: { from: '22:00', to: '07:00' } })
  await act(() => edits().put({ machines: [{ ...machines[0]!, away: true }, machines[1]!] }, 'Dory'))
  await act(() => edits().put({ machines: [machines[0]!, { ...machines[1]!, away: true }] }, 'Cutter'))
  await act(() => edits().put({ quiet: undefined }, 'quiet hours'))
  expect(server().machines.map(({ away }) => away)).toEqual([true, true])
  expect(server()).not.toHaveProperty('quiet')
  // Taking the last back leaves the others.
  await act(() => edits().undo())
  expect(server().quiet).toEqual({ from: '22:00', to: '07:00' })
  await act(() => edits().undo())
  expect(server().machines.map(({ away }) => away)).toEqual([true, false])
})
