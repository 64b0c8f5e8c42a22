import { plateOfCopies, platesOf } from '@sable/contract/plates'
import type { FrozenPrint } from '@sable/contract/prints'
import type { QueueJob } from '@sable/contract/queues'
import type { Shelf } from '@sable/contract/shelf'
import type { PlannedItem, QueuePlan } from '@sable/core/queue/plan'
import { takesOf } from '@sable/core/queue/queue'
import { useQueryClient } from '@tanstack/react-query'
import { toast } from 'sonner'
import { asRefusal } from '../api/asRefusal'
import { planPrint, startPrint } from '../api/prints'
import type { Refusal } from '../ui/Notice'
import type { Target } from './Lanes'
import { plateWith } from './plateWith'

interface Of {
  readonly plan: QueuePlan | undefined
  readonly jobs: ReadonlyMap<string, QueueJob>
  readonly now: Date
  readonly shelf: Shelf
  readonly putJob: (job: QueueJob, what: string) => Promise<void>
  readonly onBegun: () => void
  readonly onRefusal: (refusal: Refusal) => void
}

/** What is done with a bar: it is begun, and stands in the log; or it is moved to another printer or along the clock. */
export function useMoves({ plan, jobs, now, shelf, putJob, onBegun, onRefusal }: Of) {
  const client = useQueryClient()
  const printerName = (key: string): string => shelf.printers.find((one) => one.key === key)?.name ?? key
  const begin = async (item: PlannedItem): Promise<void> => {
    const job = jobs.get(item.of)
    const way = job?.ways[item.as.way ?? 0]
    if (!job || !way || !plan) return
    const copies = plateWith(item, plan).length
    try {
      const { line } = await planPrint(asPrinted(way, item, copies, shelf))
      await startPrint(line.id)
      const onPlate = copies > 1 ? { ...job.onPlate, [line.id]: copies } : job.onPlate
      await putJob({ ...job, prints: [...job.prints, line.id], onPlate }, 'begun')
      onBegun()
      await client.invalidateQueries({ queryKey: ['prints'] })
      toast(
        `${job.name} is printed on ${printerName(way.printer)}${copies > 1 ? `, ${copies} copies on one plate` : ''}: it stands in the log.`,
      )
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }
  const move = (item: PlannedItem, { printer, startsAt }: Target): void => {
    const job = jobs.get(item.of)
    if (!job) return
    if (printer !== undefined && !job.ways.some((way) => way.printer === printer)) {
      onRefusal({
        message: `${job.name} was never foretold for ${printerName(printer)}.`,
        where: '',
        remedy: `On the bench, put a column for ${printerName(printer)} into the queue as another way of it.`,
      })
      return
    }
    const held = printer === undefined ? job : { ...job, heldTo: printer }
    void putJob(startsAt === undefined ? held : movedTo(held, item, startsAt, now), `${job.name} moved`)
  }
  return { begin, move }
}

/** A job that is put off until a moment, or wished for earlier: whichever lies in that direction. */
export function movedTo(job: QueueJob, item: PlannedItem, startsAt: number, now: Date): QueueJob {
  const { notBefore, wishedBy: _, ...rest } = job
  const at = (minute: number): string => new Date(now.getTime() + 60_000 * minute).toISOString()
  if (startsAt > item.startsAt) return { ...rest, notBefore: at(startsAt) }
  const wishedBy = at(startsAt + item.endsAt - item.startsAt)
  return { ...rest, ...(notBefore !== undefined && notBefore <= at(startsAt) ? { notBefore } : {}), wishedBy }
}

/** A way as it goes into the log: off the reel that the plan has, as a plate where it is one. */
function asPrinted(way: FrozenPrint, item: PlannedItem, copies: number, shelf: Shelf): FrozenPrint {
  const [first] = takesOf(item, item.as)
  const printer = shelf.printers.find(({ key }) => key === way.printer)
  return plateOfCopies(first ? { ...way, spool: first.spool } : way, copies, platesOf(way, printer).gap)
}
