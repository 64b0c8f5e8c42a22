import { create } from 'zustand'

/** How numbers stand in what goes to a spreadsheet: one that reads a comma takes 0.2 for a day in February. */
export const decimalMarks = [
  { id: 'point', name: '1.5 in CSV' },
  { id: 'comma', name: '1,5 in CSV' },
] as const
export type DecimalMark = (typeof decimalMarks)[number]['id']

const KEY = 'sable.decimalMark'

/** The decimal mark of files and copies: chosen once on this machine. */
export const useDecimalMark = create<{ readonly mark: DecimalMark }>()(() => ({
  mark: globalThis.localStorage?.getItem(KEY) === 'comma' ? 'comma' : 'point',
}))

export function chooseDecimalMark(mark: DecimalMark): void {
  localStorage.setItem(KEY, mark)
  useDecimalMark.setState({ mark })
}

/** A value as a spreadsheet reads it here. */
export const forSheet = (value: unknown): unknown =>
  typeof value === 'number' && useDecimalMark.getState().mark === 'comma' ? String(value).replace('.', ',') : value
