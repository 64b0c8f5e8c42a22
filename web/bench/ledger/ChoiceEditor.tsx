import { inWords } from '@sable/core/units/format'
import { Command } from 'cmdk'
import { useEffect, useRef, useState } from 'react'
import type { LedgerRow } from './rows'
import type { After } from './useLedgerKeys'

/** The choices of a cell: typing leaves those that have it, arrows move, Enter takes, Escape leaves everything as it was. */
export function ChoiceEditor({
  row,
  start,
  onCommit,
  onCancel,
}: {
  row: LedgerRow
  /** One character that was typed, or the value that stands there. */
  start: string
  onCommit: (text: string, then: After) => void
  onCancel: () => void
}) {
  const choices =
    row.kind === 'setup'
      ? row.choices
      : row.setting.kind === 'choice'
        ? row.setting.choices.map((choice) => ({ key: choice, name: inWords(choice) }))
        : []
  const now = choices.find(({ key, name }) => key === start || name === start)
  const [typed, setTyped] = useState(now ? '' : start)
  const [lit, setLit] = useState(now?.name ?? '')
  const frame = useRef<HTMLDivElement>(null)
  useEffect(() => frame.current?.querySelector('input')?.focus(), [])
  const wanted = typed.trim().toLowerCase()
  const left = choices.filter(({ name }) => wanted.split(/\s+/).every((part) => name.toLowerCase().includes(part)))
  const take = (name: string, then: After): void => {
    const choice = choices.find((one) => one.name === name)
    // What matches nothing is not taken for something else.
    if (choice) onCommit(choice.key, then)
  }
  const litNow = left.some(({ name }) => name === lit) ? lit : (left[0]?.name ?? '')
  return (
    <div ref={frame} className="absolute inset-0 z-20">
      <Command
        label={row.label}
        shouldFilter={false}
        value={litNow}
        onValueChange={setLit}
        onKeyDown={(event) => {
          if (event.key === 'Escape') onCancel()
          else if (event.key === 'Tab') take(litNow, event.shiftKey ? 'left' : 'right')
          else if (event.key === 'Enter') take(litNow, event.ctrlKey ? 'fill' : 'down')
          else return
          event.preventDefault()
          event.stopPropagation()
        }}
        onBlur={(event) => {
          if (!event.currentTarget.contains(event.relatedTarget)) onCancel()
        }}
      >
        <Command.Input
          value={typed}
          onValueChange={setTyped}
          placeholder={now?.name}
          className="h-[22px] w-full bg-sunk px-2 text-right text-[12.5px] outline-2 -outline-offset-2 outline-lantern placeholder:text-muted"
        />
        <Command.List className="absolute top-full right-0 z-40 max-h-64 min-w-full overflow-auto rounded-b-md border border-strong bg-raised p-1 shadow-2xl shadow-black/40">
          {left.length === 0 && <p className="px-2 py-1 text-[12px] whitespace-nowrap text-stop">Nothing is called so.</p>}
          {left.map(({ key, name }) => (
            <Command.Item
              key={key}
              value={name}
              onMouseDown={(event) => event.preventDefault()}
              onSelect={() => take(name, 'stay')}
              className="min-h-6 cursor-pointer rounded px-2 py-0.5 text-[12.5px] whitespace-nowrap aria-selected:bg-glow aria-selected:text-lantern-ink"
            >
              {name}
            </Command.Item>
          ))}
        </Command.List>
      </Command>
    </div>
  )
}
