import type { PrintLine } from '@sable/contract/prints'
import { formatDuration } from '@sable/core/units/format'
import { useVirtualizer } from '@tanstack/react-virtual'
import clsx from 'clsx'
import { type KeyboardEvent, useEffect, useRef } from 'react'
import { shortDayOf } from '../ui/dates'
import { stateNames, stateSigns } from './stateNames'
import { TickScale } from './TickScale'

const ROW = 40

/** A line a print, the newest first: real against foretold as two ticks on one scale. Arrows go from print to print. */
export function DayBook({
  lines,
  total,
  open,
  nameOf,
  onEnd,
  onOpen,
}: {
  lines: readonly PrintLine[]
  /** Of those that are looked for: the newest of them are here. */
  total: number
  open: string | undefined
  /** Of a record. */
  nameOf: (key: string) => string
  /** The last of those that are here came into sight. */
  onEnd: () => void
  onOpen: (id: string) => void
}) {
  const frame = useRef<HTMLDivElement>(null)
  const rows = useVirtualizer({ count: lines.length, getScrollElement: () => frame.current, estimateSize: () => ROW, overscan: 12 })
  const last = rows.getVirtualItems().at(-1)?.index
  useEffect(() => {
    if (last === lines.length - 1 && lines.length < total) onEnd()
  }, [last, lines.length, total, onEnd])
  const onKeyDown = (event: KeyboardEvent): void => {
    const at = lines.findIndex(({ id }) => id === open)
    const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: lines.length - 1, PageDown: at + 10, PageUp: at - 10 }[event.key]
    if (to === undefined) return
    event.preventDefault()
    const next = Math.max(0, Math.min(lines.length - 1, to))
    rows.scrollToIndex(next)
    onOpen(lines[next]!.id)
  }
  return (
    <section
      aria-label="Day book"
      className="flex w-[31rem] shrink-0 flex-col border-line max-lg:h-52 max-lg:w-full max-lg:border-b lg:border-r"
    >
      <div className="flex h-7 shrink-0 items-center gap-2 border-b border-line px-3 text-[12px] text-muted">
        <span className="flex-1">
          {lines.length < total ? `the newest ${lines.length} of ${total}` : total} {total === 1 ? 'print' : 'prints'}
        </span>
        <span className="w-[7.5rem] text-center whitespace-nowrap">−20 % foretold +20 %</span>
        <span className="w-20 text-right">took</span>
      </div>
      <div
        ref={frame}
        role="listbox"
        tabIndex={0}
        aria-label="Prints"
        aria-activedescendant={open === undefined ? undefined : `print-${open}`}
        onKeyDown={onKeyDown}
        className="min-h-0 flex-1 overflow-auto focus-visible:outline-offset-[-2px]"
      >
        <div style={{ height: rows.getTotalSize() }} className="relative">
          {rows.getVirtualItems().map(({ index, start }) => {
            const line = lines[index]!
            return (
              // biome-ignore lint/a11y/useKeyWithClickEvents: the list has the keys.
              <div
                key={line.id}
                id={`print-${line.id}`}
                role="option"
                aria-selected={line.id === open}
                tabIndex={-1}
                onClick={() => onOpen(line.id)}
                style={{ top: start, height: ROW }}
                className={clsx(
                  'absolute inset-x-0 flex cursor-pointer items-center gap-2 border-b border-line/60 px-3',
                  line.id === open ? 'bg-raised' : 'hover:bg-raised/60',
                  line.leftOut && 'line-through decoration-strong',
                )}
              >
                <Line line={line} nameOf={nameOf} />
              </div>
            )
          })}
        </div>
      </div>
    </section>
  )
}

function Line({ line, nameOf }: { line: PrintLine; nameOf: (key: string) => string }) {
  const { sign, tone } = stateSigns[line.state]
  return (
    <>
      <span className="figure w-14 shrink-0 text-[12px] whitespace-nowrap text-muted">{dayOf(line)}</span>
      <span className={clsx('w-3 shrink-0 text-center text-[12px]', tone)} data-hint={stateNames[line.state]}>
        <span aria-hidden>{sign}</span>
        <span className="sr-only">{stateNames[line.state]}</span>
      </span>
      <span className="min-w-0 flex-1 leading-tight">
        <span className="block truncate text-[12.5px]">
          {line.name} <span className="text-muted">{line.profile}</span>
        </span>
        <span className="block truncate text-[12px] text-muted">
          {nameOf(line.printer)}, {nameOf(line.spool ?? line.material)}
          {line.atZ !== undefined && `, ${stateNames[line.state]} at ${line.atZ} mm`}
          {line.leftOut && ', left out'}
        </span>
      </span>
      <TickScale line={line} />
      <span className="figure w-20 shrink-0 text-right text-[12px] whitespace-nowrap">
        {line.actualS === undefined ? <span className="text-muted">{formatDuration(line.timeS)}</span> : formatDuration(line.actualS)}
      </span>
    </>
  )
}

const dayOf = ({ startedAt, plannedAt }: PrintLine): string => shortDayOf(startedAt ?? plannedAt)
