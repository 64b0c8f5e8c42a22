import type { QueuePlan } from '@sable/core/queue/plan'
import type { Variant } from '@sable/core/queue/whatIf'
import { formatDuration } from '@sable/core/units/format'
import clsx from 'clsx'

/** Ends of all if something were otherwise, beside the plan's. */
export function WhatIf({
  variants,
  plans,
  end,
  momentAt,
}: {
  variants: readonly Variant[]
  plans: ReadonlyMap<string, QueuePlan>
  /** Of the plan, min. */
  end: number
  momentAt: (minute: number) => string
}) {
  return (
    <section aria-label="What if">
      <h3 className="mb-1 text-[12.5px] font-semibold">What if</h3>
      {variants.length === 0 && (
        <p className="text-[12.5px] text-muted">This queue is too large to be planned again for every “what if”.</p>
      )}
      <ul className="grid gap-x-8 text-[12.5px] sm:grid-cols-2">
        {variants.map(({ id, words }) => {
          const other = plans.get(id)
          const by = other ? other.makespan - end : 0
          const isSame = Math.abs(by) < 1
          return (
            <li key={id} className="flex items-baseline gap-3 border-t border-line/60 py-1">
              <span className="flex-1">{words}</span>
              <span className="text-[12px] text-muted">
                {[
                  ...(other && other.late.length > 0 ? [`${other.late.length} late`] : []),
                  ...(other && other.refused.length > 0 ? [`${other.refused.length} cannot be printed`] : []),
                ].join(', ')}
              </span>
              <span className="figure text-muted">{other ? momentAt(other.makespan) : '…'}</span>
              <span className={clsx('figure w-24 text-right', isSame ? 'text-muted' : by < 0 ? 'text-better' : 'text-worse')}>
                {!other ? '' : isSame ? 'the same' : `${by < 0 ? '−' : '+'}${formatDuration(60 * Math.abs(by))}`}
              </span>
            </li>
          )
        })}
      </ul>
    </section>
  )
}
