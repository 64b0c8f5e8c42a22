import type { Candidate } from '@sable/contract/lineup'
import { type Lever, leversFor } from '@sable/core/advice/levers'
import type { ConstantId } from '@sable/core/constants/constants'
import { doubt, doubtsOf, rangeOf } from '@sable/core/doubt/doubt'
import { figureOf } from '@sable/core/figures/figures'
import type { FigureId, FigureRow } from '@sable/core/figures/table/figure'
import { bySections } from '@sable/core/figures/table/stated'
import type { Prediction } from '@sable/core/pipeline/predict'
import { knownSetup } from '@sable/core/setup/knownSetup'
import { kindsInOrder } from '@sable/core/trials/kinds'
import { signed } from '@sable/core/units/format'
import * as Comlink from 'comlink'
import { type ReactNode, useEffect, useMemo, useRef, useState } from 'react'
import { Link } from 'react-router'
import { useBench } from '../../desk/bench'
import { edit } from '../../desk/deskStore'
import { setValues } from '../../desk/edits'
import { HelpButton } from '../../handbook/HelpButton'
import { predictionPool, requestFor, useForecasts } from '../../predictions/predictionStore'
import { useDoubts } from '../../predictions/useDoubts'
import { trialAddress } from '../../trials/trialAddress'
import { Button } from '../../ui/Button'
import { inMoney } from '../../ui/currency'
import { Drawer } from '../../ui/Drawer'

interface Props {
  readonly figure: FigureId
  readonly candidate: Candidate
  readonly onClose: () => void
}

/** Why a figure is what it is: its model with this candidate's numbers, how sure it is, and what would move it. */
export function WhyDrawer({ figure, candidate, onClose }: Props) {
  const { content, part, shelf } = useBench()
  const prediction = useForecasts((all) => all[candidate.id]?.prediction)
  const request = useMemo(() => requestFor(candidate, content, part, shelf), [candidate, content, part, shelf])
  const row = figureOf[figure]
  const requests = useMemo(() => (request ? [request] : []), [request])
  const { found, share } = useDoubts(requests, content.purpose)
  const title = `${row.label} of ${candidate.name}`
  if (!prediction || !request) {
    return (
      <Drawer title={title} onClose={onClose}>
        <p className="text-muted">There is no figure yet.</p>
      </Drawer>
    )
  }
  const { value, text, unit: plainUnit } = row.of(prediction, content.purpose)
  const unit = inMoney(plainUnit)
  const told = row.explain(prediction, knownSetup(request.setup), content.purpose)
  const scale = value === 0 ? 0 : Number(text.replace(',', '.')) / value
  // As finely as the figure itself is told.
  const decimals = text.split('.')[1]?.length ?? 0
  const shown = (v: number): string => (v * scale).toFixed(decimals)
  const [doubtful] = found
  const by = doubtful && doubt(figure, doubtful)
  return (
    <Drawer title={title} onClose={onClose}>
      <p className="flex items-baseline gap-2">
        <span className="figure text-[22px] font-semibold">{text}</span>
        <span className="text-muted">{unit}</span>
        <HelpButton of={`figure/${figure}`} name={row.label} />
        {value > 0 && by !== undefined && (
          <span className="figure ml-auto text-[12px] text-muted" data-hint="Four times in five">
            {Number.isFinite(scale) ? `80 %: ${rangeOf(value, by).map(shown).join(' to ')} ${unit}` : `± ${Math.round(100 * by)} %`}
          </span>
        )}
      </p>
      <Section title="Worked out as">
        <p className="figure rounded-md bg-sunk px-2 py-1.5 text-[12px]">{told.equation}</p>
        <dl className="mt-2">
          {told.terms.map(({ label, value }) => (
            <div key={label} className="flex justify-between gap-4 border-b border-line/60 py-1 text-[12.5px]">
              <dt className="text-muted">{label}</dt>
              <dd className="figure text-right">{inMoney(value)}</dd>
            </div>
          ))}
        </dl>
        <p className="mt-2 text-[12.5px]">{told.place}</p>
      </Section>
      <Section title="How sure">
        <p className="text-[12.5px]">
          {told.basis === 'measured'
            ? 'Rests on what you have measured.'
            : told.basis === 'calculated'
              ? 'Calculated.'
              : 'Rests on assumed numbers.'}{' '}
          <span className="text-muted">{told.source}</span>
        </p>
        {share !== undefined && (
          <p role="status" className="mt-1.5 text-[12.5px] text-muted">
            Moving each constant to see what it does: {Math.round(100 * share)} %
          </p>
        )}
        <ul className="mt-1.5 space-y-0.5 text-[12.5px]">
          {(doubtful ? doubtsOf(figure, doubtful) : []).map(({ id, label, share, from }) => (
            <li key={label} className="flex justify-between gap-4">
              <span className="text-muted">
                <TrialLink constant={id} candidate={candidate}>
                  {label}
                </TrialLink>
                {from !== undefined && <span className="block text-[12px] text-lantern-ink">by {from}</span>}
              </span>
              <span className="figure">± {Math.round(100 * share)} %</span>
            </li>
          ))}
        </ul>
      </Section>
      <Section title="What would move it">
        <Levers row={row} candidate={candidate} prediction={prediction} />
      </Section>
    </Drawer>
  )
}

/** Leads to the trial that reads a constant, where there is one. */
function TrialLink({ constant, candidate, children }: { constant: ConstantId; candidate: Candidate; children: ReactNode }) {
  const kind = kindsInOrder.find(({ narrows, shape }) => shape && narrows.includes(constant))
  if (!kind) return children
  return (
    <Link to={trialAddress(kind.id, candidate)} className="underline decoration-line underline-offset-2 hover:text-lantern-ink">
      {children}
    </Link>
  )
}

const Section = ({ title, children }: { title: string; children: React.ReactNode }) => (
  <section className="mt-4">
    <h3 className="mb-1.5 text-[12px] font-semibold text-lantern-ink">{title}</h3>
    {children}
  </section>
)

interface Tried {
  readonly lever: Lever
  readonly prediction: Prediction
}

/** Single changes, each really computed, the most telling first. */
function Levers({
  row,
  candidate,
  prediction: whole,
}: Omit<Props, 'figure' | 'onClose'> & { readonly row: FigureRow; readonly prediction: Prediction }) {
  const { content, part, shelf } = useBench()
  // What is tried is not solved, so that it is not held against what is.
  const prediction = useMemo((): Prediction => bySections(whole), [whole])
  const [tried, setTried] = useState<readonly Tried[]>([])
  const [running, setRunning] = useState<{ readonly of: number } | undefined>()
  const stop = useRef<Int32Array>(undefined)
  const cancel = (): void => {
    if (stop.current) Atomics.store(stop.current, 0, 1)
    setRunning(undefined)
  }
  // What was tried belongs to the figures that it was tried against.
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new prediction is what makes old trials void.
  useEffect(() => {
    setTried([])
    return cancel
  }, [prediction])
  const run = async (): Promise<void> => {
    const request = requestFor(candidate, content, part, shelf)
    if (!request) return
    const levers = leversFor(prediction.settings)
    const own = new Int32Array(new SharedArrayBuffer(4))
    stop.current = own
    setTried([])
    setRunning({ of: levers.length })
    const onEach = Comlink.proxy((lever: Lever, found: Prediction) => {
      if (Atomics.load(own, 0) === 0) setTried((before) => [...before, { lever, prediction: found }])
    })
    try {
      await predictionPool().anyWorker.tryLevers(request, levers, own, onEach)
    } finally {
      if (Atomics.load(own, 0) === 0) setRunning(undefined)
    }
  }
  const now = row.of(prediction, content.purpose).value
  const rows = tried
    .map(({ lever, prediction: p }) => ({
      lever,
      change: now === 0 ? 0 : row.of(p, content.purpose).value / now - 1,
      gained: row.of(p, content.purpose).value - now,
      minutes: (p.timeS - prediction.timeS) / 60,
      grams: p.filament.massG - prediction.filament.massG,
    }))
    .filter(({ change }) => Math.abs(change) >= 0.005)
    .sort((a, b) => Math.abs(b.change) - Math.abs(a.change))
  const isForce = row.base === 'N'
  const isCompared = row.id !== 'strength' || whole.solved === undefined
  return (
    <>
      {!isCompared && <p className="mb-1 text-[12px] text-muted">Changes are weighed by sections; in Load they are solved.</p>}
      {running ? (
        <div role="status" className="mb-2 flex items-center gap-2 text-[12.5px] text-muted">
          <span className="flex-1">
            Computing {tried.length} of {running.of} changes …
          </span>
          <Button onClick={cancel}>Cancel</Button>
        </div>
      ) : (
        tried.length === 0 && <Button onClick={() => void run()}>Try single changes</Button>
      )}
      {rows.length > 0 && (
        <table className="w-full text-[12.5px]">
          <thead>
            <tr className="text-right text-[12px] text-muted">
              <th className="text-left font-normal">change</th>
              <th className="font-normal">figure</th>
              <th className="font-normal">min</th>
              <th className="font-normal">g</th>
              {isForce && <th className="font-normal">N/min</th>}
              {isForce && <th className="font-normal">N/g</th>}
              <th />
            </tr>
          </thead>
          <tbody>
            {rows.map(({ lever, change, gained, minutes, grams }) => (
              <tr key={lever.label} className="border-t border-line/60">
                <td className="py-1">{lever.label}</td>
                <td className={`figure text-right ${toneOf(change, row)}`}>{signed(100 * change, 0)} %</td>
                <td className="figure text-right text-muted">{signed(minutes, 1)}</td>
                <td className="figure text-right text-muted">{signed(grams, 1)}</td>
                {isForce && <td className="figure text-right">{minutes > 0.05 && gained > 0 ? (gained / minutes).toFixed(1) : '–'}</td>}
                {isForce && <td className="figure text-right">{grams > 0.05 && gained > 0 ? (gained / grams).toFixed(1) : '–'}</td>}
                <td className="w-16 pl-2 text-right">
                  <Button className="h-6 px-1.5" onClick={() => edit((before) => setValues(before, candidate.id, lever.values))}>
                    Apply
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {!running && tried.length > 0 && rows.length === 0 && (
        <p className="text-[12.5px] text-muted">None of {tried.length} changes moves it.</p>
      )}
    </>
  )
}

const toneOf = (change: number, { better, taste }: FigureRow): string =>
  taste ? '' : change < 0 === (better === 'less') ? 'text-better' : 'text-worse'
