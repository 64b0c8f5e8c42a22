import type { PrintLine } from '@sable/contract/prints'
import type { Shelf } from '@sable/contract/shelf'
import { lookBack, type PastGroup } from '@sable/core/log/lookBack'
import { Download } from 'lucide-react'
import { useMemo, useState } from 'react'
import { Button } from '../ui/Button'
import { Choices } from '../ui/Choices'
import { toCsv } from '../ui/csv'
import { inMoney } from '../ui/currency'
import { download } from '../ui/download'
import { namesOf } from './namesOf'
import { type Measure, OffChart, pointsOf } from './OffChart'
import { PrintTrail } from './PrintTrail'

const groupings = [
  { id: 'profile', name: 'profile' },
  { id: 'printer', name: 'printer' },
  { id: 'spool', name: 'spool' },
  { id: 'name', name: 'part' },
] as const
type Grouping = (typeof groupings)[number]['id']
const measures = [
  { id: 'time', name: 'time' },
  { id: 'mass', name: 'grams' },
] as const

/** What the prints that are listed say together. */
export function LookingBack({ lines, shelf }: { lines: readonly PrintLine[]; shelf: Shelf }) {
  const [measure, setMeasure] = useState<Measure>('time')
  const [by, setBy] = useState<Grouping>('profile')
  const [part, setPart] = useState<string>()
  const points = useMemo(() => pointsOf(lines, measure), [lines, measure])
  const groups = useMemo(() => lookBack(lines, (line) => line[by] || undefined), [lines, by])
  const nameOf = (key: string): string =>
    (by === 'printer' ? shelf.printers : by === 'spool' ? shelf.spools : []).find((record) => record.key === key)?.name ?? key
  const within = points.filter(({ off, low, high }) => off >= low && off <= high).length
  return (
    <section aria-label="Looking back" className="min-h-0 flex-1 overflow-auto px-5 py-3">
      <div className="flex items-center gap-4">
        <h2 className="text-[14px] font-semibold">Real over foretold</h2>
        <Choices label="" name="Of what" of={measures} value={measure} onChange={(id) => id && setMeasure(id)} />
        <p className="text-[12px] text-muted">
          {points.length === 0
            ? 'Nothing was timed or weighed yet.'
            : `${within} of ${points.length} within the 80 % range that was told before.`}
        </p>
        <div className="flex-1" />
        <Button onClick={() => download('prints.csv', toCsv(lines.map(asRow)), 'text/csv')}>
          <Download className="size-3.5" aria-hidden /> CSV
        </Button>
        <Button onClick={() => download('prints.json', JSON.stringify(lines, null, 2), 'application/json')}>
          <Download className="size-3.5" aria-hidden /> JSON
        </Button>
      </div>
      {points.length > 0 && <OffChart points={points} what={measure === 'time' ? 'Time' : 'Grams'} />}
      <div className="mt-4 mb-1 flex items-center gap-4">
        <h2 className="text-[14px] font-semibold">Together</h2>
        <Choices label="" name="By" of={groupings} value={by} onChange={(id) => id && setBy(id)} />
      </div>
      <Groups groups={groups} nameOf={nameOf} {...(by === 'name' ? { open: part, onOpen: setPart } : {})} />
      {by === 'name' && part !== undefined && <PrintTrail name={part} nameOf={namesOf(shelf)} />}
    </section>
  )
}

const percent = (share: number): string => `${Math.round(100 * share)}`

function Groups({
  groups,
  nameOf,
  open,
  onOpen,
}: {
  groups: readonly PastGroup[]
  nameOf: (key: string) => string
  open?: string | undefined
  /** Groups that can be opened. */
  onOpen?: (key: string) => void
}) {
  return (
    <table className="w-full text-right text-[12.5px]">
      <thead className="text-[12px] text-muted">
        <tr className="border-b border-line">
          <th />
          <th className="py-1 font-normal">prints</th>
          <th className="font-normal" data-hint="Wilson’s interval, 95 %">
            came out, %
          </th>
          <th className="font-normal">time, real/foretold</th>
          <th className="font-normal">grams, real/foretold</th>
          <th className="font-normal">hours</th>
          <th className="font-normal">grams</th>
          <th className="font-normal">lost, g</th>
          <th className="font-normal">lost, {inMoney('¤')}</th>
        </tr>
      </thead>
      <tbody className="figure">
        {groups.map(({ key, prints, success, time, mass, hours, grams, lostG, lostCost }) => (
          <tr key={key} className="border-b border-line/60">
            <th className="py-1 text-left font-sans font-normal">
              {onOpen ? (
                <button
                  type="button"
                  aria-pressed={key === open}
                  onClick={() => onOpen(key)}
                  className="min-h-6 underline decoration-line underline-offset-2 aria-pressed:text-lantern-ink"
                >
                  {nameOf(key)}
                </button>
              ) : (
                nameOf(key)
              )}
            </th>
            <td>{prints}</td>
            <td>
              {percent(success.share)}
              <span className="ml-1.5 text-[12px] text-muted">
                {percent(success.range[0])}–{percent(success.range[1])}
              </span>
            </td>
            <td>{time === undefined ? '–' : time.toFixed(3)}</td>
            <td>{mass === undefined ? '–' : mass.toFixed(3)}</td>
            <td>{hours.toFixed(1)}</td>
            <td>{grams.toFixed(0)}</td>
            <td>{lostG === 0 ? '–' : lostG.toFixed(0)}</td>
            <td>{lostCost === 0 ? '–' : lostCost.toFixed(2)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

/** A print as a row of a table, with units in the names. */
const asRow = ({ timeRange, massRange, faults, ...line }: PrintLine): Record<string, unknown> => ({
  ...line,
  timeLowS: timeRange[0],
  timeHighS: timeRange[1],
  massLowG: massRange[0],
  massHighG: massRange[1],
  faults: faults.map(({ what, atZ }) => (atZ === undefined ? what : `${what} at ${atZ} mm`)).join('; '),
})
