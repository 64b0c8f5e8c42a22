import type { Candidate } from '@sable/contract/lineup'
import { wholeCases } from '@sable/core/physics/strength/pickedCases'
import type { Prediction } from '@sable/core/pipeline/predict'
import { settings as definitions, type SettingName } from '@sable/core/profile/settings'
import { MOST_WEIGHED } from '@sable/core/search/leastTime'
import { formatDuration, formatForce, inWords } from '@sable/core/units/format'
import { useMemo, useState } from 'react'
import { useBench } from '../../desk/bench'
import { edit } from '../../desk/deskStore'
import { addCandidate, nextName } from '../../desk/edits'
import { requestFor } from '../../predictions/predictionStore'
import { Button } from '../../ui/Button'
import { NumberField } from '../../ui/NumberField'
import { useLeastTime } from './useLeastTime'

/** The profile that bears the load in the least time: searched with the solver inside, and made a column. */
export function LeastTimePanel({ candidate, prediction }: { candidate: Candidate; prediction: Prediction }) {
  const { content, part, shelf } = useBench()
  const { purpose, candidates } = content
  const isPicked = wholeCases(purpose).length > 0
  const request = useMemo(() => requestFor(candidate, content, part, shelf), [candidate, content, part, shelf])
  const [wanted, setWanted] = useState<number | undefined>(isPicked ? 1 : purpose.limits.minLoadN)
  const { state, run, cancel } = useLeastTime(request, prediction.settings, purpose)
  const shown = (value: number): string => (isPicked ? `${value.toFixed(2)} × its loads` : formatForce(value))
  const { found, fine } = state ?? {}
  const keep = (): void => {
    if (!found) return
    const name = nextName(
      'least time',
      candidates.map((one) => one.name),
    )
    edit((before) =>
      addCandidate(before, {
        ...candidate,
        id: crypto.randomUUID(),
        name: candidates.some((one) => one.name === 'least time') ? name : 'least time',
        values: { ...candidate.values, ...found.proposal.values },
        overrides: [...candidate.overrides, ...found.proposal.overrides],
      }),
    )
  }
  return (
    <section aria-label="Least time" className="text-[12.5px]">
      <h3 className="font-semibold">Least time that bears it</h3>
      <div className="mt-1 flex items-center gap-2">
        <span className="flex-1">
          <NumberField
            label={`From ${candidate.name}, bears`}
            name="Load to be borne"
            unit={isPicked ? '×' : 'N'}
            value={wanted}
            width="w-20"
            onCommit={(value) => {
              if (value !== undefined && !(value > 0)) return false
              setWanted(value)
              return true
            }}
          />
        </span>
        {state && !found && state.failed === undefined ? (
          <Button onClick={cancel}>Stop</Button>
        ) : (
          <Button disabled={wanted === undefined || !request} onClick={() => wanted !== undefined && void run(wanted)}>
            Search
          </Button>
        )}
      </div>
      {state && !found && state.failed === undefined && (
        <p role="status" className="mt-1 text-[12px] text-muted">
          {state.weighed} of at most {MOST_WEIGHED} weighed{state.best !== undefined && `; best so far ${formatDuration(state.best)}`}
        </p>
      )}
      {state?.failed !== undefined && (
        <p role="alert" className="mt-1 text-stop">
          {state.failed}
        </p>
      )}
      {found && (
        <div className="mt-1 space-y-1">
          <p>
            {found.bears ? (
              <>
                <span className="figure font-medium">{formatDuration(found.weighed.timeS)}</span>, bears {shown(found.weighed.loadN)}
                {fine !== undefined && `; ${shown(fine)} on cells no wider than a line`}.
              </>
            ) : Number.isNaN(found.weighed.timeS) ? (
              'It cannot be printed as it is.'
            ) : (
              `Nothing that was tried bears so much: ${shown(found.weighed.loadN)} at most, in ${formatDuration(found.weighed.timeS)}.`
            )}
          </p>
          {fine !== undefined && wanted !== undefined && found.bears && fine < wanted && (
            <p className="text-stop">On the finer cells it misses what is wanted; ask for a little more.</p>
          )}
          <ul className="text-[12px] text-muted">
            {Object.entries(found.proposal.values).map(([name, value]) => (
              <li key={name}>
                {definitions[name as SettingName].label} {String(prediction.settings[name as SettingName])} →{' '}
                {typeof value === 'string' ? inWords(value) : value}
              </li>
            ))}
            {found.proposal.overrides.map((one) => (
              <li key={one.name}>
                {one.name}: {one.values.wallCount} walls, {one.values.infillDensity} % {one.values.infillPattern}
              </li>
            ))}
            {Object.keys(found.proposal.values).length === 0 && found.proposal.overrides.length === 0 && <li>The profile as it is.</li>}
          </ul>
          <Button tone="main" onClick={keep}>
            Make it a column
          </Button>
        </div>
      )}
    </section>
  )
}
