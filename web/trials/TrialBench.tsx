import type { Shelf } from '@sable/contract/shelf'
import type { Trial, Trials } from '@sable/contract/trials'
import { changesBy } from '@sable/core/doubt/changes'
import type { Setup } from '@sable/core/setup/resolve'
import { foretoldOf } from '@sable/core/trials/foretoldOf'
import { type PlannedTrial, planTrial, refusalOf, type TrialChoice } from '@sable/core/trials/plan'
import type { TrialAnswers } from '@sable/core/trials/read'
import { sinceLast } from '@sable/core/trials/sinceLast'
import type { TrialSpec } from '@sable/core/trials/spec/trial'
import type { Advice, NextTrial } from '@sable/core/trials/table/kind'
import type { Rung, Tally } from '@sable/core/trials/tally'
import { InputError } from '@sable/core/units/errors'
import { useQueryClient } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { asRefusal } from '../api/asRefusal'
import { shelfQuery } from '../api/shelf'
import { addReading, addTrial, removeTrial, setLeftOut, trialsQuery } from '../api/trials'
import { HelpButton } from '../handbook/HelpButton'
import { Button } from '../ui/Button'
import { dayOf } from '../ui/dates'
import { Notice, type Refusal } from '../ui/Notice'
import { markOf } from './bandMark'
import { KeptReadings } from './KeptReadings'
import { MovedFigures } from './MovedFigures'
import { PlanPanel } from './PlanPanel'
import { PrintBefore, printBefore } from './PrintBefore'
import { ReadPanel } from './ReadPanel'
import { solvedBar } from './solvedBar'
import { ThingDrawing } from './ThingDrawing'
import { TrialPhotos } from './TrialPhotos'
import { trialRequest } from './trialRequest'
import { useOpenOnBench } from './useOpenOnBench'
import { usePlanned } from './usePlanned'
import type { TrialPlaceChoice } from './useTrialPlace'
import { useWriteAdvice } from './useWriteAdvice'

const noAnswers: TrialAnswers = { bands: [], whole: {} }

/** One kind of trial for one spool: the thing in the middle, beside it its plan, its reading and what was read. */
export function TrialBench({
  shelf,
  trials,
  place,
  setups: { setup, plain },
  rung,
  unread,
  tally,
  onPlace,
}: {
  shelf: Shelf
  trials: Trials
  place: TrialPlaceChoice
  setups: { readonly setup: Setup; readonly plain: Setup }
  rung: Rung
  unread: readonly Trial[]
  tally: Tally
  onPlace: (change: Partial<TrialPlaceChoice>) => void
}) {
  const { kind } = rung
  const queries = useQueryClient()
  const [choice, setChoice] = useState<TrialChoice>(() => {
    const { next } = tally
    return next?.kind === kind.id ? choiceOf(next) : {}
  })
  const [answers, setAnswers] = useState(noAnswers)
  const [active, setActive] = useState(0)
  const [refusal, setRefusal] = useState<Refusal>()
  const [told, setTold] = useState<string>()
  const open = trials.trials.find(({ id }) => id === place.trial)
  const plan = useMemo(() => planOf(kind.id, setup, choice), [kind.id, setup, choice])
  const lastPrint = rung.readings[0]?.reading
  const alsoChanged = 'spec' in plan && lastPrint ? sinceLast(lastPrint, { spec: plan.spec, nozzle: place.nozzle }) : []
  const spec = open?.spec ?? ('spec' in plan ? plan.spec : undefined)
  const request = useMemo(() => (spec && kind.shape ? trialRequest(spec, setup) : undefined), [spec, kind, setup])
  const planned = usePlanned(request)
  const write = useWriteAdvice(shelf)
  const openOnBench = useOpenOnBench()
  const material = setup.material.key
  const maker = setup.spool?.maker
  const here = useMemo(
    () => ({ printer: place.printer, nozzle: place.nozzle, material, spool: place.spool, maker }),
    [place.printer, place.nozzle, material, place.spool, maker],
  )

  const attempt = async (work: () => Promise<unknown>): Promise<void> => {
    try {
      setRefusal(undefined)
      setTold(undefined)
      await work()
    } catch (error) {
      setRefusal(asRefusal(error))
    }
  }
  /** All that is known may have changed: trials, and what setups learn from them. */
  const refresh = (): Promise<unknown> =>
    Promise.all([queries.invalidateQueries(trialsQuery), queries.invalidateQueries({ queryKey: shelfQuery.queryKey })])
  const make = (insisted: string | undefined): Promise<void> =>
    attempt(async () => {
      if (!spec) return
      const { printer, nozzle, spool } = place
      const foretold = planned.prediction && { ...foretoldOf(spec, setup, planned.prediction), ...(await solvedBar(kind, request)) }
      const { id } = await addTrial({
        printer,
        nozzle,
        material,
        spool,
        spec,
        ...(foretold ? { foretold } : {}),
        ...(insisted === undefined ? {} : { insisted }),
      })
      await refresh()
      onPlace({ kind: kind.id, trial: id })
    })
  const keep = (note: string, by: string): Promise<void> =>
    attempt(async () => {
      if (!open) return
      await addReading({ trial: open.id, bands: answers.bands.map((one) => one ?? {}), whole: answers.whole, note, by })
      await refresh()
      setAnswers(noAnswers)
      onPlace({ kind: kind.id, trial: '' })
    })
  const answer = (digit: number): void => {
    const question = kind.questions.band.find((one) => one.as === 'choice')
    const id = question?.as === 'choice' ? question.of[digit - 1]?.id : undefined
    if (!open || !question || id === undefined || !spec) return
    const bands = Array.from({ length: Math.max(answers.bands.length, active + 1) }, (_, i) => answers.bands[i] ?? {})
    bands[active] = { ...bands[active], [question.id]: id }
    setAnswers({ ...answers, bands })
    setActive(Math.min(spec.bands.length - 1, active + 1))
  }
  const shown = open ? answers.bands : (lastLike(rung, spec)?.bands ?? [])
  const marks = (spec?.bands ?? []).map((_, i) => markOf(kind, shown[i]))
  const measured = ['front', 'back', 'height'].flatMap((id) =>
    open && typeof answers.whole[id] === 'number' ? [answers.whole[id] as number] : [],
  )
  const doWrite = (advice: readonly Advice[]): Promise<void> =>
    attempt(async () => {
      setTold(await write(advice, setup))
    })

  return (
    <>
      <section aria-label={`${kind.name} trial`} className="flex min-w-0 flex-1 flex-col">
        <div className="shrink-0 px-4 pt-3">
          <h2 className="flex items-center gap-1 text-[15px] font-semibold">
            {kind.name}
            <HelpButton of={`trial/${kind.id}`} name={kind.name} />
          </h2>
          <p className="text-[12.5px] text-muted">It tells {kind.tells}.</p>
        </div>
        {refusal && (
          <div className="px-4 pt-2">
            <Notice refusal={refusal} onClose={() => setRefusal(undefined)} />
          </div>
        )}
        {spec && planned.mesh ? (
          // One above the other: prints of a band or two are low and wide.
          <div className="flex min-h-0 flex-1 flex-col">
            {open && <PrintBefore rung={rung} open={open} setup={setup} active={active} onActive={setActive} />}
            <div className="flex min-h-0 flex-1 flex-col">
              <ThingDrawing
                kind={kind}
                spec={spec}
                mesh={planned.mesh}
                marks={marks}
                measured={measured}
                active={active}
                isWhole={open !== undefined && printBefore(rung, open) !== undefined}
                onActive={setActive}
                onDigit={answer}
              />
            </div>
          </div>
        ) : (
          <p className="m-auto max-w-sm p-8 text-center text-muted">{kind.shape ? (planned.failed ?? 'Making the thing …') : kind.how}</p>
        )}
      </section>
      <aside aria-label="Plan and reading" className="w-[25rem] shrink-0 space-y-3 overflow-auto border-l border-line p-4">
        {told !== undefined && (
          <p role="status" className="flex items-center gap-2 border-l-2 border-lantern pl-2 text-[12px]">
            <span className="flex-1">{told}</span>
            <Button className="h-6" onClick={() => void attempt(() => write.undo())}>
              Undo
            </Button>
          </p>
        )}
        {open && spec ? (
          <>
            <div className="flex items-baseline gap-2">
              <h3 className="flex-1 text-[13.5px] font-semibold">Read the print of {dayOf(open.madeAt)}</h3>
              <Button className="h-6" onClick={() => onPlace({ kind: kind.id, trial: '' })}>
                Later
              </Button>
            </div>
            <TrialPhotos trial={open.id} photos={trials.photos} attempt={attempt} />
            <ReadPanel
              kind={kind}
              spec={spec}
              setup={setup}
              plain={plain}
              before={shelf.evidence}
              foretold={open.foretold}
              place={here}
              answers={answers}
              active={active}
              onAnswers={setAnswers}
              onKeep={(note, by) => void keep(note, by)}
            />
          </>
        ) : (
          <>
            <PlanPanel
              kind={kind}
              setup={setup}
              choice={choice}
              plan={plan}
              request={request}
              planned={planned}
              alsoChanged={alsoChanged}
              refusal={'spec' in plan ? refusalOf(plan.spec, setup) : undefined}
              onChoice={setChoice}
              onMake={(insisted) => void make(insisted)}
              onBench={() => spec && request && void attempt(() => openOnBench(kind, spec, request, place))}
            />
            <KeptReadings
              rung={rung}
              unread={unread}
              readings={trials.readings}
              photosOf={(trial) => <TrialPhotos trial={trial} photos={trials.photos} attempt={attempt} />}
              setup={setup}
              changesOf={(id) => changesOf(id, trials, shelf, plain, here)}
              onRead={(trial) => onPlace({ kind: kind.id, trial })}
              onRemove={(trial) => void attempt(async () => queries.setQueryData(trialsQuery.queryKey, await removeTrial(trial)))}
              onLeaveOut={(reading, leftOut) =>
                void attempt(async () => {
                  await setLeftOut(reading, leftOut)
                  await refresh()
                })
              }
              onWrite={(advice) => void doWrite(advice)}
              onNext={(next) => {
                if (next.kind !== kind.id) return onPlace({ kind: next.kind, trial: '' })
                setChoice(choiceOf(next))
              }}
            />
            {rung.readings.some(({ reading }) => !reading.leftOut) && <MovedFigures shelf={shelf} place={place} />}
          </>
        )}
      </aside>
    </>
  )
}

const choiceOf = ({ range, values, form, bands }: NextTrial): TrialChoice => ({ range, values, form, bands })

function planOf(id: Rung['kind']['id'], setup: Setup, choice: TrialChoice): PlannedTrial | { readonly problem: string } {
  try {
    return planTrial(id, setup, choice)
  } catch (error) {
    if (error instanceof InputError) return { problem: error.sentence }
    throw error
  }
}

/** The last reading of the same bands: it stays in sight until the next. */
const lastLike = ({ readings }: Rung, spec: TrialSpec | undefined) =>
  readings.find(({ reading }) => !reading.leftOut && spec !== undefined && labelsOf(reading.spec) === labelsOf(spec))?.reading

const labelsOf = ({ bands }: TrialSpec): string => bands.map(({ label }) => label).join(' ')

/** What one kept reading changed, with all the others before it. */
function changesOf(
  id: string,
  { trials, readings }: Trials,
  shelf: Shelf,
  plain: Setup,
  here: Omit<Shelf['evidence'][number], 'evidence' | 'from' | 'reading'>,
) {
  const reading = readings.find((one) => one.id === id)
  const trial = trials.find((one) => one.id === reading?.trial)
  if (!reading || !trial || reading.evidence.length === 0) return []
  const others = shelf.evidence.filter((one) => one.reading !== id)
  return changesBy(plain, others, { ...here, printer: trial.printer, nozzle: trial.nozzle, evidence: reading.evidence, from: '' })
}
