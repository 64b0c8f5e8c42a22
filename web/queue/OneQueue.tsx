import type { QueueContent, StoredQueue } from '@sable/contract/queues'
import { type Hours, hourVariants } from '@sable/contract/queueVariants'
import type { Shelf } from '@sable/contract/shelf'
import type { PlannedItem } from '@sable/core/queue/plan'
import type { Queue } from '@sable/core/queue/queue'
import { nameOfTwin, whatIf } from '@sable/core/queue/whatIf'
import { useMemo, useState } from 'react'
import { momentOf } from '../ui/dates'
import { download, fileNameFrom } from '../ui/download'
import type { Refusal } from '../ui/Notice'
import { useAddress } from '../ui/useAddress'
import { ClockField } from './ClockField'
import { planCalendar } from './calendar'
import { JobRows } from './JobRows'
import { keyOfItem, type Lane, Lanes, LanesKey } from './Lanes'
import { Picked } from './Picked'
import { planCsv } from './planCsv'
import { plateWith } from './plateWith'
import { QueueHead, zooms } from './QueueHead'
import { Reels } from './Reels'
import { SettingsPanel } from './SettingsPanel'
import { Summary } from './Summary'
import { useEdits } from './useEdits'
import { useMoves } from './useMoves'
import { usePlans } from './usePlans'
import { useQueueNow } from './useQueueNow'
import { useWhatMoved } from './useWhatMoved'
import { WhatIf } from './WhatIf'
import { WhatMoved } from './WhatMoved'
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
  const [shown, setShown] = useState<readonly string[]>([])
  const [there, setThere] = useState<Hours>({ from: '07:00', to: '22:00' })
  const content: QueueContent = stored
  const printerName = (key: string): string => shelf.printers.find((one) => one.key === key)?.name ?? key
  const spoolName = (key: string): string => shelf.spools.find((one) => one.key === key)?.name ?? key
  const variants = useMemo(() => {
    const own = whatIf(queue, (key) => shelf.printers.find((one) => one.key === key)?.name ?? key)
    return own.length === 0 ? [] : [...own, ...hourVariants(queue, there, now)]
  }, [queue, shelf, there, now])
  const asked = useMemo(() => (isThere ? [{ id: 'now', queue }, ...variants] : []), [isThere, queue, variants])
  const { plans, share } = usePlans(asked)
  const plan = plans.get('now')
  const { moved, read } = useWhatMoved(stored.id, plan, { content, lines }, now, printerName)
  const jobs = new Map(content.jobs.map((job) => [job.id, job]))
  const jobName = (id: string): string => jobs.get(id)?.name ?? id
  const { put, putJob, dropJob, undo, past } = useEdits(stored, onWrite)
  const { begin, move } = useMoves({ plan, jobs, now, shelf, putJob, onBegun: () => setPicked(undefined), onRefusal })
  const zoom = zooms.find(({ id }) => id === get('hours'))?.id ?? '48'
  const at = (minute: number): string => momentOf(new Date(now.getTime() + 60_000 * minute).toISOString())
  const item = plan?.items.find((one) => keyOfItem(one) === picked)
  const name = fileNameFrom(content.name)
  const running = [...lines.values()].filter(({ state }) => state === 'running')
  const lanesOf = (of: Queue): Lane[] =>
    of.printers.map(({ key, freeAt = 0 }) => {
      const line = running.find((one) => one.printer === key)
      return { key, name: nameOfTwin(key, printerName), ...(line ? { running: { name: line.name, minutes: freeAt } } : {}) }
    })
  const barName = ({ of, copy }: PlannedItem, withCopy: boolean): string =>
    `${jobName(of)}${withCopy && (jobs.get(of)?.copies ?? 1) > 1 ? ` ${copy + 1}` : ''}`
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
      {plan && <Summary plan={plan} jobName={jobName} at={at} />}
      {moved && <WhatMoved told={moved} jobName={jobName} printerName={printerName} onRead={read} />}
      {plan && (
        <>
          <Lanes
            label="Lanes"
            plan={plan}
            lanes={lanesOf(queue)}
            now={now}
            hours={Number(zoom)}
            queue={queue}
            nameOf={barName}
            spoolName={spoolName}
            picked={picked}
            onPick={(one) => setPicked(keyOfItem(one))}
            onMove={move}
          />
          <LanesKey hasPresence={queue.presence !== undefined} hasQuiet={queue.quiet !== undefined} />
        </>
      )}
      {plan && item && jobs.get(item.of) && (
        <Picked
          item={item}
          plate={plateWith(item, plan)}
          job={jobs.get(item.of)!}
          now={now}
          printerName={printerName}
          spoolName={spoolName}
          isBusy={running.some(({ printer }) => printer === item.on)}
          onBegin={() => void begin(item)}
          onChange={(job) => void putJob(job, job.name)}
        />
      )}
      <div className="space-y-5 px-3 py-3">
        {content.jobs.length === 0 ? (
          <p className="text-muted">No job yet. On the bench, “Print it …” in a column’s menu has “Into the queue”.</p>
        ) : (
          <JobRows
            content={content}
            lines={lines}
            plan={plan}
            now={now}
            machines={shelf.printers}
            printerName={printerName}
            onChange={(job) => void putJob(job, job.name)}
            onRemove={(job) => void dropJob(job)}
          />
        )}
        {plan && (
          <Reels
            uses={plan.spools}
            spools={shelf.spools}
            content={content}
            jobOf={jobName}
            onChange={(more, what) => void put(more, what)}
          />
        )}
        <SettingsPanel content={content} shelf={shelf} onChange={(more, what) => void put(more, what)} />
        {plan && plan.items.length > 0 && (
          <WhatIf variants={variants} plans={plans} end={plan.makespan} momentAt={at} shown={shown} onShow={setShown}>
            <span className="flex items-center gap-1.5 text-[12px] text-muted">
              somebody there from
              <ClockField name="what if somebody is there from" value={there.from} onChange={(from) => setThere({ ...there, from })} />
              to
              <ClockField name="what if somebody is there to" value={there.to} onChange={(to) => setThere({ ...there, to })} />
            </span>
          </WhatIf>
        )}
        {variants
          .filter(({ id }) => shown.includes(id))
          .map(({ id, words, queue: other }) => (
            <section key={id} aria-label={`If ${words}`}>
              <h4 className="text-[12.5px] text-muted">If {words}</h4>
              {plans.get(id) ? (
                <Lanes
                  label={`Lanes if ${words}`}
                  plan={plans.get(id)!}
                  lanes={lanesOf(other)}
                  now={now}
                  hours={Number(zoom)}
                  queue={other}
                  nameOf={barName}
                  spoolName={spoolName}
                />
              ) : (
                <p role="status" className="text-[12px] text-muted">
                  Planning …
                </p>
              )}
            </section>
          ))}
      </div>
    </div>
  )
}
