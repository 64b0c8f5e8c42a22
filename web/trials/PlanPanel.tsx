import type { Setup } from '@sable/core/setup/resolve'
import { headOf } from '@sable/core/trials/headOf'
import type { PlannedTrial, TrialChoice } from '@sable/core/trials/plan'
import type { TrialKind } from '@sable/core/trials/table/kind'
import { formatDuration } from '@sable/core/units/format'
import { useState } from 'react'
import { predictionPool } from '../predictions/predictionStore'
import type { PredictRequest } from '../predictions/worker/request'
import { Button } from '../ui/Button'
import { Checkbox } from '../ui/Checkbox'
import { download, fileNameFrom } from '../ui/download'
import { BandsForm } from './BandsForm'
import type { Planned } from './usePlanned'

/** A trial that takes longer than this is worth a word, s. */
const LONG_S = 3600

/** A trial before it is printed: its bands, what it costs, what to beware of, and how to take it to the machine. */
export function PlanPanel({
  kind,
  setup,
  choice,
  plan,
  request,
  planned,
  refusal,
  alsoChanged,
  onChoice,
  onMake,
  onBench,
}: {
  kind: TrialKind
  setup: Setup
  choice: TrialChoice
  plan: PlannedTrial | { readonly problem: string }
  request: PredictRequest | undefined
  planned: Planned
  refusal: string | undefined
  /** What is other than at the last print of this kind, beside what its bands vary. */
  alsoChanged: readonly string[]
  onChoice: (choice: TrialChoice) => void
  onMake: (insisted: string | undefined) => void
  onBench: () => void
}) {
  const [insists, setInsists] = useState(false)
  const { prediction } = planned
  const isPlan = 'spec' in plan
  const ready = isPlan && (refusal === undefined || insists)
  const warned = prediction?.checks.filter(({ severity }) => severity !== 'note') ?? []
  return (
    <section aria-label="Plan" className="space-y-3">
      <BandsForm kind={kind} setup={setup} choice={choice} onChoice={onChoice} />
      {!isPlan && (
        <p role="alert" className="border-l-2 border-stop pl-2 text-[12px] text-stop">
          {plan.problem}
        </p>
      )}
      {isPlan && kind.shape && (
        <p className="flex items-baseline gap-3" role="status">
          {prediction ? (
            <>
              <span className="figure text-[17px] font-semibold">{formatDuration(prediction.timeS)}</span>
              <span>
                <span className="figure">{prediction.filament.massG.toFixed(1)}</span> <span className="text-muted">g</span>
              </span>
              <span className="text-muted">{plan.spec.bands.length > 1 ? `${plan.spec.bands.length} bands` : 'one thing'}</span>
            </>
          ) : (
            <span className="text-muted">{planned.failed ?? 'Laying its lines …'}</span>
          )}
        </p>
      )}
      {prediction && prediction.timeS > LONG_S && (
        <p className="text-[12px] text-muted">
          More than an hour{isPlan && plan.spec.bands.length > 1 ? ': fewer bands would do, or a coarser step.' : '.'}
        </p>
      )}
      {isPlan &&
        plan.notes.map((note) => (
          <p key={note} className="text-[12px] text-muted">
            {note}
          </p>
        ))}
      {alsoChanged.length > 0 && (
        <p className="border-l-2 border-worse pl-2 text-[12px] text-worse">
          Since the last print more than its bands changed: {alsoChanged.join(', ')}.
        </p>
      )}
      {refusal !== undefined && (
        <div className="border-l-2 border-worse pl-2 text-[12px]">
          <p className="text-worse">{refusal}</p>
          <Checkbox checked={insists} onChange={setInsists} className="mt-1 text-muted">
            Print it all the same; that is kept with it
          </Checkbox>
        </div>
      )}
      {kind.shape && (
        <div className="flex flex-wrap gap-2">
          <Button tone="main" disabled={!ready || !prediction} onClick={() => onMake(insists ? refusal : undefined)}>
            I print this
          </Button>
          {request && isPlan && (
            <Files request={request} head={headOf(plan.spec, setup)} name={kind.name} disabled={!ready || !prediction} />
          )}
          <Button disabled={!ready || !prediction} onClick={onBench}>
            On the bench
          </Button>
        </div>
      )}
      {!kind.shape && (
        <Button tone="main" onClick={() => onMake(undefined)}>
          Answer it
        </Button>
      )}
      <div className="border-t border-line pt-2 text-[12px] text-muted">
        <p>{kind.how}</p>
        {kind.cautions?.(setup).map((caution) => (
          <p key={caution} className="mt-1 text-worse">
            {caution}
          </p>
        ))}
        {warned.length > 0 && (
          <ul className="mt-2 space-y-1">
            {warned.map(({ id, message }) => (
              <li key={id} className="border-l-2 border-line pl-2">
                {message}
              </li>
            ))}
          </ul>
        )}
      </div>
    </section>
  )
}

/** The thing and its program as files. */
function Files({ request, head, name, disabled }: { request: PredictRequest; head: readonly string[]; name: string; disabled: boolean }) {
  const stem = fileNameFrom(`${name} trial`)
  const save = async (kind: 'stl' | '3mf' | 'gcode'): Promise<void> => {
    const worker = predictionPool().anyWorker
    const blob = kind === 'gcode' ? await worker.writeProgram(request, head) : await worker.writeModel(request, kind, name)
    download(`${stem}.${kind}`, blob as Blob)
  }
  return (
    <>
      {(['gcode', 'stl', '3mf'] as const).map((kind) => (
        <Button key={kind} disabled={disabled} onClick={() => void save(kind)}>
          {{ gcode: 'G-code', stl: 'STL', '3mf': '3MF' }[kind]}
        </Button>
      ))}
    </>
  )
}
