import { type Shelf, spoolsNow } from '@sable/contract/shelf'
import { isLikelyWet, learnedReel, type Spool } from '@sable/core/shelf/spool'
import { typedNumber } from '@sable/core/units/typedNumber'
import { X } from 'lucide-react'
import { useState } from 'react'
import { Button, IconButton } from '../ui/Button'
import { today } from '../ui/today'
import { Reel } from './Reel'
import { dryWords, remainingOn } from './summaries'

/** What is left of a spool, how dry it is, and its record of weighings and dryings. */
export function SpoolPanel({ spool, shelf, onChange }: { spool: Spool; shelf: Shelf; onChange: (spool: Spool) => void }) {
  const remaining = remainingOn(spool, shelf)
  const material = shelf.materials.find(({ key }) => key === spool.material)
  const reel = spool.reelG ?? learnedReel(spool.maker, spoolsNow(shelf))
  const wet = material !== undefined && isLikelyWet(spool, material, today())
  return (
    <section aria-label="What is left" className="flex flex-wrap items-start gap-6 border-y border-line py-4">
      <Reel
        share={remaining.grams / spool.netG}
        color={spool.color}
        size={132}
        label={`${Math.round(remaining.grams)} g of ${spool.netG} g left`}
      />
      <dl className="grid grid-cols-[auto_auto] items-baseline gap-x-4 gap-y-1 text-[12.5px]">
        <dt className="text-muted">Left</dt>
        <dd>
          <span className="figure text-[20px] font-semibold">{remaining.grams.toFixed(0)}</span> <span className="text-muted">g</span>{' '}
          <span className="figure text-muted">± {Math.max(1, remaining.doubtG).toFixed(0)}</span>
        </dd>
        <dt className="text-muted">that is</dt>
        <dd>
          <span className="figure">{remaining.metres.toFixed(0)}</span> <span className="text-muted">m of 1.75 mm</span>
        </dd>
        <dt className="text-muted">known by</dt>
        <dd>{remaining.from === 'label' ? 'its label: weigh it' : remaining.from}</dd>
        <dt className="text-muted">Empty reel</dt>
        <dd>
          {reel === undefined ? (
            <span className="text-muted">some 225 g, assumed; known once one of {spool.maker ?? 'its maker'} is used up</span>
          ) : (
            <>
              <span className="figure">{reel.toFixed(0)}</span>{' '}
              <span className="text-muted">g{spool.reelG === undefined ? ', learned from others' : ''}</span>
            </>
          )}
        </dd>
        <dt className="text-muted">Dryness</dt>
        <dd className={wet ? 'text-worse' : ''}>
          {dryWords(spool, today())}
          {wet && '; likely wet: dry it before any test'}
        </dd>
      </dl>
      <Weighings spool={spool} onChange={onChange} />
      <div className="text-[12.5px]">
        <p className="text-muted">Dried on</p>
        <Button
          className="mt-1 h-6"
          disabled={spool.dried.includes(today())}
          onClick={() => onChange({ ...spool, dried: [...spool.dried, today()].sort() })}
        >
          Dried today
        </Button>
        <ul className="mt-1 max-h-24 overflow-auto">
          {[...spool.dried]
            .sort()
            .reverse()
            .map((day) => (
              <li key={day} className="flex items-center gap-1">
                <span className="figure">{day}</span>
                <IconButton
                  label={`Take back the drying of ${day}`}
                  onClick={() => onChange({ ...spool, dried: spool.dried.filter((other) => other !== day) })}
                >
                  <X className="size-3" />
                </IconButton>
              </li>
            ))}
        </ul>
        <p className="mt-1 max-w-44 text-[12px] text-muted">Never dry it in a kitchen oven that cooks food.</p>
      </div>
    </section>
  )
}

/** Reel and filament on the scale, newest first. */
function Weighings({ spool, onChange }: { spool: Spool; onChange: (spool: Spool) => void }) {
  const [on, setOn] = useState(today())
  const [text, setText] = useState('')
  const grossG = typedNumber(text)
  const isWeight = grossG > 0 && grossG < Infinity
  const add = (): void => {
    if (!isWeight) return
    onChange({ ...spool, weighings: [...spool.weighings, { on, grossG }].sort((a, b) => a.on.localeCompare(b.on)) })
    setText('')
  }
  return (
    <div className="text-[12.5px]">
      <p className="text-muted">On the scale, reel and filament</p>
      <form
        className="mt-1 flex items-center gap-1.5"
        onSubmit={(event) => {
          event.preventDefault()
          add()
        }}
      >
        <input
          type="date"
          aria-label="Day of weighing"
          value={on}
          max={today()}
          onChange={(event) => setOn(event.target.value)}
          className="figure h-6 rounded border border-line bg-sunk px-1"
        />
        <input
          aria-label="Weight with the reel, g"
          inputMode="decimal"
          value={text}
          aria-invalid={text !== '' && !isWeight}
          onChange={(event) => setText(event.target.value)}
          className="figure h-6 w-20 rounded border border-line bg-sunk px-2 text-right aria-[invalid=true]:border-stop"
        />
        <span className="text-muted">g</span>
        <Button type="submit" className="h-6" disabled={!isWeight || on === ''}>
          Weighed
        </Button>
      </form>
      <ul className="mt-1 max-h-24 overflow-auto">
        {spool.weighings
          .map((weighing, i) => ({ weighing, i }))
          .reverse()
          .map(({ weighing, i }) => (
            <li key={`${weighing.on}-${i}`} className="flex items-center gap-2">
              <span className="figure">{weighing.on}</span>
              <span className="figure w-14 text-right">{weighing.grossG.toFixed(0)}</span>
              <span className="text-muted">g</span>
              <IconButton
                label={`Take back the weighing of ${weighing.on}`}
                onClick={() => onChange({ ...spool, weighings: spool.weighings.toSpliced(i, 1) })}
              >
                <X className="size-3" />
              </IconButton>
            </li>
          ))}
      </ul>
    </div>
  )
}
