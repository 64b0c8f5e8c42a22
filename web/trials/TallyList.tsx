import type { Rung, Tally } from '@sable/core/trials/tally'
import clsx from 'clsx'

/** A spool's ladder on a machine: what is known, by how many readings, and what comes next. */
export function TallyList({
  tally,
  open,
  waiting,
  onOpen,
}: {
  tally: Tally
  open: string
  waiting: ReadonlySet<string>
  onOpen: (kind: string) => void
}) {
  return (
    <nav aria-label="Ladder of trials" className="min-h-0 flex-1 overflow-auto">
      <ol>
        {tally.rungs.map((rung) => {
          const { id, name } = rung.kind
          const isNext = tally.next?.kind === id
          return (
            <li key={id}>
              <button
                type="button"
                aria-current={open === id ? 'page' : undefined}
                onClick={() => onOpen(id)}
                className={clsx(
                  'grid w-full grid-cols-[2.4rem_1fr_auto] items-baseline gap-x-2 border-b border-line px-3 py-[5px] text-left hover:bg-raised aria-[current=page]:bg-raised',
                  isNext && 'border-l-2 border-l-lantern pl-[10px]',
                )}
              >
                <Strokes rung={rung} />
                <span
                  className={clsx(
                    'truncate text-[12.5px]',
                    (rung.state === 'unknown' || rung.state === 'record') && !isNext && 'text-muted',
                  )}
                >
                  {name}
                </span>
                <span className={clsx('figure text-[12px]', rung.state === 'known' ? 'text-lantern-ink' : 'text-muted')}>
                  {resultOf(rung) || (waiting.has(id) ? 'printed, unread' : (rung.record ?? ''))}
                </span>
                {(rung.state === 'old' || rung.state === 'contradicts') && (
                  <span className={clsx('col-span-2 col-start-2 text-[12px]', rung.state === 'contradicts' ? 'text-worse' : 'text-muted')}>
                    {rung.state === 'contradicts' ? `contradicts: ${rung.why}` : `old: ${rung.why}`}
                  </span>
                )}
                {isNext && <span className="col-span-2 col-start-2 text-[12px] text-muted">next: {tally.next?.why}</span>}
              </button>
            </li>
          )
        })}
      </ol>
    </nav>
  )
}

const resultOf = ({ readings }: Rung): string =>
  readings.find(({ reading, outcome }) => !reading.leftOut && outcome.short !== undefined)?.outcome.short ?? ''

/** One stroke a reading, the fifth across the others; bright where it is known, dim where it is old. */
function Strokes({ rung: { readings, state } }: { rung: Rung }) {
  const count = Math.min(5, readings.filter(({ reading }) => !reading.leftOut).length)
  return (
    <svg width="34" height="13" aria-hidden="true" className="self-center">
      {count === 0 && <line x1="2" x2="10" y1="7" y2="7" className="stroke-strong" />}
      {[0, 1, 2, 3].slice(0, count).map((i) => (
        <line
          key={i}
          x1={3 + 6 * i}
          x2={2 + 6 * i}
          y1={1}
          y2={12}
          strokeWidth={1.6}
          className={state === 'known' ? 'stroke-lantern' : 'stroke-muted'}
        />
      ))}
      {count === 5 && (
        <line x1="0" x2="25" y1="10" y2="3" strokeWidth={1.6} className={state === 'known' ? 'stroke-lantern' : 'stroke-muted'} />
      )}
    </svg>
  )
}
