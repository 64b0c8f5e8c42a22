import type { Print, PrintLine } from '@sable/contract/prints'
import type { Shelf } from '@sable/contract/shelf'
import { type PrintOutcome, type Result, regions, results } from '@sable/core/log/outcome'
import { formatDuration } from '@sable/core/units/format'
import { Plus, X } from 'lucide-react'
import { useState } from 'react'
import { Button, IconButton } from '../ui/Button'
import { Checkbox } from '../ui/Checkbox'
import { Choices } from '../ui/Choices'
import { dayOf } from '../ui/dates'
import type { Refusal } from '../ui/Notice'
import { NumberField } from '../ui/NumberField'
import { Select } from '../ui/Select'
import { CaliperButton, WeighButton } from './instrumentButtons'
import { stateNames } from './stateNames'

const marks = [1, 2, 3, 4, 5].map((id) => ({ id, name: String(id) }))
const verdicts = [
  { id: 'better', name: 'better' },
  { id: 'same', name: 'the same' },
  { id: 'worse', name: 'worse' },
] as const

const nothingSaid: PrintOutcome = { result: 'good', spools: [], marks: {}, faults: [], note: '' }

/** What came out: how it ended, the clock, the scale, marks, faults at their heights, and a note. */
export function OutcomeForm({
  print: { line, frozen, kept },
  shelf,
  lines,
  onKeep,
  onCancel,
  onRefusal,
}: {
  print: Print
  shelf: Shelf
  lines: readonly PrintLine[]
  onKeep: (outcome: PrintOutcome, endedAt: string | undefined) => Promise<void>
  onCancel: () => void
  onRefusal: (refusal: Refusal) => void
}) {
  const [openedAt] = useState(Date.now)
  const sinceStart = line.startedAt && line.endedAt === undefined ? (openedAt - Date.parse(line.startedAt)) / 1000 : undefined
  // A machine's own clock goes before the wall's.
  const took = line.clockS ?? sinceStart
  const [said, setSaid] = useState<PrintOutcome>(
    () =>
      kept?.outcome ?? {
        ...nothingSaid,
        ...(took === undefined ? {} : { actualS: 6 * Math.round(took / 6) }),
        ...(frozen.spool === undefined
          ? {}
          : { spools: [{ spool: frozen.spool, ...(frozen.beforeG === undefined ? {} : { beforeG: frozen.beforeG }) }] }),
      },
  )
  const change = (more: Partial<PrintOutcome>): void => setSaid((before) => withoutNothing({ ...before, ...more }))
  const number = (name: 'atZ' | 'actualS' | 'weighedG', most: number) => (value: number | undefined) => {
    if (value !== undefined && !(value >= 0 && value <= most)) return false
    change({ [name]: value })
    return true
  }
  const failed = said.result === 'spoiled' || said.result === 'stopped'
  const earlier = lines.filter((one) => one.id !== line.id && one.name === line.name && one.plannedAt < line.plannedAt).slice(0, 40)
  return (
    <section aria-label="What came out" className="mt-3 space-y-3 border-t border-line pt-3">
      <Choices<Result>
        label="It came out"
        of={results.map((id) => ({ id, name: stateNames[id] }))}
        value={said.result}
        onChange={(result) => result && change({ result })}
      />
      <div className="grid grid-cols-2 gap-x-8 gap-y-1.5">
        {failed && (
          <NumberField
            label="At a height of"
            unit="mm"
            value={said.atZ}
            problem={`0 to ${line.heightMm.toFixed(1)}`}
            onCommit={number('atZ', line.heightMm + 1)}
          />
        )}
        <NumberField
          label={`Took, foretold ${formatDuration(line.timeS)}`}
          unit="min"
          per={60}
          value={said.actualS}
          problem="0 to 100 000"
          onCommit={number('actualS', 6e6)}
        />
        <NumberField
          label={`On the scale, foretold ${line.massG.toFixed(1)} g`}
          unit="g"
          value={said.weighedG}
          problem="0 to 30 000"
          onCommit={number('weighedG', 30_000)}
        />
      </div>
      <Reels said={said} shelf={shelf} onChange={change} onRefusal={onRefusal} />
      <Sizes said={said} foretold={frozen.foretold.sizeMm} onChange={change} onRefusal={onRefusal} />
      <div className="grid grid-cols-2 gap-x-8 gap-y-1.5">
        {regions.map((region) => (
          <Choices
            key={region}
            label={`${region[0]!.toUpperCase()}${region.slice(1)}`}
            of={marks}
            value={said.marks[region]}
            onChange={(mark) => {
              const { [region]: _, ...others } = said.marks
              change({ marks: mark === undefined ? others : { ...others, [region]: mark } })
            }}
          />
        ))}
        <Choices label="Strength by hand" of={marks} value={said.strength} onChange={(strength) => change({ strength })} />
        <Choices label="How it fits" of={marks} value={said.fit} onChange={(fit) => change({ fit })} />
      </div>
      <p className="text-[12px] text-muted">1 is not usable, 5 could not be better. Leave out what you did not look at.</p>
      <Faults said={said} heightMm={line.heightMm} onChange={change} />
      {earlier.length > 0 && (
        <div className="flex items-center gap-3">
          <Select
            label="Beside an earlier print of it"
            value={said.against?.print ?? ''}
            of={[
              { id: '', name: 'none' },
              ...earlier.map(({ id, plannedAt, profile }) => ({ id, name: `${dayOf(plannedAt)} ${profile}` })),
            ]}
            onChange={(print) => change({ against: print === '' ? undefined : { print, verdict: said.against?.verdict ?? 'same' } })}
          />
          {said.against && (
            <Choices
              label=""
              name="Verdict"
              of={verdicts}
              value={said.against.verdict}
              onChange={(verdict) => verdict && change({ against: { print: said.against!.print, verdict } })}
            />
          )}
        </div>
      )}
      <textarea
        aria-label="Note"
        placeholder="A note, in Markdown"
        value={said.note}
        maxLength={20_000}
        onChange={(event) => change({ note: event.target.value })}
        className="block h-20 w-full resize-y rounded border border-line bg-sunk px-2 py-1 text-[12.5px]"
      />
      <div className="flex gap-2">
        <Button tone="main" onClick={() => void onKeep(said, line.endedAt === undefined ? new Date(openedAt).toISOString() : undefined)}>
          Keep it
        </Button>
        <Button onClick={onCancel}>Cancel</Button>
      </div>
    </section>
  )
}

type Change = (more: Partial<PrintOutcome>) => void

const axes = ['X', 'Y', 'Z'] as const

/** What a caliper finds along the axes, beside what was asked for. */
function Sizes({
  said: { sizeMm = {} },
  foretold,
  onChange,
  onRefusal,
}: {
  said: PrintOutcome
  foretold: readonly number[] | undefined
  onChange: Change
  onRefusal: (refusal: Refusal) => void
}) {
  const set = (axis: (typeof axes)[number], mm: number | undefined): boolean => {
    if (mm !== undefined && !(mm > 0 && mm <= 3000)) return false
    const next = withoutNothing({ ...sizeMm, [axis]: mm === undefined ? undefined : Math.round(100 * mm) / 100 })
    onChange({ sizeMm: Object.keys(next).length === 0 ? undefined : next })
    return true
  }
  return (
    <section aria-label="Size" className="flex flex-wrap items-center gap-x-5 gap-y-1.5 text-[12px]">
      <span className="text-muted">By caliper</span>
      {axes.map((axis, i) => (
        <span key={axis} className="flex items-center gap-1.5">
          <NumberField
            label={foretold ? `${axis}, asked ${foretold[i]!.toFixed(2)}` : axis}
            name={`Size along ${axis}`}
            unit="mm"
            width="w-20"
            value={sizeMm[axis]}
            problem="0 to 3000"
            onCommit={(mm) => set(axis, mm)}
          />
          <CaliperButton axis={axis} name={`along ${axis}`} onMm={(mm) => set(axis, mm)} onRefusal={onRefusal} />
        </span>
      ))}
    </section>
  )
}

/** Reels before and after: more than one where it was changed at a height. */
function Reels({
  said,
  shelf,
  onChange,
  onRefusal,
}: {
  said: PrintOutcome
  shelf: Shelf
  onChange: Change
  onRefusal: (refusal: Refusal) => void
}) {
  const nameOf = (key: string): string => shelf.spools.find((spool) => spool.key === key)?.name ?? key
  const set = (index: number, more: Partial<PrintOutcome['spools'][number]>): boolean => {
    if (Object.values(more).some((value) => typeof value === 'number' && !(value >= 0 && value < 30_000))) return false
    onChange({ spools: said.spools.map((reel, i) => (i === index ? withoutNothing({ ...reel, ...more }) : reel)) })
    return true
  }
  const others = shelf.spools.filter(({ key, archived }) => !archived && !said.spools.some(({ spool }) => spool === key))
  return (
    <section aria-label="Reels" className="space-y-1.5 text-[12px]">
      {said.spools.map(({ spool, beforeG, afterG, fromZ, ranOut }, i) => (
        <div key={spool} className="flex items-center gap-3">
          <span className="min-w-0 flex-1 truncate">{nameOf(spool)}</span>
          {i > 0 && (
            <NumberField
              label="from"
              name={`${nameOf(spool)}, from height`}
              unit="mm"
              width="w-16"
              value={fromZ}
              onCommit={(value) => set(i, { fromZ: value })}
            />
          )}
          <NumberField
            label="before"
            name={`${nameOf(spool)} before`}
            unit="g"
            width="w-20"
            value={beforeG}
            problem="0 to 30 000"
            onCommit={(value) => set(i, { beforeG: value })}
          />
          <NumberField
            label="after"
            name={`${nameOf(spool)} after`}
            unit="g"
            width="w-20"
            value={afterG}
            problem="0 to 30 000"
            onCommit={(value) => set(i, { afterG: value })}
          />
          <Checkbox checked={ranOut ?? false} onChange={(ended) => set(i, { ranOut: ended || undefined })}>
            ran out
          </Checkbox>
          <WeighButton name={`${nameOf(spool)} after`} onGrams={(grams) => set(i, { afterG: grams })} onRefusal={onRefusal} />
          <IconButton label={`Without ${nameOf(spool)}`} onClick={() => onChange({ spools: said.spools.filter((_, k) => k !== i) })}>
            <X className="size-3.5" />
          </IconButton>
        </div>
      ))}
      {others.length > 0 && (
        <Select
          label={said.spools.length === 0 ? 'Printed from a reel' : 'Changed to another reel'}
          value=""
          hint="choose"
          of={others.map(({ key, name }) => ({ id: key, name }))}
          onChange={(spool) => onChange({ spools: [...said.spools, { spool }] })}
        />
      )}
    </section>
  )
}

/** Faults, each with the height at which it is. */
function Faults({ said, heightMm, onChange }: { said: PrintOutcome; heightMm: number; onChange: Change }) {
  const [what, setWhat] = useState('')
  const add = (): void => {
    if (what.trim() === '') return
    onChange({ faults: [...said.faults, { what: what.trim() }] })
    setWhat('')
  }
  return (
    <section aria-label="Faults" className="space-y-1.5 text-[12px]">
      {said.faults.map(({ what: own, atZ }, i) => (
        <div key={`${own} ${String(i)}`} className="flex items-center gap-3">
          <span className="min-w-0 flex-1 truncate">{own}</span>
          <NumberField
            label="at"
            name={`${own}, at height`}
            unit="mm"
            width="w-20"
            value={atZ}
            problem={`0 to ${heightMm.toFixed(1)}`}
            onCommit={(value) => {
              if (value !== undefined && !(value >= 0 && value <= heightMm + 1)) return false
              onChange({ faults: said.faults.map((fault, k) => (k === i ? withoutNothing({ ...fault, atZ: value }) : fault)) })
              return true
            }}
          />
          <IconButton label={`Without “${own}”`} onClick={() => onChange({ faults: said.faults.filter((_, k) => k !== i) })}>
            <X className="size-3.5" />
          </IconButton>
        </div>
      ))}
      <form
        className="flex items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          add()
        }}
      >
        <input
          aria-label="A fault"
          placeholder="A fault: layers shifted, strings, a corner lifted …"
          value={what}
          maxLength={200}
          onChange={(event) => setWhat(event.target.value)}
          className="h-7 min-w-0 flex-1 rounded border border-line bg-sunk px-2"
        />
        <Button type="submit" disabled={what.trim() === ''}>
          <Plus className="size-3.5" aria-hidden /> Pin it
        </Button>
      </form>
    </section>
  )
}

/** Answers that were taken back are not there. */
const withoutNothing = <T extends object>(given: T): T =>
  Object.fromEntries(Object.entries(given).filter(([, value]) => value !== undefined)) as T
