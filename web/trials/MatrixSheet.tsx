import { type Shelf, setupOf } from '@sable/contract/shelf'
import { kindsInOrder } from '@sable/core/trials/kinds'
import type { TrialKindId } from '@sable/core/trials/spec/trial'
import { type ReadTrial, retestedAfterNozzle, tallyOf } from '@sable/core/trials/tally'
import clsx from 'clsx'
import { useMemo, useState } from 'react'
import { Sheet } from '../ui/Dialog'
import { dayOf } from '../ui/dates'
import { Select } from '../ui/Select'
import { today } from '../ui/today'
import type { TrialPlaceChoice } from './useTrialPlace'

const signs = { unknown: '', record: '', known: '●', old: '○', contradicts: '≠' } as const

/** Results of one kind over printers and spools, the last reading first; a cell opens it. */
export function MatrixSheet({
  shelf,
  read,
  nozzle,
  first,
  onOpen,
  onClose,
}: {
  shelf: Shelf
  read: readonly ReadTrial[]
  nozzle: string
  first: TrialKindId
  onOpen: (place: Pick<TrialPlaceChoice, 'spool' | 'printer' | 'kind'>) => void
  onClose: () => void
}) {
  // The kind in hand, unless nobody has read one of it anywhere.
  const [kind, setKind] = useState<TrialKindId>(() =>
    read.some(({ spec }) => spec.kind === first) ? first : (read[0]?.spec.kind ?? first),
  )
  const printers = shelf.printers.filter(({ archived }) => !archived)
  const spools = shelf.spools.filter(({ archived, empty }) => !archived && !empty)
  const rows = useMemo(
    () =>
      spools.map((spool) => ({
        spool,
        cells: printers.map((printer) => {
          const setup = setupOf({ printer: printer.key, nozzle, material: spool.material, spool: spool.key }, shelf, today())
          return { printer, rung: setup && tallyOf(read, setup).rungs.find((one) => one.kind.id === kind) }
        }),
      })),
    [spools, printers, nozzle, shelf, read, kind],
  )
  const name = shelf.nozzles.find(({ key }) => key === nozzle)?.name ?? nozzle
  return (
    <Sheet title="What is known, on each printer, of each spool" onClose={onClose} width="w-[58rem]">
      <div className="mb-3 flex items-center gap-4 text-[12px]">
        <Select label="Trial" value={kind} of={kindsInOrder.map(({ id, name: label }) => ({ id, name: label }))} onChange={setKind} />
        <span className="text-muted">with {name}</span>
        <span className="ml-auto text-muted">● known · ○ old · ≠ contradicts</span>
      </div>
      <table className="w-full table-fixed text-[12.5px]">
        <thead>
          <tr className="border-b border-strong">
            <th className="w-56 py-1 text-left font-normal text-muted">Spool</th>
            {printers.map(({ key, name: label }) => (
              <th key={key} className="px-2 text-left font-semibold">
                {label}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ spool, cells }) => (
            <tr key={spool.key} className="border-b border-line">
              <th className="py-1.5 pr-2 text-left align-top font-normal">
                {spool.name}
                {spool.maker !== undefined && <span className="block text-[12px] text-muted">{spool.maker}</span>}
              </th>
              {cells.map(({ printer, rung }) => {
                const last = rung?.readings.find(({ reading, outcome }) => !reading.leftOut && outcome.short !== undefined)
                const state = rung?.state ?? 'unknown'
                return (
                  <td key={printer.key} className="px-2 py-1 align-top">
                    <button
                      type="button"
                      onClick={() => onOpen({ spool: spool.key, printer: printer.key, kind })}
                      aria-label={`${spool.name} on ${printer.name}: ${last ? `${last.outcome.short}, ${state}` : 'unknown'}`}
                      data-hint={rung?.why}
                      className={clsx(
                        'figure min-h-6 w-full rounded px-1 py-0.5 text-left hover:bg-line',
                        state === 'known' ? 'text-lantern-ink' : state === 'contradicts' ? 'text-worse' : 'text-muted',
                      )}
                    >
                      {last ? `${signs[state]} ${last.outcome.short}` : (rung?.record ?? '—')}
                      {state === 'contradicts' && <span className="block text-[12px] whitespace-normal">{rung?.why}</span>}
                      {last && state !== 'contradicts' && (
                        <span className="block text-[12px] text-muted">{dayOf(last.reading.readAt)}</span>
                      )}
                    </button>
                  </td>
                )
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-3 text-[12px] text-muted">
        After a change of nozzle these are tried again:{' '}
        {retestedAfterNozzle.map((id) => kindsInOrder.find((one) => one.id === id)?.name.toLowerCase()).join(', ')}.
      </p>
    </Sheet>
  )
}
