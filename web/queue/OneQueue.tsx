import type { QueueContent, StoredQueue } from '@sable/contract/queues'
import type { Shelf } from '@sable/contract/shelf'
import type { PlannedItem } from '@sable/core/queue/plan'
import type { Queue } from '@sable/core/queue/queue'
import { whatIf } from '@sable/core/queue/whatIf'
import { useMemo, useState } from 'react'
import { momentOf } from '../ui/dates'
import { download, fileNameFrom } from '../ui/download'
import type { Refusal } from '../ui/Notice'
import { useAddress } from '../ui/useAddress'
import { planCalendar } from './calendar'
import { JobRows } from './JobRows'
import { keyOfItem, Lanes } from './Lanes'
import { Picked } from './Picked'
import { planCsv } from './planCsv'
import { QueueHead, zooms } from './QueueHead'
import { Reels } from './Reels'
import { SettingsPanel } from './SettingsPanel'
import { Summary } from './Summary'
import { useEdits } from './useEdits'
import { useMoves } from './useMoves'
import { usePlans } from './usePlans'
import { useQueueNow } from './useQueueNow'
import { WhatIf } from './WhatIf'
import type { QueueChange } from './writeMerged'

/** One queue: its plan on the clock, its jobs, machines and hours, and what would be if something were otherwise. */
export function OneQueue({
  stored,
  shelf,
  onWrite,
  onRemove,
  onRefusal,
}: {
  stored: StoredQueue
  shelf: Shelf
  onWrite: (change: QueueChange) => Promise<void>
  onRemove: () => void
  onRefusal: (refusal: Refusal) => void
}) {
  const { get, set } = useAddress()
  const { now, lines, queue, isThere } = useQueueNow(stored, shelf)
  const [picked, setPicked] = useState<string>()
  const content: QueueContent = stored
  const printerName = (key: string): string => shelf.printers.find((one) => one.key === key)?.name ?? key
  const variants = useMemo(() => whatIf(queue, (key) => shelf.printers.find((one) => one.key === key)?.name ?? key), [queue, shelf])
  const asked = useMemo(() => (isThere ? [{ id: 'now', queue }, ...variants] : []), [isThere, queue, variants])
  const { plans, share } = usePlans(asked)
  const plan = plans.get('now')
  const jobs = new Map(content.jobs.map((job) => [job.id, job]))
  const jobName = (id: string): string => jobs.get(id)?.name ?? id
  const { put, putJob, dropJob, undo, past } = useEdits(stored, onWrite)
  const { wayOf, begin, move } = useMoves({ queue, jobs, printerName, putJob, onBegun: () => setPicked(undefined), onRefusal })
  const zoom = zooms.find(({ id }) => id === get('hours'))?.id ?? '48'
  const at = (minute: number): string => momentOf(new Date(now.getTime() + 60_000 * minute).toISOString())
  const item = plan?.items.find((one) => keyOfItem(one) === picked)
  const name = fileNameFrom(content.name)
  const running = [...lines.values()].filter(({ state }) => state === 'running')
  return (
    <div className="min-h-0 flex-1 overflow-auto">
      <QueueHead
        name={content.name}
        share={share}
        zoom={zoom}
        undoes={past.at(-1)?.what}
        isPlanned={plan !== undefined}
        onName={(to) => void put({ name: to }, 'name')}
        onZoom={(id) => set({ hours: id === '48' ? undefined : id })}
        onUndo={() => void undo()}
        onCalendar={() => plan && download(`${name}.ics`, planCalendar(plan, now, content.name, jobName, printerName), 'text/calendar')}
        sheet={`/queue/${stored.id}/sheet`}
        onCsv={() => plan && download(`${name}.csv`, planCsv(plan, jobName, printerName, at), 'text/csv')}
        onRemove={onRemove}
      />
      {plan && <Summary plan={plan} grams={gramsOf(plan.items, queue)} jobName={jobName} at={at} />}
      {plan && (
        <Lanes
          plan={plan}
          lanes={content.machines
            .filter(({ away }) => !away)
            .map(({ printer }) => {
              const line = running.find((one) => one.printer === printer)
              const free = queue.printers.find(({ key }) => key === printer)?.freeAt ?? 0
              return { key: printer, name: printerName(printer), ...(line ? { running: { name: line.name, minutes: free } } : {}) }
            })}
          now={now}
          hours={Number(zoom)}
          presence={queue.presence}
          nameOf={({ of, copy }) => `${jobs.get(of)?.name ?? of}${(jobs.get(of)?.copies ?? 1) > 1 ? ` ${copy + 1}` : ''}`}
          deadlineOf={({ job }) => queue.jobs[job]?.deadline}
          picked={picked}
          onPick={(one) => setPicked(keyOfItem(one))}
          onMove={move}
        />
      )}
      {item && jobs.get(item.of) && (
        <Picked
          item={item}
          job={jobs.get(item.of)!}
          now={now}
          printerName={printerName(item.on)}
          spoolName={shelf.spools.find(({ key }) => key === wayOf(item)?.spool)?.name ?? wayOf(item)?.material ?? ''}
          isBusy={running.some(({ printer }) => printer === item.on)}
          onBegin={() => void begin(item)}
        />
      )}
      <div className="space-y-5 px-3 py-3">
        {plan && <Reels spools={plan.spools} nameOf={(key) => shelf.spools.find((one) => one.key === key)?.name ?? key} jobOf={jobName} />}
        {content.jobs.length === 0 ? (
          <p className="text-muted">No job yet. On the bench, “Print it …” in a column’s menu has “Into the queue”.</p>
        ) : (
          <JobRows
            content={content}
            lines={lines}
            plan={plan}
            now={now}
            printerName={printerName}
            onChange={(job) => void putJob(job, job.name)}
            onRemove={(job) => void dropJob(job)}
          />
        )}
        <SettingsPanel content={content} shelf={shelf} onChange={(more, what) => void put(more, what)} />
        {plan && plan.items.length > 0 && <WhatIf variants={variants} plans={plans} end={plan.makespan} momentAt={at} />}
      </div>
    </div>
  )
}

const gramsOf = (items: readonly PlannedItem[], { jobs }: Queue): number =>
  items.reduce((sum, { job, option }) => sum + (jobs[job]?.options[option]?.grams ?? 0), 0)
