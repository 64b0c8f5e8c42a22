import type { Moved } from '@sable/core/queue/moved'
import { formatDuration } from '@sable/core/units/format'
import { X } from 'lucide-react'
import { useState } from 'react'
import { IconButton } from '../ui/Button'
import type { WhatMoved as Told } from './useWhatMoved'

/** So many are told before one asks for all. */
const FEW = 4

/** What another plan moved, and why, in sentences. */
export function WhatMoved({
  told: { moves, reasons },
  jobName,
  printerName,
  onRead,
}: {
  told: Told
  jobName: (id: string) => string
  printerName: (key: string) => string
  onRead: () => void
}) {
  const [all, setAll] = useState(false)
  const shown = all ? moves : moves.slice(0, FEW)
  const rest = moves.length - shown.length
  return (
    <section
      aria-label="What moved"
      className="mx-3 mb-2 flex items-start gap-3 border-l-2 border-lantern bg-raised/60 px-3 py-1.5 text-[12.5px]"
    >
      <div className="min-w-0 flex-1">
        <p className="font-medium">
          {reasons.length > 0 ? capital(`${reasons.join('; ')}.`) : 'Time went on, and what was to begin was not begun.'}
        </p>
        <ul className="text-muted">
          {shown.map((move) => (
            <li key={move.job}>
              <span className="text-ink">{jobName(move.job)}</span> {inWords(move, printerName)}
            </li>
          ))}
        </ul>
        {rest > 0 && (
          <button
            type="button"
            onClick={() => setAll(true)}
            className="text-[12px] text-muted underline decoration-line underline-offset-2"
          >
            and {rest} more
          </button>
        )}
      </div>
      <IconButton label="I have read what moved" onClick={onRead}>
        <X className="size-3.5" />
      </IconButton>
    </section>
  )
}

const capital = (sentence: string): string => sentence.slice(0, 1).toUpperCase() + sentence.slice(1)

/** What became of a job, after its name. */
export function inWords({ from, to, laterBy = 0, isNew, isRefused, late }: Moved, printerName: (key: string) => string): string {
  const names = (keys: readonly string[]): string => keys.map(printerName).join(' and ')
  if (isRefused) return 'cannot be printed any more: see below.'
  if (isNew || from.length === 0) return `goes to ${names(to)}.`
  const isElsewhere = from.join() !== to.join()
  const time = Math.abs(laterBy) < 1 ? '' : `ends ${formatDuration(60 * Math.abs(laterBy))} ${laterBy > 0 ? 'later' : 'earlier'}`
  return `${[
    ...(isElsewhere ? [`goes to ${names(to)} instead of ${names(from)}`] : []),
    ...(time === '' ? [] : [time]),
    ...(late === 'now' ? ['misses its hour'] : late === 'no longer' ? ['is in time again'] : []),
  ].join(', ')}.`
}
