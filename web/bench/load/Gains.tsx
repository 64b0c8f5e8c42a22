import type { Candidate } from '@sable/contract/lineup'
import { type Lever, leversFor } from '@sable/core/advice/levers'
import { statedLoad } from '@sable/core/figures/table/stated'
import type { Prediction } from '@sable/core/pipeline/predict'
import type { SettingName } from '@sable/core/profile/settings'
import { signed } from '@sable/core/units/format'
import { useMemo } from 'react'
import { useBench } from '../../desk/bench'
import { edit } from '../../desk/deskStore'
import { setValues } from '../../desk/edits'
import { keyOf, requestFor } from '../../predictions/predictionStore'
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
}

/** What single changes give for each minute and gram that they add, each really computed. */
export function Gains({ candidate, prediction }: Props) {
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
  const now = statedLoad(prediction, content.purpose).loadN
  const gains = levers
    .flatMap((lever, i): Gain[] => {
      const p = tried[i]?.prediction
      if (!p) return []
      const newtons = statedLoad(p, content.purpose).loadN - now
      const minutes = (p.timeS - prediction.timeS) / 60
      return Math.abs(newtons) < 0.005 * now ? [] : [{ lever, newtons, minutes, grams: p.filament.massG - prediction.filament.massG }]
    })
    .filter(({ newtons }) => newtons > 0)
    .sort((a, b) => worth(b) - worth(a))
  const done = tried.filter((one) => one !== undefined).length
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
            <th className="w-14 font-normal">N</th>
            <th className="w-14 font-normal">min</th>
            <th className="w-[7.5rem] font-normal">N for a minute</th>
            <th className="w-16 font-normal">N for a g</th>
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
                <td className="figure text-right">{grams > 0.05 ? (newtons / grams).toFixed(1) : '–'}</td>
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
