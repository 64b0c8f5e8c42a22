import type { Reading, Trial } from '@sable/contract/trials'
import type { ConstantChange } from '@sable/core/doubt/changes'
import type { Setup } from '@sable/core/setup/resolve'
import type { Advice, NextTrial } from '@sable/core/trials/table/kind'
import type { Rung } from '@sable/core/trials/tally'
import type { ReactNode } from 'react'
import { Button } from '../ui/Button'
import { dayOf } from '../ui/dates'
import { ResultPanel } from './ResultPanel'

/** Prints that nobody has read yet, and what was read, the newest first. */
export function KeptReadings({
  rung,
  unread,
  readings,
  photosOf,
  setup,
  changesOf,
  onRead,
  onRemove,
  onLeaveOut,
  onWrite,
  onNext,
}: {
  rung: Rung
  unread: readonly Trial[]
  readings: readonly Reading[]
  photosOf: (trial: string) => ReactNode
  setup: Setup
  /** What a reading changed, beside all others. */
  changesOf: (reading: string) => readonly ConstantChange[]
  onRead: (trial: string) => void
  onRemove: (trial: string) => void
  onLeaveOut: (reading: string, leftOut: boolean) => void
  onWrite: (advice: readonly Advice[]) => void
  onNext: (next: NextTrial) => void
}) {
  if (unread.length === 0 && rung.readings.length === 0) return null
  const trialOf = (id: string): string | undefined => readings.find((one) => one.id === id)?.trial
  const byOf = (id: string): string => readings.find((one) => one.id === id)?.by ?? ''
  const noteOf = (id: string): string => readings.find((one) => one.id === id)?.note ?? ''
  return (
    <section aria-label="Prints and readings" className="space-y-3 border-t border-line pt-3">
      {unread.map(({ id, spec, madeAt, insisted }) => (
        <div key={id} className="flex items-center gap-2 text-[12px]">
          <span className="figure text-muted">{dayOf(madeAt)}</span>
          <span className="flex-1 truncate">
            {spec.bands.map(({ label }) => label).join(' ') || 'printed'}
            {insisted !== undefined && <span className="text-muted">, against advice</span>}
          </span>
          <Button tone="main" className="h-6" onClick={() => onRead(id)}>
            Read it
          </Button>
          <Button className="h-6" onClick={() => onRemove(id)}>
            Not printed
          </Button>
        </div>
      ))}
      {rung.readings.map(({ reading, outcome }, i) => (
        <article key={reading.id} className={reading.leftOut ? 'line-through decoration-strong' : ''}>
          <header className="mb-1 flex items-baseline gap-2 text-[12px] text-muted">
            <span className="figure">{dayOf(reading.readAt)}</span>
            <span className="flex-1 truncate">
              {reading.nozzle}
              {byOf(reading.id) === '' ? '' : `, ${byOf(reading.id)}`}
              {reading.leftOut ? ', left out' : ''}
            </span>
            <Button className="h-5 text-[12px]" onClick={() => onLeaveOut(reading.id, !reading.leftOut)}>
              {reading.leftOut ? 'Take it in' : 'Leave it out'}
            </Button>
          </header>
          {i === 0 && !reading.leftOut ? (
            <ResultPanel
              outcome={outcome}
              changes={changesOf(reading.id)}
              setup={setup}
              kept
              onWrite={onWrite}
              onNext={() => outcome.next && onNext(outcome.next)}
            />
          ) : (
            <p className="text-[12px]">{outcome.found}</p>
          )}
          {i === 0 && trialOf(reading.id) !== undefined && <div className="mt-2">{photosOf(trialOf(reading.id)!)}</div>}
          {noteOf(reading.id) !== '' && <p className="mt-1 text-[12px] whitespace-pre-wrap text-muted">{noteOf(reading.id)}</p>}
        </article>
      ))}
    </section>
  )
}
