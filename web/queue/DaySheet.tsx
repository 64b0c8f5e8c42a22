import type { StoredQueue } from '@sable/contract/queues'
import type { Shelf } from '@sable/contract/shelf'
import type { PlannedItem } from '@sable/core/queue/plan'
import { takesOf } from '@sable/core/queue/queue'
import { useQuery } from '@tanstack/react-query'
import { group } from 'd3-array'
import { useEffect, useMemo } from 'react'
import { useParams } from 'react-router'
import { queuesQuery } from '../api/queues'
import { shelfQuery } from '../api/shelf'
import { clockOf, dayOf } from '../ui/dates'
import { Loading } from '../ui/Loading'
import { PaperPage, PaperPlace } from '../ui/PaperPage'
import { usePlans } from './usePlans'
import { useQueueNow } from './useQueueNow'

/** A plan on paper, day by day: when somebody has to be where, and what to do there. */
export function DaySheet() {
  const { queueId } = useParams()
  const queues = useQuery(queuesQuery)
  const shelf = useQuery(shelfQuery)
  useEffect(() => {
    document.title = 'Day sheet · Sable Lantern'
  }, [])
  const stored = queues.data?.find(({ id }) => id === queueId)
  if (!queues.data || !shelf.data) return <Loading what="the queue" failed={queues.failureReason ?? shelf.failureReason} />
  if (!stored) return <p className="m-auto p-10 text-muted">There is no such queue any more.</p>
  return (
    <PaperPlace label="Day sheet">
      <Days stored={stored} shelf={shelf.data} />
    </PaperPlace>
  )
}

function Days({ stored, shelf }: { stored: StoredQueue; shelf: Shelf }) {
  const { now, queue, isThere } = useQueueNow(stored, shelf)
  const asked = useMemo(() => (isThere ? [{ id: 'now', queue }] : []), [isThere, queue])
  const plan = usePlans(asked).plans.get('now')
  if (!plan) return <Loading what="the plan" failed={null} />
  const at = (minute: number): Date => new Date(now.getTime() + 60_000 * minute)
  const nameOf = (records: readonly { readonly key: string; readonly name: string }[], key: string): string =>
    records.find((one) => one.key === key)?.name ?? key
  const jobOf = (item: PlannedItem) => stored.jobs.find(({ id }) => id === item.of)
  const days = group(plan.items, (item) => dayOf(at(item.setUpAt)))
  return (
    <PaperPage title={stored.name} aside={`as planned ${dayOf(now)}, ${clockOf(now)}`}>
      {[...days].map(([day, items]) => (
        <section key={day} aria-label={day} className="mb-3">
          <h2 className="text-[13px] font-semibold">{day}</h2>
          <table className="w-full">
            <thead className="text-left">
              <tr>
                {['Be there', 'Starts', 'Printer', 'What', 'With', 'Ends, four in five', 'Done'].map((label) => (
                  <th key={label} scope="col" className="pr-2 font-normal whitespace-nowrap">
                    {label}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {items.map((item) => {
                const { nozzle } = item.as
                const reels = takesOf(item, item.as).map((take) => nameOf(shelf.spools, take.spool))
                const job = jobOf(item)
                return (
                  <tr key={`${item.of} ${item.copy}`} className="border-t border-[#1d1916]/25 align-baseline">
                    <td className="figure pr-2 text-[10.5px] whitespace-nowrap">{item.isOnPlate ? '' : clockOf(at(item.setUpAt))}</td>
                    <td className="figure pr-2 text-[10.5px] whitespace-nowrap">{clockOf(at(item.startsAt))}</td>
                    <td className="pr-2 whitespace-nowrap">{nameOf(shelf.printers, item.on)}</td>
                    <td className="pr-2">
                      {job?.name}
                      {(job?.copies ?? 1) > 1 && `, copy ${item.copy + 1}`}
                    </td>
                    <td className="pr-2">
                      {[
                        ...(reels.length === 0 ? [] : [reels.join(', then ')]),
                        ...(nozzle === undefined ? [] : [nameOf(shelf.nozzles, nozzle)]),
                      ].join(', ')}
                    </td>
                    <td className="figure pr-2 text-[10.5px] whitespace-nowrap">
                      {clockOf(at(item.low))} to {clockOf(at(item.high))}
                    </td>
                    <td>☐</td>
                  </tr>
                )
              })}
            </tbody>
          </table>
        </section>
      ))}
      {plan.refused.map(({ job, why }) => (
        <p key={job}>
          {stored.jobs.find(({ id }) => id === job)?.name ?? job}: {why}
        </p>
      ))}
      <p className="mt-2">
        Never start a machine that nobody is with, nor leave the first print of a profile alone. Have a smoke alarm, and nothing near that
        burns.
      </p>
    </PaperPage>
  )
}
