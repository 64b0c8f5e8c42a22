import type { LineupContent } from '@sable/contract/lineup'
import { parseValue, type SettingName } from '@sable/core/profile/settings'
import { inOwnUnit } from '@sable/core/profile/typedValue'
import { InputError } from '@sable/core/units/errors'
import { setSetup, setValue } from '../../desk/edits'
import type { Cell, LedgerRow } from './rows'
import { extent, type Selection } from './selection'

/** What stands in the cells of a column, by row. */
export type Column = Readonly<Record<string, Cell>>

/**
 * Puts typed text, with a unit or without, into a cell. Empty text gives the value back to the shelf.
 *
 * @param column what stands in the candidate's other cells
 * @throws InputError
 */
export function typeInto(
  content: LineupContent,
  row: LedgerRow,
  candidateId: string,
  text: string,
  column: Column | undefined,
): LineupContent {
  if (row.kind === 'setting') {
    const numberOf = (name: SettingName): number => Number(column?.[name]?.value)
    return setValue(content, candidateId, row.id, text.trim() === '' ? undefined : parseValue(row.id, inOwnUnit(row.id, text, numberOf)))
  }
  const wanted = text.trim().toLowerCase()
  const choice = row.choices.find(({ key, name }) => key.toLowerCase() === wanted || name.toLowerCase() === wanted)
  if (!choice)
    throw new InputError(
      'record-unknown',
      `The shelf has no ${row.label.toLowerCase()} "${text.trim()}".`,
      row.label,
      `Choose one of ${row.choices.map(({ name }) => name).join(', ')}.`,
    )
  return setSetup(content, candidateId, row.id, choice.key === '' ? undefined : choice.key, choice.material)
}

/** Gives the values of a selection back to the shelf; what a candidate prints with cannot be empty and stays. */
export function clearCells(content: LineupContent, rows: readonly LedgerRow[], selection: Selection): LineupContent {
  return overCells(content, rows, selection, (changed, row, id) =>
    row.kind === 'setting' ? setValue(changed, id, row.id, undefined) : changed,
  )
}

/** Copies the leftmost column of a selection over the columns to its right. */
export function fillRight(content: LineupContent, rows: readonly LedgerRow[], selection: Selection): LineupContent {
  const { left, right } = extent(selection)
  const source = content.candidates[left]
  if (!source) return content
  const target = right > left ? selection : { ...selection, column: content.candidates.length - 1, fromColumn: left }
  return overCells(content, rows, target, (changed, row, id) => {
    if (id === source.id) return changed
    return row.kind === 'setting'
      ? setValue(changed, id, row.id, source.values[row.id])
      : setSetup(changed, id, row.id, source[row.id], source.material)
  })
}

/**
 * Pastes a block of text cells, tab- and newline-separated, with its top left corner on the selection's. A single value
 * fills the whole selection.
 *
 * @throws InputError for the first cell that cannot be read; nothing is changed then
 */
export function pasteCells(
  content: LineupContent,
  rows: readonly LedgerRow[],
  columns: readonly Column[],
  selection: Selection,
  text: string,
): LineupContent {
  const block = text
    .replace(/\r?\n$/, '')
    .split(/\r?\n/)
    .map((line) => line.split('\t'))
  const { top, left, bottom, right } = extent(selection)
  const single = block.length === 1 && block[0]?.length === 1
  const height = single ? bottom - top + 1 : block.length
  const width = single ? right - left + 1 : Math.max(...block.map((line) => line.length))
  let changed = content
  for (let r = 0; r < height; r++) {
    for (let c = 0; c < width; c++) {
      const row = rows[top + r]
      const candidate = content.candidates[left + c]
      const value = single ? block[0]?.[0] : block[r]?.[c]
      if (row && candidate && value !== undefined) changed = typeInto(changed, row, candidate.id, value, columns[left + c])
    }
  }
  return changed
}

function overCells(
  content: LineupContent,
  rows: readonly LedgerRow[],
  selection: Selection,
  change: (content: LineupContent, row: LedgerRow, candidateId: string) => LineupContent,
): LineupContent {
  const { top, bottom, left, right } = extent(selection)
  let changed = content
  for (const row of rows.slice(top, bottom + 1)) {
    for (const candidate of content.candidates.slice(left, right + 1)) changed = change(changed, row, candidate.id)
  }
  return changed
}
