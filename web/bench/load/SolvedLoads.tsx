import { formatForce } from '@sable/core/units/format'
import clsx from 'clsx'
import type { Solved } from '../../predictions/useSolved'
import type { Bearing } from './bearing'

/** What the part bears by finite elements, from its very lines, beside what its sections say. */
export function SolvedLoads({
  solved,
  bearings,
  wantedN,
}: {
  solved: readonly Solved[]
  bearings: ReadonlyMap<string, Bearing>
  wantedN: number | undefined
}) {
  return (
    <section aria-label="Solved" className="text-[12.5px]">
      <h3 className="font-semibold">Solved by finite elements</h3>
      <ul>
        {solved.map(({ candidate, solved: found, share, why }) => {
          const sections = bearings.get(candidate.id)?.load
          return (
            <li key={candidate.id} className="border-b border-line/60 py-1">
              <p className="flex items-baseline gap-3">
                <span className="flex-1 truncate">{candidate.name}</span>
                {found && (
                  <>
                    <span className="figure text-muted">
                      {formatForce(found.low)} to {formatForce(found.high)}
                    </span>
                    <span
                      className={clsx(
                        'figure w-20 text-right font-medium',
                        wantedN !== undefined && found.failureN < wantedN && 'text-stop',
                      )}
                    >
                      {formatForce(found.failureN)}
                    </span>
                  </>
                )}
              </p>
              {found && (
                <p className="text-[12px] text-muted">
                  {found.by === 'layers' ? 'Layers part' : 'Lines break'} at x {found.at[0].toFixed(0)}, y {found.at[1].toFixed(0)}, z{' '}
                  {found.at[2].toFixed(1)} mm; {formatForce(found.stiffnessNmm)} move it by 1 mm.
                  {sections && Number.isFinite(sections.loadN) && ` Its sections say ${formatForce(sections.loadN)}.`} {found.cells} cells
                  of {found.voxelMm.toFixed(1)} mm
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
