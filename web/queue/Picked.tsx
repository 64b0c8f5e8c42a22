import type { QueueJob } from '@sable/contract/queues'
import type { PlannedItem } from '@sable/core/queue/plan'
import { takesOf } from '@sable/core/queue/queue'
import { formatDuration } from '@sable/core/units/format'
import { X } from 'lucide-react'
import { Button } from '../ui/Button'
import { momentOf } from '../ui/dates'

/** The bar that was picked: when it is to start and end, with what, what its job is held to, and the way into the log. */
export function Picked({
  item,
  plate,
  job,
  now,
  printerName,
  spoolName,
  isBusy,
  onBegin,
  onChange,
}: {
  item: PlannedItem
  /** Copies that stand on one plate with it, it among them, in their order. */
  plate: readonly PlannedItem[]
  job: QueueJob
  now: Date
  printerName: (key: string) => string
  spoolName: (key: string) => string
  /** Something runs on its printer. */
  isBusy: boolean
  onBegin: () => void
  onChange: (job: QueueJob) => void
}) {
  const at = (minute: number): string => momentOf(new Date(now.getTime() + 60_000 * minute).toISOString())
  const [first, last] = [plate[0] ?? item, plate.at(-1) ?? item]
  const reels = [...new Set(plate.flatMap((one) => takesOf(one, one.as).map(({ spool }) => spoolName(spool))))]
  const held = ([name, words]: readonly [keyof QueueJob, string]) => (
    <button
      key={name}
      type="button"
      onClick={() => {
        const { [name]: _, ...rest } = job
        onChange(rest as QueueJob)
      }}
      title="Take this back"
      className="flex items-center gap-1 rounded border border-line px-1.5 py-0.5 text-[12px]"
    >
      {words} <X className="size-3" aria-hidden />
    </button>
  )
  return (
    <section
      aria-label="Picked"
      className="flex flex-wrap items-center gap-x-5 gap-y-1 border-y border-line bg-raised/50 px-3 py-2 text-[12.5px]"
    >
      <p className="font-medium">
        {job.name}
        {job.copies > 1 && (
          <span className="font-normal text-muted">
            {plate.length > 1 ? ` copies ${first.copy + 1} to ${last.copy + 1}, one plate` : ` copy ${item.copy + 1}`}
          </span>
        )}
      </p>
      <p>
        <span className="text-muted">on</span> {printerName(item.on)}
        {reels.length > 0 && `, ${reels.join(', then ')}`}
      </p>
      {first.startsAt - first.setUpAt > 0.5 && (
        <p>
          <span className="text-muted">made ready from</span> <span className="figure">{at(first.setUpAt)}</span>
        </p>
      )}
      <p>
        <span className="text-muted">starts</span> <span className="figure">{at(first.startsAt)}</span>
      </p>
      <p>
        <span className="text-muted">ends</span> <span className="figure">{at(last.endsAt)}</span>{' '}
        <span className="text-muted">
          {at(last.low)} to {at(last.high)}
        </span>
      </p>
      <p className="text-muted">{formatDuration(60 * (last.endsAt - first.startsAt))}</p>
      {(
        [
          ...(job.heldTo === undefined ? [] : [['heldTo', `held to ${printerName(job.heldTo)}`] as const]),
          ...(job.notBefore === undefined ? [] : [['notBefore', `not before ${momentOf(job.notBefore)}`] as const]),
          ...(job.wishedBy === undefined ? [] : [['wishedBy', `wished for by ${momentOf(job.wishedBy)}`] as const]),
        ] as const
      ).map(held)}
      <div className="flex-1" />
      <Button tone="main" disabled={isBusy} onClick={onBegin} title={isBusy ? `${printerName(item.on)} prints something else.` : undefined}>
        {plate.length > 1 ? 'The plate starts now' : 'It starts now'}
      </Button>
    </section>
  )
}
