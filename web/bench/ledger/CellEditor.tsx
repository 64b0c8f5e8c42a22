import { useEffect, useRef, useState } from 'react'
import { ChoiceEditor } from './ChoiceEditor'
import type { LedgerRow } from './rows'
import type { After } from './useLedgerKeys'

interface Props {
  readonly row: LedgerRow
  /** Text to begin with: what was typed, or the value that stands there. */
  readonly start: string
  readonly problem: string | undefined
  readonly onCommit: (text: string, then: After) => void
  readonly onCancel: () => void
}

/** The field of the cell that is being edited. Enter goes down, Tab goes right, Escape leaves everything as it was. */
export function CellEditor({ row, start, problem, onCommit, onCancel }: Props) {
  return row.kind === 'setting' && row.setting.kind === 'number' ? (
    <TextField label={row.label} start={start} problem={problem} onCommit={onCommit} onCancel={onCancel} />
  ) : (
    <ChoiceEditor row={row} start={start} onCommit={onCommit} onCancel={onCancel} />
  )
}

function TextField({ label, start, problem, onCommit, onCancel }: Omit<Props, 'row'> & { label: string }) {
  const [text, setText] = useState(start)
  const field = useRef<HTMLInputElement>(null)
  const settled = useRef(false)
  useEffect(() => {
    field.current?.focus()
    // One character was typed to get here: go on behind it. Otherwise the whole value is there to be replaced.
    if (start.length !== 1) field.current?.select()
  }, [start])
  useEffect(() => {
    if (problem !== undefined) settled.current = false
  }, [problem])
  const finish = (action: () => void): void => {
    settled.current = true
    action()
  }
  return (
    <>
      <input
        ref={field}
        aria-label={label}
        aria-invalid={problem !== undefined}
        aria-describedby={problem === undefined ? undefined : 'cell-problem'}
        inputMode="decimal"
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => {
          if (!settled.current) onCommit(text, 'stay')
        }}
        onKeyDown={(event) => {
          if (event.key === 'Escape') finish(onCancel)
          else if (event.key === 'Enter') finish(() => onCommit(text, event.ctrlKey ? 'fill' : event.shiftKey ? 'up' : 'down'))
          else if (event.key === 'Tab') {
            event.preventDefault()
            finish(() => onCommit(text, event.shiftKey ? 'left' : 'right'))
          }
        }}
        className="figure absolute inset-0 z-10 w-full bg-sunk px-2 text-right outline-2 -outline-offset-2 outline-lantern aria-[invalid=true]:outline-stop"
      />
      {problem !== undefined && (
        <span
          id="cell-problem"
          role="alert"
          className="absolute top-full right-0 z-30 w-64 rounded-b-md border border-stop bg-raised px-2 py-1 text-[12px] text-stop"
        >
          {problem}
        </span>
      )}
    </>
  )
}
