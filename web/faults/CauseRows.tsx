import type { Weighed } from '@sable/core/faults/weigh'
import clsx from 'clsx'
import { ChevronRight } from 'lucide-react'
import { useState } from 'react'

/** "2.1 to 1", "1 to 14" */
const oddsWords = (odds: number): string =>
  odds >= 1
    ? `${odds >= 10 ? Math.round(odds) : odds.toFixed(1)} to 1`
    : `1 to ${odds > 0.1 ? (1 / odds).toFixed(1) : Math.round(1 / odds)}`

/** Causes as rows, the likeliest first; what speaks for and against each opens under it. */
export function CauseRows({ weighed, unranked }: { weighed: readonly Weighed[]; unranked: boolean }) {
  const [open, setOpen] = useState<ReadonlySet<string>>(() => new Set(weighed.slice(0, 1).map(({ cause }) => cause.id)))
  const toggle = (id: string): void =>
    setOpen((now) => (now.has(id) ? new Set([...now].filter((other) => other !== id)) : new Set([...now, id])))
  return (
    <section aria-label="Causes">
      <h3 className="mb-1 font-semibold">
        Causes{' '}
        <span className="font-normal text-muted">
          {unranked ? 'practice does not rank them: each has a sign of its own' : 'odds by practice, this print, answers and tries'}
        </span>
      </h3>
      <ul>
        {weighed.map(({ cause, odds, share, factors, ruledOut }) => (
          <li key={cause.id} className="border-t border-line/60 py-1">
            <button
              type="button"
              aria-expanded={open.has(cause.id)}
              onClick={() => toggle(cause.id)}
              className="flex min-h-6 w-full items-center gap-3 text-left hover:text-lantern-ink"
            >
              <ChevronRight
                className={clsx('size-3.5 shrink-0 text-muted transition-transform', open.has(cause.id) && 'rotate-90')}
                aria-hidden
              />
              <span className="figure w-20 shrink-0 text-right text-[12px]">{oddsWords(odds)}</span>
              <span aria-hidden className="h-1.5 w-24 shrink-0 rounded-sm bg-line">
                <span
                  className={clsx('block h-full rounded-sm', ruledOut ? 'bg-strong' : 'bg-lantern')}
                  style={{ width: `${100 * share}%` }}
                />
              </span>
              <span className={clsx('min-w-0', ruledOut && 'text-muted line-through decoration-strong')}>{cause.name}</span>
              {ruledOut && <span className="text-[12px] text-muted">ruled out</span>}
            </button>
            {open.has(cause.id) && (
              <div className="mt-1 mb-2 ml-7 space-y-1 border-l-2 border-line pl-3">
                <p>{cause.why}</p>
                {cause.school !== undefined && <p className="text-muted">{cause.school}</p>}
                <table>
                  <tbody>
                    {factors.map(({ what, factor, basis }) => (
                      <tr key={what} className="align-baseline">
                        <td
                          className={clsx(
                            'figure pr-3 text-right text-[12px] whitespace-nowrap',
                            factor > 1.05 ? 'text-worse' : factor < 0.95 ? 'text-better' : 'text-muted',
                          )}
                        >
                          {factor > 1.05 ? 'for' : factor < 0.95 ? 'against' : 'neither'} ×
                          {factor >= 1 ? factor.toFixed(1) : factor.toFixed(2)}
                        </td>
                        <td className="pr-3">{what}</td>
                        <td className="text-[12px] text-muted">{basis}</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
