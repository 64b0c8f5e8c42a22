import type { LineupContent } from '@sable/contract/lineup'
import { parseValue, type SettingName } from '@sable/core/profile/settings'
import { inOwnUnit, workedOut } from '@sable/core/profile/typedValue'
import { InputError } from '@sable/core/units/errors'
import Papa from 'papaparse'
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
    if (text.trim() === '') return setValue(content, candidateId, row.id, undefined)
    const worked = workedOut(row.id, text, numberOf(row.id))
    return setValue(content, candidateId, row.id, parseValue(row.id, inOwnUnit(row.id, worked, numberOf)))
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
  const block = readBlock(text)
  const labelled = byLabels(block, rows)
  if (labelled) return pasteLabelled(content, rows, columns, selection, labelled)
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

/** Cells as a spreadsheet puts them on the clipboard: divided by tabs, quoted where they hold one or a line's end. */
const readBlock = (text: string): string[][] => Papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: '\t' }).data

/** A line of a block that names a setting in its first cell, with what stands behind it; units and empty cells between are passed over. */
interface Labelled {
  readonly label: string
  readonly row: LedgerRow | undefined
  readonly values: readonly string[]
}

/** Reads a block whose first column names rows; nothing where it does not. */
function byLabels(block: readonly (readonly string[])[], rows: readonly LedgerRow[]): readonly Labelled[] | undefined {
  const plain = (label: string): string =>
    label
      .toLowerCase()
      .replace(/\s*[,(].*$/, '')
      .trim()
  const named = (label: string): LedgerRow | undefined => rows.find((row) => plain(row.label) === plain(label) || row.id === label.trim())
  if (block.length < 2 || block[0]!.length < 2) return undefined
  const lines = block.map(([label = '', ...values]): Labelled => ({ label, row: named(label), values }))
  // Two names that are known are no chance.
  return lines.filter(({ row }) => row).length >= 2 ? lines : undefined
}

/** @throws InputError naming, by their labels on screen, the lines that are not taken; nothing is changed then */
function pasteLabelled(
  content: LineupContent,
  rows: readonly LedgerRow[],
  columns: readonly Column[],
  selection: Selection,
  lines: readonly Labelled[],
): LineupContent {
  const { left } = extent(selection)
  let changed = content
  for (const { row, label, values } of lines) {
    // A heading, a figure, or a group is no setting: it is left.
    if (!row) continue
    const own = values.filter((value) => value.trim() !== '' && !isUnit(value))
    for (const [c, value] of own.entries()) {
      const candidate = content.candidates[left + c]
      if (!candidate) continue
      try {
        changed = typeInto(changed, row, candidate.id, value, columns[left + c])
      } catch (error) {
        if (!(error instanceof InputError)) throw error
        throw new InputError(error.code, `${error.message}`, `${label}, ${candidate.name}`, error.remedy)
      }
    }
  }
  return rows.length > 0 ? changed : content
}

const isUnit = (text: string): boolean => /^(mm|mm\/s|mm\/s²|mm³\/s|%|°|°C|s)$/.test(text.trim())

/** Labels of a block that name nothing that can be pasted. */
export function untaken(text: string, rows: readonly LedgerRow[]): readonly string[] {
  return (byLabels(readBlock(text), rows) ?? []).filter(({ row, label }) => !row && label.trim() !== '').map(({ label }) => label.trim())
}

/** Puts one text into every cell of a selection. @throws InputError for the first cell that cannot take it; nothing is changed then */
export function fillCells(
  content: LineupContent,
  rows: readonly LedgerRow[],
  columns: readonly Column[],
  selection: Selection,
  text: string,
): LineupContent {
  const ids = content.candidates.map(({ id }) => id)
  return overCells(content, rows, selection, (changed, row, id) => typeInto(changed, row, id, text, columns[ids.indexOf(id)]))
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
