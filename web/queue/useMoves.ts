import type { FrozenPrint } from '@sable/contract/prints'
import type { QueueJob } from '@sable/contract/queues'
import type { PlannedItem } from '@sable/core/queue/plan'
import type { Queue } from '@sable/core/queue/queue'
import { useQueryClient } from '@tanstack/react-query'
import { toast } from 'sonner'
import { asRefusal } from '../api/asRefusal'
import { planPrint, startPrint } from '../api/prints'
import type { Refusal } from '../ui/Notice'

interface Of {
  readonly queue: Queue
  readonly jobs: ReadonlyMap<string, QueueJob>
  readonly printerName: (key: string) => string
  readonly putJob: (job: QueueJob, what: string) => Promise<void>
  readonly onBegun: () => void
  readonly onRefusal: (refusal: Refusal) => void
}

/** What is done with a bar: it is begun, and stands in the log; or it is moved to another printer. */
export function useMoves({ queue, jobs, printerName, putJob, onBegun, onRefusal }: Of) {
  const client = useQueryClient()
  const wayOf = (item: PlannedItem): FrozenPrint | undefined => {
    const profile = queue.jobs[item.job]?.options[item.option]?.name
    return jobs.get(item.of)?.ways.find((way) => way.printer === item.on && (profile === undefined || way.profile === profile))
  }
  const begin = async (item: PlannedItem): Promise<void> => {
    const job = jobs.get(item.of)
    const way = wayOf(item)
    if (!job || !way) return
    try {
      const { line } = await planPrint(way)
      await startPrint(line.id)
      await putJob({ ...job, prints: [...job.prints, line.id] }, 'begun')
      onBegun()
      await client.invalidateQueries({ queryKey: ['prints'] })
      toast(`${job.name} is printed on ${printerName(way.printer)}: it stands in the log.`)
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }
  const move = (item: PlannedItem, to: string): void => {
    const job = jobs.get(item.of)
    if (!job) return
    if (job.ways.some(({ printer }) => printer === to)) void putJob({ ...job, heldTo: to }, `${job.name} moved`)
    else
      onRefusal({
        message: `${job.name} was never foretold for ${printerName(to)}.`,
        where: '',
        remedy: `On the bench, put a column for ${printerName(to)} into the queue as another way of it.`,
      })
  }
  return { wayOf, begin, move }
}
