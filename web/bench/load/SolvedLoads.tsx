import { failureWords } from '@sable/core/figures/table/solvedReason'
import { statedLoad } from '@sable/core/figures/table/stated'
import { formatForce } from '@sable/core/units/format'
import clsx from 'clsx'
import { useBench } from '../../desk/bench'
import { useForecasts } from '../../predictions/predictionStore'
import type { Solved } from '../../predictions/useSolved'

/** What the part bears by finite elements, from its very lines, beside what its sections say. */
export function SolvedLoads({ solved, wantedN }: { solved: readonly Solved[]; wantedN: number | undefined }) {
  const { content } = useBench()
  const forecasts = useForecasts()
  return (
    <section aria-label="Solved" className="text-[12.5px]">
      <h3 className="font-semibold">Solved by finite elements</h3>
      <ul>
        {solved.map(({ candidate, solved: found, share, why }) => {
          const prediction = forecasts[candidate.id]?.prediction
          const sections = prediction && statedLoad(prediction, content.purpose)
          return (
            <li key={candidate.id} className="border-b border-line/60 py-1">
              <p className="flex items-baseline gap-3">
                <span className="flex-1 truncate">{candidate.name}</span>
                {found && (
                  <>
                    {!Number.isNaN(found.failureN) && (
                      <span className="figure text-muted">
                        {formatForce(found.low)} to {formatForce(found.high)}
                      </span>
                    )}
                    <span
                      className={clsx(
                        'figure w-20 text-right font-medium',
                        wantedN !== undefined && found.failureN < wantedN && 'text-stop',
                      )}
                    >
                      {Number.isNaN(found.failureN) ? `${found.factor.toFixed(2)} ×` : formatForce(found.failureN)}
                    </span>
                  </>
                )}
              </p>
              {found && (
                <p className="text-[12px] text-muted">
                  {failureWords[found.by]} at x {signed(found.at[0])}, y {signed(found.at[1])}, z {found.at[2].toFixed(1)} mm
                  {found.name !== undefined && ` in “${found.name}”, under ${found.factor.toFixed(2)} × its loads`}
                  {found.axis && `, loaded along ${found.axis.toUpperCase()}`}.{' '}
                  {!Number.isNaN(found.stiffnessNmm) && `${formatForce(found.stiffnessNmm)} move it by 1 mm.`}
                  {found.name === undefined &&
                    sections &&
                    Number.isFinite(sections.loadN) &&
                    ` Its sections say ${formatForce(sections.loadN)}.`}{' '}
                  {found.cells} cells of {found.voxelMm.toFixed(1)} mm
                  {found.dropped > 0.001 && `; ${(100 * found.dropped).toFixed(1)} % of the plastic hangs on nothing that is held`}.
                </p>
              )}
              {why !== undefined && <p className="text-[12px] text-muted">{why}</p>}
              {!found && why === undefined && (
                <p role="status" className="text-[12px] text-muted">
                  Solving … {Math.round(100 * (share ?? 0))} %
                </p>
              )}
            </li>
          )
        })}
      </ul>
    </section>
  )
}

const signed = (mm: number): string => mm.toFixed(0).replace('-', '−')
