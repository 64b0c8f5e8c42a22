import { type Decided, decidedBy, type Weighed } from '@sable/core/doubt/decides'
import { type Measurement, whatToMeasure } from '@sable/core/doubt/doubt'
import { worthTuning } from '@sable/core/doubt/worthTuning'
import { figureOf, figures, valuesOf } from '@sable/core/figures/figures'
import { sideOf } from '@sable/core/schools/schools'
import { kindsInOrder } from '@sable/core/trials/kinds'
import { planTrial } from '@sable/core/trials/plan'
import type { TrialKind } from '@sable/core/trials/table/kind'
import { InputError } from '@sable/core/units/errors'
import { formatDuration } from '@sable/core/units/format'
import { Ruler } from 'lucide-react'
import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { useBench } from '../../desk/bench'
import { requestFor, useForecasts } from '../../predictions/predictionStore'
import { useDoubts } from '../../predictions/useDoubts'
import type { PredictRequest } from '../../predictions/worker/request'
import { trialAddress } from '../../trials/trialAddress'
import { trialRequest } from '../../trials/trialRequest'
import { useCosts } from '../../trials/useCosts'
import { Button } from '../../ui/Button'
import { NumberField } from '../../ui/NumberField'
import { Popover } from '../../ui/Popover'

/** A measurement that removes less than this share of the doubt is not worth the time. */
const WORTH = 0.01
/** Of so many the cost is worked out. */
const COSTED = 4

/** What to measure next, by how much of the doubt of this lineup it would remove and what it would decide. */
export function MeasureNext() {
  const forecasts = useForecasts()
  const { candidates } = useBench().content
  if (!candidates.some(({ id }) => forecasts[id]?.prediction)) return null
  return (
    <Popover
      label="What to measure next"
      width="w-[30rem]"
      trigger={
        <Button>
          <Ruler className="size-3.5" aria-hidden /> Measure next
        </Button>
      }
    >
      <Wanted />
    </Popover>
  )
}

/** Worked out while it is looked at. */
function Wanted() {
  const { content, part, shelf } = useBench()
  const forecasts = useForecasts()
  const requests = useMemo(
    () => content.candidates.flatMap((candidate) => requestFor(candidate, content, part, shelf) ?? []),
    [content, part, shelf],
  )
  const { found, share } = useDoubts(requests, content.purpose)
  const wanted = whatToMeasure(found.filter((one) => one !== undefined)).filter(({ removes }) => removes >= WORTH)
  const weighed = content.candidates.flatMap(({ id, name }, i): Weighed[] => {
    const [prediction, doubtful] = [forecasts[id]?.prediction, found[i]]
    if (!prediction || !doubtful) return []
    const limits = Object.fromEntries(
      figures.flatMap(({ id: figure, limit }) =>
        limit && content.purpose.limits[limit.name] !== undefined ? [[figure, content.purpose.limits[limit.name]]] : [],
      ),
    )
    return [{ name, values: valuesOf(prediction, content.purpose), doubtful, limits }]
  })
  const first = content.candidates[0]
  const towers = sideOf('S11', shelf.printers.find(({ key }) => key === first?.printer)?.schools).id
  const rows = wanted
    .map((measurement) => ({ measurement, kind: kindFor(measurement) }))
    // Who never prints towers learns from what is weighed and timed.
    .filter(({ kind }) => towers !== 'never' || kind === undefined)
  const costs = useCosts(useTrialRequests(rows.map(({ kind }) => kind).slice(0, COSTED), requests))
  return (
    <>
      {towers === 'never' && (
        <p className="mb-2 text-[12px] text-muted">You follow: no tuning towers (S11). Prints that are timed and weighed tell instead.</p>
      )}
      <p className="mb-2 text-[12px] text-muted">By how much of the doubt in this lineup’s figures it would remove.</p>
      {share !== undefined && (
        <p role="status" className="mb-2 text-[12px] text-muted">
          Moving each constant to see what it does: {Math.round(100 * share)} %
        </p>
      )}
      <ol className="max-h-72 space-y-2 overflow-auto">
        {rows.map(({ measurement, kind }, i) => (
          <Row
            key={measurement.how}
            measurement={measurement}
            kind={kind}
            cost={costs[i]}
            decides={share === undefined ? decidedBy(weighed, measurement.reads) : []}
            place={first}
          />
        ))}
      </ol>
      {rows.length > 0 && towers === 'worth' && (
        <Tuning printS={first && forecasts[first.id]?.prediction?.timeS} trialS={costs.find((one) => one !== undefined)?.timeS} />
      )}
    </>
  )
}

/** The trial that reads what a measurement reads; nothing for what is only logged. */
const kindFor = ({ reads }: Measurement): TrialKind | undefined =>
  kindsInOrder.find(({ narrows, shape }) => shape && narrows.some((id) => reads.has(id)))

/** Prints of some trials on the first column's machine. */
function useTrialRequests(kinds: readonly (TrialKind | undefined)[], [request]: readonly PredictRequest[]): (PredictRequest | undefined)[] {
  const ids = kinds.map((kind) => kind?.id ?? '').join(' ')
  // biome-ignore lint/correctness/useExhaustiveDependencies: the ids say all that the kinds say.
  return useMemo(
    () =>
      kinds.map((kind) => {
        if (!kind || !request) return undefined
        try {
          return trialRequest(planTrial(kind.id, request.setup).spec, request.setup)
        } catch (error) {
          if (error instanceof InputError) return undefined
          throw error
        }
      }),
    [ids, request],
  )
}

function Row({
  measurement: { how, label, removes },
  kind,
  cost,
  decides,
  place,
}: {
  measurement: Measurement
  kind: TrialKind | undefined
  cost: { readonly timeS: number; readonly filament: { readonly massG: number } } | undefined
  decides: readonly Decided[]
  place: { readonly printer: string; readonly nozzle: string; readonly spool?: string | undefined } | undefined
}) {
  const address = kind && place && trialAddress(kind.id, place)
  return (
    <li>
      <div className="flex items-baseline justify-between gap-4">
        {address === undefined ? (
          <span>{how}</span>
        ) : (
          <Link to={address} className="underline decoration-strong underline-offset-2 hover:text-lantern-ink">
            {how}
          </Link>
        )}
        <span className="figure text-muted">{Math.round(100 * removes)} %</span>
      </div>
      <div className="text-[12px] text-muted">
        {label}
        {cost && (
          <>
            {' · '}
            <span className="figure text-[12px]">{formatDuration(cost.timeS)}</span>,{' '}
            <span className="figure text-[12px]">{cost.filament.massG.toFixed(0)}</span> g
          </>
        )}
      </div>
      {decides.length > 0 && <div className="text-[12px] text-lantern-ink">Decides {decisionWords(decides)}</div>}
      <div aria-hidden className="mt-0.5 h-[2px] bg-lantern" style={{ width: `${Math.min(100, 300 * removes)}%` }} />
    </li>
  )
}

/** "time between everyday and quick; whether sturdy keeps its strength" */
const decisionWords = (decides: readonly Decided[]): string =>
  decides
    .slice(0, 3)
    .map((one) =>
      'between' in one
        ? `${figureOf[one.figure].noun} between ${one.between.join(' and ')}`
        : `whether ${one.limitOf} keeps its limit of ${figureOf[one.figure].noun}`,
    )
    .join('; ')

/** Whether this print is worth it: one school always tunes, the other never. */
function Tuning({ printS, trialS }: { printS: number | undefined; trialS: number | undefined }) {
  const [copies, setCopies] = useState(1)
  const [ownMin, setOwnMin] = useState(15)
  const [minuteWorth, setMinuteWorth] = useState(1)
  // Nothing is weighed before both are known.
  if (printS === undefined || trialS === undefined) return null
  const { worth, costs, brings } = worthTuning({ printS, trialS, copies, ownMin, minuteWorth })
  const field = (label: string, unit: string, value: number, set: (value: number) => void) => (
    <NumberField
      layout="above"
      label={label}
      unit={unit}
      value={value}
      width="w-14"
      onCommit={(typed) => {
        if (typed === undefined || !(typed >= 0 && typed < 1e6)) return false
        set(typed)
        return true
      }}
    />
  )
  return (
    <section aria-label="Is it worth it" className="mt-3 border-t border-line pt-2 text-[12px]">
      <div className="flex gap-2">
        {field('Copies planned', '', copies, setCopies)}
        {field('My time for a trial', 'min', ownMin, setOwnMin)}
        {field('One of mine is worth', 'of its', minuteWorth, setMinuteWorth)}
      </div>
      <p className="mt-2">
        {worth ? 'Worth a trial' : 'Basics only'}: it costs <span className="figure">{Math.round(costs)}</span> min of the machine and may
        bring <span className="figure">{Math.round(brings)}</span> (15 % of all copies, assumed).
      </p>
      <p className="text-[12px] text-muted">Some tune for every spool, others never; this weighs it for the print at hand.</p>
    </section>
  )
}
