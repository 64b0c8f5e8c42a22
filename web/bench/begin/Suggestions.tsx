import { figureOf } from '@sable/core/figures/figures'
import type { FigureId } from '@sable/core/figures/table/figure'
import type { Suggestion } from '@sable/core/suggest/suggest'
import { Button } from '../../ui/Button'
import { shown } from '../tradeoffs/figureWords'

const told: readonly FigureId[] = ['time', 'filament', 'cost', 'surface', 'strength']

/** The fastest, the smoothest and the strongest that keep the limits, each with one line of why. */
export function Suggestions({
  suggestions,
  done,
  of,
  canBegin,
  onOpen,
}: {
  suggestions: readonly Suggestion[]
  done: number
  of: number
  canBegin: boolean
  onOpen: () => void
}) {
  if (!canBegin) return <p className="py-6 text-muted">Choose a machine and a material: then three candidates are worked out.</p>
  if (suggestions.length === 0)
    return done === of && of > 0 ? (
      <p className="py-6 text-muted">
        Nothing of what was tried can be printed on this machine. Turn the part on the bench, or choose a larger machine.
      </p>
    ) : (
      <p role="status" className="flex items-center gap-3 py-6 text-muted">
        Working out what to suggest
        <span className="figure">
          {done} of {of}
        </span>
        <progress max={of} value={done} className="h-1.5 w-40 accent-lantern" />
      </p>
    )
  return (
    <section aria-label="Suggested">
      <ul className="divide-y divide-line border-b border-line">
        {suggestions.map(({ roles, tried, keeps, why }) => (
          <li key={tried.name} className="grid grid-cols-[9rem_minmax(0,1fr)] gap-x-5 gap-y-1.5 py-3">
            <h2 className="text-[15px] font-semibold first-letter:uppercase">
              {roles.join(', ') || 'Nearest'}
              {!keeps && <span className="block text-[12px] font-normal text-worse">misses a limit</span>}
            </h2>
            <dl className="flex flex-wrap gap-x-6 gap-y-1">
              {told.map((figure) => (
                <div key={figure}>
                  <dt className="text-[12px] text-muted">{figureOf[figure].label}</dt>
                  <dd className="figure text-[13px]">{shown(figure, tried.figures![figure] ?? Number.NaN)}</dd>
                </div>
              ))}
            </dl>
            <p className="col-start-2 text-[12px] text-muted">{why}</p>
          </li>
        ))}
      </ul>
      <div className="mt-4 flex items-center gap-4">
        <Button tone="main" onClick={onOpen}>
          {suggestions.length === 1 ? 'Open it on the bench' : `Open these ${suggestions.length} on the bench`}
        </Button>
        <span className="text-[12px] text-muted">Of {of} profiles that practice would try first.</span>
      </div>
    </section>
  )
}
