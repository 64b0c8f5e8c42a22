import type { Print } from '@sable/contract/prints'
import { type Shelf, setupOf } from '@sable/contract/shelf'
import { changesBy } from '@sable/core/doubt/changes'
import { paceSentences } from '@sable/core/log/sentences'
import { learned } from '@sable/core/setup/learned'
import { useMemo } from 'react'
import { Button } from '../ui/Button'
import { ConstantsTable } from '../ui/ConstantsTable'

/** What a print taught: constants without it and with it, among all others that count. */
export function TaughtPanel({
  print: { line, frozen, kept },
  shelf,
  onLeaveOut,
}: {
  print: Print
  shelf: Shelf
  onLeaveOut: (leftOut: boolean) => void
}) {
  const told = useMemo(() => {
    const plain = setupOf(frozen, { ...shelf, evidence: [] })
    if (!plain || !kept) return undefined
    const others = shelf.evidence.filter(({ reading }) => reading !== line.id)
    const { printer, nozzle, material, spool } = frozen
    const own = { printer, nozzle, material, spool, maker: plain.spool?.maker, evidence: kept.evidence, from: 'this print' }
    return { changes: changesBy(plain, others, own), sentences: paceSentences(learned(plain, shelf.evidence)) }
  }, [frozen, kept, shelf, line.id])
  if (!told || !kept) return null
  const teaches = kept.evidence.length > 0
  return (
    <section aria-label="What it taught" className="space-y-2 text-[12.5px]">
      <h3 className="flex items-baseline gap-3 font-semibold">
        <span className="flex-1">What it taught</span>
        {teaches && (
          <Button className="h-6" onClick={() => onLeaveOut(!line.leftOut)}>
            {line.leftOut ? 'Take it in' : 'Leave it out'}
          </Button>
        )}
      </h3>
      {!teaches && <p className="text-muted">Nothing: it was neither timed nor weighed, or it did not come to its end.</p>}
      {line.leftOut && <p className="text-muted">It is left out. This is what it would teach.</p>}
      {told.changes.length > 0 && <ConstantsTable changes={told.changes} />}
      {teaches && kept.scores.time !== undefined && (
        <p className="text-muted">
          Its time was off by <span className="figure">{kept.scores.time.toFixed(1)}</span> standard deviations of what was foretold
          {kept.scores.filament !== undefined && (
            <>
              , its grams by <span className="figure">{kept.scores.filament.toFixed(1)}</span>
            </>
          )}
          .
        </p>
      )}
      {told.sentences.map((sentence) => (
        <p key={sentence} className="border-l-2 border-lantern pl-2">
          {sentence}
        </p>
      ))}
    </section>
  )
}
