import type { QueuePlan } from '@sable/core/queue/plan'
import type { Variant } from '@sable/core/queue/whatIf'
import { formatDuration } from '@sable/core/units/format'
import clsx from 'clsx'
import type { ReactNode } from 'react'
import { Checkbox } from '../ui/Checkbox'

/** Plans that are drawn beneath each other at once. */
const MOST_SHOWN = 3

/** Ends of all if something were otherwise, beside the plan's; some of them drawn on the same clock. */
export function WhatIf({
  variants,
  plans,
  end,
  momentAt,
  shown,
  onShow,
  children,
}: {
  variants: readonly Variant[]
  plans: ReadonlyMap<string, QueuePlan>
  /** Of the plan, min. */
  end: number
  momentAt: (minute: number) => string
  /** Ids of variants that are drawn. */
  shown: readonly string[]
  onShow: (ids: readonly string[]) => void
  /** What other hours are asked for. */
  children: ReactNode
}) {
  const more = variants.filter(({ id }) => id.startsWith('more ')).map(({ id }) => plans.get(id))
  const helpsNothing = more.length > 0 && more.every((plan) => plan && plan.makespan > end - 1)
  return (
    <section aria-label="What if">
      <div className="mb-1 flex flex-wrap items-baseline gap-x-6 gap-y-1">
        <h3 className="text-[12.5px] font-semibold">What if</h3>
        {children}
      </div>
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
              <Checkbox
                className="flex-1"
                checked={shown.includes(id)}
                onChange={(is) => onShow(is ? [...shown, id].slice(-MOST_SHOWN) : shown.filter((one) => one !== id))}
                help={`Draws the plan on the same clock, beside this one; ${MOST_SHOWN} at most.`}
              >
                {words}
              </Checkbox>
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
      {helpsNothing && (
        <p className="mt-1 text-[12px] text-muted">
          No printer more ends it sooner: several print several parts at once, and none prints one part faster.
        </p>
      )}
    </section>
  )
}
