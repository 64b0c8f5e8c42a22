import type { QueueJob } from '@sable/contract/queues'
import type { PlannedItem } from '@sable/core/queue/plan'
import { formatDuration } from '@sable/core/units/format'
import { Button } from '../ui/Button'
import { momentOf } from '../ui/dates'

/** The bar that was picked: when it is to start and end, with what, and the way into the log. */
export function Picked({
  item,
  job,
  now,
  printerName,
  spoolName,
  isBusy,
  onBegin,
}: {
  item: PlannedItem
  job: QueueJob
  now: Date
  printerName: string
  spoolName: string
  /** Something runs on its printer. */
  isBusy: boolean
  onBegin: () => void
}) {
  const at = (minute: number): string => momentOf(new Date(now.getTime() + 60_000 * minute).toISOString())
  return (
    <section
      aria-label="Picked"
      className="flex flex-wrap items-center gap-x-5 gap-y-1 border-y border-line bg-raised/50 px-3 py-2 text-[12.5px]"
    >
      <p className="font-medium">
        {job.name}
        {job.copies > 1 && <span className="font-normal text-muted"> copy {item.copy + 1}</span>}
      </p>
      <p>
        <span className="text-muted">on</span> {printerName}, {spoolName}
      </p>
      {item.startsAt - item.setUpAt > 0.5 && (
        <p>
          <span className="text-muted">made ready from</span> <span className="figure">{at(item.setUpAt)}</span>
        </p>
      )}
      <p>
        <span className="text-muted">starts</span> <span className="figure">{at(item.startsAt)}</span>
      </p>
      <p>
        <span className="text-muted">ends</span> <span className="figure">{at(item.endsAt)}</span>{' '}
        <span className="text-muted">
          {at(item.low)} to {at(item.high)}
        </span>
      </p>
      <p className="text-muted">{formatDuration(60 * (item.endsAt - item.startsAt))}</p>
      <div className="flex-1" />
      <Button tone="main" disabled={isBusy} onClick={onBegin} title={isBusy ? `${printerName} prints something else.` : undefined}>
        It starts now
      </Button>
    </section>
  )
}
