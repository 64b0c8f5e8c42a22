import type { Candidate } from '@sable/contract/lineup'
import { type Lever, leversFor } from '@sable/core/advice/levers'
import { statedLoad } from '@sable/core/figures/table/stated'
import type { Prediction } from '@sable/core/pipeline/predict'
import { rankingVoxel, solvedKey } from '@sable/core/pipeline/solvedWork'
import type { SettingName } from '@sable/core/profile/settings'
import { signed } from '@sable/core/units/format'
import { useMemo } from 'react'
import { useBench } from '../../desk/bench'
import { edit } from '../../desk/deskStore'
import { setValues } from '../../desk/edits'
import { keyOf, requestFor } from '../../predictions/predictionStore'
import { type ToSolve, useSolvedEach } from '../../predictions/useSolvedEach'
import { useTried } from '../../predictions/useTried'
import { Button } from '../../ui/Button'

/** Settings that a person turns to for strength. */
const strengthening: readonly SettingName[] = [
  'wallCount',
  'topLayers',
  'infillDensity',
  'infillPattern',
  'layerHeight',
  'nozzleTemperature',
  'fanSpeed',
  'minLayerTime',
]

interface Gain {
  readonly lever: Lever
  readonly newtons: number
  readonly minutes: number
  readonly grams: number
}

interface Props {
  readonly candidate: Candidate
  readonly prediction: Prediction
  /** Each by finite elements, on cells no wider than a line; by sections otherwise. */
  readonly isSolved?: boolean
}

const none: readonly ToSolve[] = []

/** What single changes give for each minute and gram that they add, each really computed. */
export function Gains({ candidate, prediction, isSolved = false }: Props) {
  const { content, part, shelf } = useBench()
  const request = useMemo(() => requestFor(candidate, content, part, shelf), [candidate, content, part, shelf])
  const key = request && keyOf(request)
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key says all that request and settings say.
  const levers = useMemo(() => leversFor(prediction.settings).filter(({ name }) => strengthening.includes(name)), [key, prediction])
  // biome-ignore lint/correctness/useExhaustiveDependencies: the list must stay the same for as long as it says the same.
  const requests = useMemo(
    () => (request ? levers.map(({ values }) => ({ ...request, values: { ...request.values, ...values } })) : []),
    [key, levers],
  )
  const tried = useTried(requests)
  const { purpose } = content
  const voxelMm = rankingVoxel(prediction.settings)
  // The candidate itself first, on the same cells.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the list must stay the same for as long as it says the same.
  const solving = useMemo(
    () => (isSolved && request ? [request, ...requests].map((one): ToSolve => ({ request: one, purpose, voxelMm })) : none),
    [isSolved, requests, solvedKey(purpose), voxelMm],
  )
  const solved = useSolvedEach(solving)
  const newtonsOf = (p: Prediction, i: number): number | undefined => {
    if (!isSolved) return statedLoad(p, purpose).loadN
    const one = solved[i]
    return one && 'solved' in one ? one.solved.failureN : undefined
  }
  const now = newtonsOf(prediction, 0)
  const gains = levers
    .flatMap((lever, i): Gain[] => {
      const p = tried[i]?.prediction
      if (!p) return []
      const own = newtonsOf(p, i + 1)
      if (now === undefined || own === undefined) return []
      const newtons = own - now
      const minutes = (p.timeS - prediction.timeS) / 60
      return Math.abs(newtons) < 0.005 * now ? [] : [{ lever, newtons, minutes, grams: p.filament.massG - prediction.filament.massG }]
    })
    .filter(({ newtons }) => newtons > 0)
    .sort((a, b) => worth(b) - worth(a))
  const done = requests.filter(
    (_, i) => tried[i] !== undefined && (!isSolved || (solved[0] !== undefined && solved[i + 1] !== undefined)),
  ).length
  const most = Math.max(0, ...gains.map(worth).filter(Number.isFinite))
  return (
    <section aria-label="Newtons for a minute and a gram" className="min-h-0">
      <h3 className="flex justify-between text-[12.5px] font-semibold">
        What a stronger {candidate.name} costs
        {done < requests.length && (
          <span role="status" className="figure font-normal text-muted">
            {done} of {requests.length}
          </span>
        )}
      </h3>
      <table className="mt-1 w-full text-[12px]">
        <thead>
          <tr className="text-right text-[12px] text-muted">
            <th className="text-left font-normal">change</th>
            <th className={`font-normal ${isSolved ? 'w-11' : 'w-14'}`}>N</th>
            <th className={`font-normal ${isSolved ? 'w-11' : 'w-14'}`}>min</th>
            <th className={`font-normal ${isSolved ? 'w-24' : 'w-[7.5rem]'}`}>N for a minute</th>
            {!isSolved && <th className="w-16 font-normal">N for a g</th>}
            <th className="w-16" />
          </tr>
        </thead>
        <tbody>
          {gains.map((gain) => {
            const { lever, newtons, minutes, grams } = gain
            return (
              <tr key={lever.label} className="border-t border-line/60">
                <td className="py-0.5">{lever.label}</td>
                <td className="figure text-right text-better">{signed(newtons, newtons < 10 ? 1 : 0)}</td>
                <td className="figure text-right text-muted">{signed(minutes, 1)}</td>
                <td className="relative text-right">
                  {Number.isFinite(worth(gain)) ? (
                    <>
                      <span
                        aria-hidden
                        className="absolute inset-y-[5px] right-10 rounded-sm bg-better/60"
                        style={{ width: `calc((100% - 3rem) * ${most > 0 ? worth(gain) / most : 0})` }}
                      />
                      <span className="figure">{worth(gain).toFixed(1)}</span>
                    </>
                  ) : (
                    <span className="text-muted">no time</span>
                  )}
                </td>
                {!isSolved && <td className="figure text-right">{grams > 0.05 ? (newtons / grams).toFixed(1) : '–'}</td>}
                <td className="text-right">
                  <Button
                    className="h-5 px-1.5 text-[12px]"
                    onClick={() => edit((before) => setValues(before, candidate.id, lever.values))}
                  >
                    Apply
                  </Button>
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
      {done === requests.length && gains.length === 0 && (
        <p className="mt-1 text-[12px] text-muted">No single change makes it stronger under this load.</p>
      )}
    </section>
  )
}

/** Newtons for an added minute; without end where none is added. */
const worth = ({ newtons, minutes }: Gain): number => (minutes > 0.05 ? newtons / minutes : Infinity)
