import type { Candidate } from '@sable/contract/lineup'
import { setupOf } from '@sable/contract/shelf'
import { limiterReasons, limiters } from '@sable/core/motion/limiters'
import type { Prediction } from '@sable/core/pipeline/predict'
import type { Setup } from '@sable/core/setup/resolve'
import { hybrids } from '@sable/core/shelf/hybrids'
import type { Printer } from '@sable/core/shelf/printer'
import { formatDuration, signedPercent } from '@sable/core/units/format'
import { useMemo, useState } from 'react'
import { useBench } from '../../desk/bench'
import { edit } from '../../desk/deskStore'
import { addCandidate, nextName } from '../../desk/edits'
import { requestFor } from '../../predictions/predictionStore'
import { useTried } from '../../predictions/useTried'
import type { PredictRequest } from '../../predictions/worker/request'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Dialog'

interface Props {
  readonly candidate: Candidate
  readonly onClose: () => void
}

/** The same profile on every printer of the shelf, and which limits make the difference to its own. */
export function EachPrinterSheet({ candidate, onClose }: Props) {
  const { content, part, shelf } = useBench()
  const own = useMemo(() => setupOf(candidate, shelf), [candidate, shelf])
  const printers = useMemo(
    () => [
      ...shelf.printers.filter(({ key }) => key === candidate.printer),
      ...shelf.printers.filter(({ key, archived }) => key !== candidate.printer && !archived),
    ],
    [shelf, candidate.printer],
  )
  const request = useMemo(() => requestFor(candidate, content, part, shelf), [candidate, content, part, shelf])
  const requests = useMemo(
    () => (own && request ? printers.map((printer) => ({ ...request, setup: { ...own, printer } })) : []),
    [own, printers, request],
  )
  const found = useTried(requests)
  const [compared, setCompared] = useState<string>()
  const other = printers.find(({ key }) => key === compared)
  const base = found[0]?.prediction?.timeS
  const add = (printer: Printer): void => {
    edit((before) =>
      addCandidate(before, {
        ...candidate,
        id: crypto.randomUUID(),
        name: nextName(
          candidate.name,
          before.candidates.map(({ name }) => name),
        ),
        printer: printer.key,
      }),
    )
    onClose()
  }
  return (
    <Sheet title={`${candidate.name} on each printer`} onClose={onClose}>
      <table className="w-full text-[12.5px]">
        <thead>
          <tr className="text-left text-[12px] text-muted">
            <th className="pb-1 font-normal">Printer</th>
            <th className="pb-1 text-right font-normal">Time</th>
            <th className="pb-1 text-right font-normal">against it</th>
            <th className="pb-1 pl-4 font-normal">Of the laying, most</th>
            <th className="pb-1" />
          </tr>
        </thead>
        <tbody>
          {printers.map((printer, i) => {
            const tried = found[i]
            const prediction = tried?.prediction
            return (
              <tr key={printer.key} className="border-t border-line/60">
                <td className="py-1.5">{printer.name}</td>
                <td className="figure text-right">{prediction ? formatDuration(prediction.timeS) : tried ? 'cannot print it' : '…'}</td>
                <td className="figure text-right text-muted">
                  {i > 0 && prediction && base !== undefined ? signedPercent(prediction.timeS / base - 1) : ''}
                </td>
                <td className="pl-4 text-muted">{prediction && mostHeld(prediction)}</td>
                <td className="space-x-1 text-right whitespace-nowrap">
                  {i > 0 && prediction && (
                    <>
                      <Button className="h-6 px-1.5" onClick={() => setCompared(printer.key)}>
                        Why
                      </Button>
                      <Button className="h-6 px-1.5" onClick={() => add(printer)}>
                        As a column
                      </Button>
                    </>
                  )}
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
      {other && own && request && base !== undefined && (
        <Difference key={other.key} request={request} own={own} other={other} base={base} />
      )}
    </Sheet>
  )
}

/** What each group of the other printer's limits alone would change. */
function Difference({ request, own, other, base }: { request: PredictRequest; own: Setup; other: Printer; base: number }) {
  const groups = useMemo(() => hybrids(own.printer, other), [own, other])
  const requests = useMemo(() => groups.map(({ printer }) => ({ ...request, setup: { ...own, printer } })), [own, groups, request])
  const found = useTried(requests)
  const rows = groups
    .map(({ label }, i) => ({ label, seconds: found[i]?.prediction && found[i].prediction.timeS - base }))
    .sort((a, b) => Math.abs(b.seconds ?? 0) - Math.abs(a.seconds ?? 0))
  const most = Math.max(1, ...rows.map(({ seconds = 0 }) => Math.abs(seconds)))
  return (
    <section className="mt-5 border-t border-line pt-3">
      <h3 className="text-[12.5px] font-semibold text-lantern-ink">
        {own.printer.name} with one group of {other.name}’s limits at a time
      </h3>
      <ul className="mt-1.5 space-y-1">
        {rows.map(({ label, seconds }) => (
          <li key={label} className="grid grid-cols-[11rem_7rem_1fr] items-center gap-3 text-[12.5px]">
            <span>{label}</span>
            <span className="figure text-right">
              {seconds === undefined
                ? '…'
                : Math.abs(seconds) < 1
                  ? 'nothing'
                  : `${seconds < 0 ? '−' : '+'}${formatDuration(Math.abs(seconds))}`}
            </span>
            <span aria-hidden className="h-1.5">
              <span
                className={`block h-full rounded ${(seconds ?? 0) < 0 ? 'bg-better/70' : 'bg-worse/70'}`}
                style={{ width: `${(100 * Math.abs(seconds ?? 0)) / most}%` }}
              />
            </span>
          </li>
        ))}
      </ul>
      <p className="mt-2 text-[12px] text-muted">
        Each is computed by itself. Together they do not add up to the whole: what one limit lets go, the next one holds.
      </p>
    </section>
  )
}

function mostHeld({ limiters: shares }: Prediction): string {
  const most = limiters.reduce((a, b) => (shares[b] > shares[a] ? b : a))
  return `${Math.round(100 * shares[most])} % ${limiterReasons[most]}`
}
