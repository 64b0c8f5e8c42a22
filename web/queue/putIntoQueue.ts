import type { FrozenPrint } from '@sable/contract/prints'
import type { QueueContent, QueueJob } from '@sable/contract/queues'
import type { QueryClient } from '@tanstack/react-query'
import { addQueue, queuesQuery, writeQueue } from '../api/queues'
import { machineOf } from './machineOf'
import { writeMerged } from './writeMerged'

/**
 * Puts a column into the queue that was touched last, or into a new one: as another way of a job of the same part that is not begun yet and has
 * none on that printer, else as a job of its own.
 *
 * @returns the queue's id
 */
export async function putIntoQueue(way: FrozenPrint, queries: QueryClient): Promise<string> {
  const all = await queries.fetchQuery({ ...queuesQuery, staleTime: 0 })
  const [latest] = all
  if (!latest) {
    const made = await addQueue({ name: 'Queue', machines: [machineOf(way.printer)], hours: [], reels: [], jobs: [jobOf(way)] })
    await queries.invalidateQueries(queuesQuery)
    return made.id
  }
  const list = () => queries.fetchQuery({ ...queuesQuery, staleTime: 0 })
  const { queues } = await writeMerged(latest, (content) => withWay(content, way), { write: writeQueue, list })
  queries.setQueryData(queuesQuery.queryKey, queues)
  return latest.id
}

const jobOf = (way: FrozenPrint): QueueJob => ({
  id: crypto.randomUUID(),
  name: way.name,
  copies: 1,
  ways: [way],
  reel: 'own',
  plates: false,
  prints: [],
  onPlate: {},
})

function withWay(queue: QueueContent, way: FrozenPrint): QueueContent {
  const machines = queue.machines.some(({ printer }) => printer === way.printer)
    ? queue.machines
    : [...queue.machines, machineOf(way.printer)]
  const same = queue.jobs.find(
    ({ ways, prints }) =>
      prints.length === 0 && ways.every(({ part, printer }) => part === way.part && printer !== way.printer) && way.part !== undefined,
  )
  const jobs = same ? queue.jobs.map((job) => (job === same ? { ...job, ways: [...job.ways, way] } : job)) : [...queue.jobs, jobOf(way)]
  return { ...queue, machines, jobs }
}
