import type { Candidate, LineupContent } from '@sable/contract/lineup'
import { InputError } from '@sable/core/units/errors'
import { type ClipboardEvent, type KeyboardEvent, type RefObject, useCallback, useEffect, useRef, useState } from 'react'
import { toast } from 'sonner'
import { asRefusal } from '../../api/asRefusal'
import { edit } from '../../desk/deskStore'
import { useGoTo } from '../../desk/goTo'
import { showHelp } from '../../handbook/helpStore'
import { forSheet } from '../../ui/decimalMark'
import type { Refusal } from '../../ui/Notice'
import { clearCells, fillCells, fillRight, pasteCells, typeInto, untaken } from './cellEdits'
import type { Cell, LedgerRow } from './rows'
import { at, clamp, extent, move, type Selection } from './selection'

interface Table {
  readonly content: LineupContent
  readonly rows: readonly LedgerRow[]
  readonly columns: readonly Readonly<Record<string, Cell>>[]
  readonly grid: RefObject<HTMLTableElement | null>
  readonly onRefusal: (refusal: Refusal) => void
  /** A candidate prints with something else now. */
  readonly onSetup: (before: Candidate, after: Candidate) => void
  /** The layers under a cell are asked for. */
  readonly onLayers: (row: LedgerRow, candidate: Candidate) => void
}

/** Where to go once a value is taken; `fill` puts it into the whole selection. */
export type After = 'stay' | 'down' | 'up' | 'right' | 'left' | 'fill'

interface Editing {
  readonly text: string
  readonly problem?: string
}

/** What the cells and the grid need to behave like a spreadsheet. */
export interface LedgerKeys {
  readonly selection: Selection
  readonly editing: Editing | undefined
  readonly activeId: string
  readonly point: (row: number, column: number, extend: boolean) => void
  readonly open: () => void
  readonly layers: () => void
  readonly commit: (text: string, then: After) => void
  readonly cancel: () => void
  readonly onKeyDown: (event: KeyboardEvent) => void
  readonly onCopy: (event: ClipboardEvent) => void
  readonly onPaste: (event: ClipboardEvent) => void
}

export const cellId = (row: number, column: number): string => `cell-${row}-${column}`

const arrows: Readonly<Record<string, readonly [row: number, column: number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  PageUp: [-10, 0],
  PageDown: [10, 0],
}
const steps = { stay: [0, 0], fill: [0, 0], down: [1, 0], up: [-1, 0], right: [0, 1], left: [0, -1] } as const

const helpFor = (row: LedgerRow): string => (row.kind === 'setting' ? `setting/${row.id}` : 'page/places')

export function useLedgerKeys(table: Table): LedgerKeys {
  const [wanted, setSelection] = useState<Selection>(at(0, 0))
  const [editing, setEditing] = useState<Editing>()
  const selection = clamp(wanted, table.rows.length, table.content.candidates.length)
  // Handlers are given to every cell and must not change with each keystroke; they read the newest state here.
  const now = useRef({ ...table, selection, editing })
  now.current = { ...table, selection, editing }

  // Somebody elsewhere asked for a row or a column.
  const wish = useGoTo()
  useEffect(() => {
    const { rows, content } = now.current
    const row = rows.findIndex(({ id }) => id === wish.setting)
    const column = content.candidates.findIndex(({ id }) => id === wish.candidateId)
    if (row === -1 && column === -1) return
    setSelection((before) => at(row === -1 ? before.row : row, column === -1 ? before.column : column))
    now.current.grid.current?.focus({ preventScroll: true })
  }, [wish])

  useEffect(() => {
    document.getElementById(cellId(selection.row, selection.column))?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
  }, [selection.row, selection.column])

  const go = useCallback((byRow: number, byColumn: number, extend: boolean) => {
    const { selection, rows, content } = now.current
    setSelection(move(selection, rows.length, content.candidates.length, byRow, byColumn, extend))
  }, [])

  const point = useCallback((row: number, column: number, extend: boolean) => {
    setSelection((before) => (extend ? { ...before, row, column } : at(row, column)))
  }, [])

  const open = useCallback((text?: string) => {
    const { selection, rows, columns } = now.current
    const row = rows[selection.row]
    const cell = row && columns[selection.column]?.[row.id]
    if (row && cell) setEditing({ text: text ?? String(cell.value) })
  }, [])

  const leave = useCallback(() => {
    setEditing(undefined)
    now.current.grid.current?.focus({ preventScroll: true })
  }, [])

  const commit = useCallback<LedgerKeys['commit']>(
    (text, then) => {
      const { selection, rows, columns, content } = now.current
      const row = rows[selection.row]
      const candidate = content.candidates[selection.column]
      if (!row || !candidate) return leave()
      try {
        edit((before) => {
          const after =
            then === 'fill'
              ? fillCells(before, rows, columns, selection, text)
              : typeInto(before, row, candidate.id, text, columns[selection.column])
          const changed = after.candidates.find(({ id }) => id === candidate.id)
          if (row.kind === 'setup' && changed) now.current.onSetup(candidate, changed)
          return after
        })
        leave()
        const [byRow, byColumn] = steps[then]
        go(byRow, byColumn, false)
      } catch (error) {
        if (!(error instanceof InputError)) throw error
        setEditing({ text, problem: `${error.message} ${error.remedy}` })
      }
    },
    [go, leave],
  )

  const layers = useCallback(() => {
    const { selection, rows, content } = now.current
    const row = rows[selection.row]
    const candidate = content.candidates[selection.column]
    if (row?.kind === 'setting' && candidate) now.current.onLayers(row, candidate)
  }, [])

  const attempt = useCallback((change: (content: LineupContent) => LineupContent) => {
    try {
      edit(change)
    } catch (error) {
      now.current.onRefusal(asRefusal(error))
    }
  }, [])

  const onKeyDown = useCallback(
    (event: KeyboardEvent) => {
      const { selection, rows, editing } = now.current
      if (editing || event.target !== event.currentTarget) return
      const step = arrows[event.key]
      const command = event.ctrlKey || event.metaKey
      if (step && !command) go(step[0], step[1], event.shiftKey)
      else if (event.key === 'Home') setSelection(at(command ? 0 : selection.row, 0))
      else if (event.key === 'End') setSelection(at(command ? rows.length - 1 : selection.row, now.current.content.candidates.length - 1))
      else if (event.key === 'Tab' && !event.shiftKey && selection.column < now.current.content.candidates.length - 1) go(0, 1, false)
      else if (event.key === 'Tab' && event.shiftKey && selection.column > 0) go(0, -1, false)
      else if (event.key === '?') showHelp(rows[selection.row] ? helpFor(rows[selection.row]!) : undefined)
      else if (event.key === 'Enter' && event.altKey) layers()
      else if (event.key === 'Enter' || event.key === 'F2') open()
      else if (event.key === 'Delete' || event.key === 'Backspace') attempt((content) => clearCells(content, rows, selection))
      else if (command && event.key.toLowerCase() === 'd') attempt((content) => fillRight(content, rows, selection))
      else if (event.key.length === 1 && !command && !event.altKey && /[\p{L}\p{N}.,+=*-]/u.test(event.key)) open(event.key)
      else return
      event.preventDefault()
    },
    [attempt, go, layers, open],
  )

  const onCopy = useCallback((event: ClipboardEvent) => {
    const { selection, rows, columns, editing } = now.current
    if (editing || event.target instanceof HTMLInputElement) return
    const { top, bottom, left, right } = extent(selection)
    const lines = rows.slice(top, bottom + 1).map((row) =>
      columns
        .slice(left, right + 1)
        .map((cells) => String(forSheet(cells[row.id]?.value) ?? ''))
        .join('\t'),
    )
    event.clipboardData.setData('text/plain', lines.join('\n'))
    event.preventDefault()
  }, [])

  const onPaste = useCallback(
    (event: ClipboardEvent) => {
      const { selection, rows, columns, editing } = now.current
      if (editing || event.target instanceof HTMLInputElement) return
      const text = event.clipboardData.getData('text/plain')
      if (text !== '') attempt((content) => pasteCells(content, rows, columns, selection, text))
      const left = untaken(text, rows)
      if (left.length > 0)
        toast(`Not taken, as no row of settings is called so: ${left.slice(0, 6).join(', ')}${left.length > 6 ? ' …' : ''}.`)
      event.preventDefault()
    },
    [attempt],
  )

  return {
    selection,
    editing,
    activeId: cellId(selection.row, selection.column),
    point,
    open,
    layers,
    commit,
    cancel: leave,
    onKeyDown,
    onCopy,
    onPaste,
  }
}
