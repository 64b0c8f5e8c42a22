import type { FrozenPrint } from '@sable/contract/prints'
import type { QueueContent, QueueJob } from '@sable/contract/queues'
import type { QueryClient } from '@tanstack/react-query'
import { addQueue, queuesQuery, writeQueue } from '../api/queues'
import { machineOf } from './machineOf'
import { type QueueChange, writeMerged } from './writeMerged'

/**
 * Puts a column into the queue that was touched last, or into a new one: as another way of a job of the same part that is not begun yet and has
 * none on that printer, else as a job of its own.
 *
 * @returns the queue's id
 */
export const putIntoQueue = (way: FrozenPrint, queries: QueryClient): Promise<string> => change((queue) => withWay(queue, way), queries)

/** Puts jobs into the queue that was touched last, or into a new one, each with its ways. Returns the queue's id. */
export const putJobsIntoQueue = (jobs: readonly QueueJob[], queries: QueryClient): Promise<string> =>
  change((queue) => withJobs(queue, jobs), queries)

async function change(how: QueueChange, queries: QueryClient): Promise<string> {
  const all = await queries.fetchQuery({ ...queuesQuery, staleTime: 0 })
  const [latest] = all
  if (!latest) {
    const made = await addQueue(how({ name: 'Queue', machines: [], hours: [], reels: [], jobs: [] }))
    await queries.invalidateQueries(queuesQuery)
    return made.id
  }
  const list = () => queries.fetchQuery({ ...queuesQuery, staleTime: 0 })
  const { queues } = await writeMerged(latest, how, { write: writeQueue, list })
  queries.setQueryData(queuesQuery.queryKey, queues)
  return latest.id
}

export const jobOf = (ways: readonly FrozenPrint[], name: string, copies = 1): QueueJob => ({
  id: crypto.randomUUID(),
  name,
  copies,
  ways: [...ways],
  reel: 'own',
  plates: false,
  prints: [],
  onPlate: {},
})

/** With the machines that they are for. */
function withJobs(queue: QueueContent, jobs: readonly QueueJob[]): QueueContent {
  const printers = new Set(jobs.flatMap(({ ways }) => ways.map(({ printer }) => printer)))
  const missing = [...printers].filter((key) => !queue.machines.some(({ printer }) => printer === key))
  return { ...queue, machines: [...queue.machines, ...missing.map(machineOf)], jobs: [...queue.jobs, ...jobs] }
}

function withWay(queue: QueueContent, way: FrozenPrint): QueueContent {
  const same = queue.jobs.find(
    ({ ways, prints }) =>
      prints.length === 0 && ways.every(({ part, printer }) => part === way.part && printer !== way.printer) && way.part !== undefined,
  )
  if (!same) return withJobs(queue, [jobOf([way], way.name)])
  const { machines } = withJobs(queue, [{ ...same, ways: [way] }])
  return { ...queue, machines, jobs: queue.jobs.map((job) => (job === same ? { ...job, ways: [...job.ways, way] } : job)) }
}
