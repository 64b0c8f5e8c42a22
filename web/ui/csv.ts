import Papa from 'papaparse'
import { forSheet, useDecimalMark } from './decimalMark'

/** Digits that no printer and no scale could tell apart any more. */
const rounded = (value: unknown): unknown =>
  forSheet(typeof value === 'number' && !Number.isInteger(value) ? Number(value.toPrecision(7)) : value)

/**
 * Rows as CSV: numbers to seven digits, and the mark by which spreadsheets know that it is Unicode. Where the comma is the decimal mark
 * cells are parted by semicolons, as spreadsheets of such places write and read it.
 */
export const toCsv = (rows: readonly (readonly unknown[])[] | readonly Readonly<Record<string, unknown>>[]): string =>
  `\uFEFF${Papa.unparse(
    rows.map((row) =>
      Array.isArray(row) ? row.map(rounded) : Object.fromEntries(Object.entries(row).map(([name, value]) => [name, rounded(value)])),
    ) as unknown[][],
    { delimiter: useDecimalMark.getState().mark === 'comma' ? ';' : ',' },
  )}`
