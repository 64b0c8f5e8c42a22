import type { QueuePlan } from '@sable/core/queue/plan'
import { toCsv } from '../ui/csv'

/** A plan as rows, in the order of starting. */
export const planCsv = (
  plan: QueuePlan,
  jobName: (id: string) => string,
  printerName: (key: string) => string,
  at: (minute: number) => string,
): string =>
  toCsv([
    ['printer', 'job', 'copy', 'made ready from', 'starts', 'ends', 'ends at the earliest', 'ends at the latest', 'late, share'],
    ...plan.items.map((one) => [
      printerName(one.on),
      jobName(one.of),
      one.copy + 1,
      at(one.setUpAt),
      at(one.startsAt),
      at(one.endsAt),
      at(one.low),
      at(one.high),
      one.lateShare,
    ]),
  ])
