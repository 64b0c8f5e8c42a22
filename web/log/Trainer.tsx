import type { Shelf } from '@sable/contract/shelf'
import { type DrawnTower, type TowerKind, type TowerTruth, towerKinds } from '@sable/contract/trainer'
import { trialKinds } from '@sable/core/trials/kinds'
import { planTrial } from '@sable/core/trials/plan'
import { heightsOf } from '@sable/core/trials/spec/trial'
import { InputError } from '@sable/core/units/errors'
import { median } from 'd3-array'
import { useEffect, useMemo, useState } from 'react'
import { asRefusal } from '../api/asRefusal'
import { answerTower, makeTower } from '../api/trainer'
import { predictionPool } from '../predictions/predictionStore'
import { trialRequest } from '../trials/trialRequest'
import { useTrialPlace, useTrialSetup } from '../trials/useTrialPlace'
import { Button } from '../ui/Button'
import { Choices } from '../ui/Choices'
import { Notice, type Refusal } from '../ui/Notice'
import { NumberField } from '../ui/NumberField'
import { Select } from '../ui/Select'
import { SeenThingPicture } from './SeenThingPicture'
import { scores } from './trainerScores'

const asks: Readonly<Record<TowerKind, { readonly ask: string; readonly how: string; readonly isShare: boolean; readonly unit: string }>> =
  {
    temperature: {
      ask: 'Where is the middle of what prints clean?',
      how: 'Holes where it is too cold, strings where it is too hot.',
      isShare: false,
      unit: '°C',
    },
    flowLadder: {
      ask: 'At which flow does it begin to fail?',
      how: 'Dull, then full of holes. The hot end fails at the first band with holes or a little before.',
      isShare: true,
      unit: 'mm³/s',
    },
    retraction: {
      ask: 'From which pull on is it clean?',
      how: 'Strings between the columns grow fewer the more is pulled back; one or two are chance.',
      isShare: false,
      unit: 'mm',
    },
  }

/** Towers of known truth, to learn reading on: a trial's own program, printed on a machine that only its maker knows. */
export function Trainer({ shelf }: { shelf: Shelf }) {
  const [kind, setKind] = useState<TowerKind>('temperature')
  const [seed, setSeed] = useState(() => scores.next())
  const [value, setValue] = useState<number>()
  const [told, setTold] = useState<TowerTruth>()
  const [place, setPlace] = useTrialPlace(shelf)
  const tower = useTower(kind, seed, shelf, place)
  const { ask, how, isShare, unit } = asks[kind]
  const off = (of: number, truth: number): string =>
    isShare ? `${(100 * (of / truth - 1)).toFixed(0)} %` : `${(of - truth).toFixed(1)} ${unit}`
  const answer = async (): Promise<void> => {
    if (value === undefined || !tower.made) return
    const truth = await answerTower(tower.made.id, value)
    scores.add({ seed, kind, off: isShare ? Math.abs(value / truth.truth - 1) : Math.abs(value - truth.truth) })
    setTold(truth)
  }
  const next = (kindNow = kind): void => {
    setKind(kindNow)
    setSeed(Math.max(seed + 1, scores.next()))
    setValue(undefined)
    setTold(undefined)
  }
  const past = scores.all().filter((one) => one.kind === kind)
  const records = (name: 'printers' | 'spools') =>
    shelf[name].filter(({ archived }) => !archived).map((record) => ({ id: record.key, name: record.name }))
  return (
    <section aria-label="Trainer" className="flex min-h-0 flex-1">
      <div className="min-h-0 min-w-0 flex-1 overflow-hidden p-4">
        {tower.made ? (
          <SeenThingPicture thing={tower.made.thing} name={`${trialKinds[kind].name} tower`} bands={tower.bands} />
        ) : tower.refusal ? (
          <Notice refusal={tower.refusal} onClose={() => next()} />
        ) : (
          <p role="status" className="grid h-full place-items-center text-muted">
            Printing a {trialKinds[kind].name.toLowerCase()} tower …
          </p>
        )}
      </div>
      <aside className="w-[25rem] shrink-0 space-y-3 overflow-auto border-l border-line p-5 text-[12.5px]">
        <Choices
          label=""
          name="Tower"
          of={towerKinds.map((id) => ({ id, name: trialKinds[id].name }))}
          value={kind}
          onChange={(id) => id && next(id)}
        />
        <div className="flex flex-wrap gap-x-4 gap-y-1.5">
          <Select label="Spool" value={place.spool} of={records('spools')} onChange={(spool) => setPlace({ spool })} />
          <Select label="Printer" value={place.printer} of={records('printers')} onChange={(printer) => setPlace({ printer })} />
        </div>
        <h2 className="text-[15px] font-semibold">{ask}</h2>
        <p className="text-muted">{how} Your trial’s own program was printed on a simulated machine; nothing here goes to your records.</p>
        <NumberField
          label="You read"
          unit={unit}
          value={value}
          problem="a number"
          onCommit={(typed) => {
            if (typed !== undefined && !(typed >= 0 && typed < 1000)) return false
            setValue(typed)
            return true
          }}
        />
        {told ? (
          <>
            <dl className="space-y-1" aria-label="The truth">
              <Line label="It is" value={`${told.truth.toFixed(1)} ${unit}`} />
              <Line label="You were off by" value={value === undefined ? '–' : off(value, told.truth)} />
              <Line label="The trial’s rule is off by" value={told.rule === undefined ? 'it tells nothing' : off(told.rule, told.truth)} />
            </dl>
            <Button tone="main" onClick={() => next()}>
              Another tower
            </Button>
          </>
        ) : (
          <Button tone="main" disabled={value === undefined || !tower.made} onClick={() => void answer()}>
            How far off is it?
          </Button>
        )}
        {past.length > 0 && <Past off={past.map((one) => one.off)} isShare={isShare} unit={unit} />}
      </aside>
    </section>
  )
}

/** A tower of a kind, planned for a place, printed elsewhere. */
function useTower(kind: TowerKind, seed: number, shelf: Shelf, place: ReturnType<typeof useTrialPlace>[0]) {
  const setups = useTrialSetup(place, shelf)
  const planned = useMemo(() => {
    if (!setups) return undefined
    try {
      const { spec } = planTrial(kind, setups.setup)
      return { spec, request: trialRequest(spec, setups.setup) }
    } catch (error) {
      if (error instanceof InputError) return { refusal: asRefusal(error) }
      throw error
    }
  }, [kind, setups])
  const [found, setFound] = useState<{ readonly of?: string; readonly made?: DrawnTower; readonly refusal?: Refusal }>({})
  const key = `${kind} ${seed} ${place.printer} ${place.spool} ${place.nozzle}`
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key says all that the plan says.
  useEffect(() => {
    if (!planned?.request) return
    let wanted = true
    const { spec, request } = planned
    const bands = spec.bands.map(({ value = 0 }, i) => ({ value, ...heightsOf(spec, i) }))
    predictionPool()
      .anyWorker.writeProgram(request)
      .then((program) => makeTower(seed, kind, bands, program as Blob))
      .then((made) => wanted && setFound({ of: key, made }))
      .catch((error: unknown) => wanted && setFound({ of: key, refusal: asRefusal(error) }))
    return () => {
      wanted = false
    }
  }, [key])
  const bands = planned?.spec?.bands.map(({ label }, i) => ({ label, ...heightsOf(planned.spec, i) })) ?? []
  const current = found.of === key ? found : {}
  return { bands, made: current.made, refusal: planned?.refusal ?? current.refusal }
}

const Line = ({ label, value }: { label: string; value: string }) => (
  <div className="flex justify-between border-b border-line/60 py-0.5">
    <dt className="text-muted">{label}</dt>
    <dd className="figure">{value}</dd>
  </div>
)

/** How the reader has come on: the middle of the first towers against that of the last. */
function Past({ off, isShare, unit }: { off: readonly number[]; isShare: boolean; unit: string }) {
  const shown = (value: number): string => (isShare ? `${Math.round(100 * value)} %` : `${value.toFixed(1)} ${unit}`)
  const some = Math.min(5, off.length)
  return (
    <p className="text-muted">
      {off.length} {off.length === 1 ? 'tower' : 'towers'} read; off by{' '}
      <span className="figure text-ink">{shown(median(off.slice(-some))!)}</span> of late
      {off.length > some && (
        <>
          , by <span className="figure">{shown(median(off.slice(0, some))!)}</span> at first
        </>
      )}
      .
    </p>
  )
}
