import { type PrintOutcome, regions } from '@sable/core/log/outcome'
import { Button } from '../ui/Button'

/** What its maker said of a print, in a line or two. */
export function SaidOfIt({ outcome, nameOf, onChange }: { outcome: PrintOutcome; nameOf: (key: string) => string; onChange: () => void }) {
  const { marks, strength, fit, faults, spools, sizeMm = {} } = outcome
  const told = [
    ...regions.flatMap((region) => (marks[region] === undefined ? [] : [`${region} ${marks[region]}`])),
    ...(strength === undefined ? [] : [`strength by hand ${strength}`]),
    ...(fit === undefined ? [] : [`fit ${fit}`]),
  ]
  return (
    <section aria-label="What was said of it" className="mt-2 flex items-baseline gap-3 text-[12.5px]">
      <p className="min-w-0 flex-1">
        {told.length > 0 && <span className="figure">{told.join(' · ')} of 5</span>}
        {faults.length > 0 && (
          <span className="block text-worse">
            {faults.map(({ what, atZ }) => (atZ === undefined ? what : `${what} at ${atZ} mm`)).join('; ')}
          </span>
        )}
        {Object.keys(sizeMm).length > 0 && (
          <span className="figure block text-muted">
            {Object.entries(sizeMm)
              .map(([axis, mm]) => `${axis} ${mm.toFixed(2)} mm`)
              .join(' · ')}
          </span>
        )}
        {spools.length > 1 && (
          <span className="block text-muted">
            {spools.map(({ spool, fromZ }) => (fromZ === undefined ? nameOf(spool) : `${nameOf(spool)} from ${fromZ} mm`)).join(', ')}
          </span>
        )}
      </p>
      <Button className="h-6" onClick={onChange}>
        Change what was said
      </Button>
    </section>
  )
}
