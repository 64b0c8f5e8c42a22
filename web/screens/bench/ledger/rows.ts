import type { Candidate } from '@sable/contract/lineup'
import type { Shelf } from '@sable/contract/shelf'
import { applies } from '@sable/core/profile/applies'
import { type Origin, resolveSettings } from '@sable/core/profile/resolve'
import { type Group, groups, type Setting } from '@sable/core/profile/setting'
import { definitionOf, type SettingName, settingNames, settings } from '@sable/core/profile/settings'
import { thicknessOf } from '@sable/core/profile/typedValue'
import type { SetupField } from '../../../desk/edits'

/** An editable row of the ledger: what a candidate prints with, or one setting. */
export type LedgerRow =
  | {
      readonly kind: 'setup'
      readonly id: SetupField
      readonly label: string
      readonly choices: readonly { readonly key: string; readonly name: string }[]
    }
  | { readonly kind: 'setting'; readonly id: SettingName; readonly label: string; readonly setting: Setting }

export interface RowGroup {
  readonly name: Group | 'Setup'
  readonly shapes: string
  readonly rows: readonly LedgerRow[]
}

const shapes: Readonly<Record<Group, string>> = {
  Line: 'what one line is',
  Skin: 'what shows and what carries',
  Core: 'what lies inside',
  Pace: 'how fast it runs',
  Air: 'heat and cooling',
  Pull: 'what filament does on the way',
  Props: 'what holds overhangs up',
  Foot: 'what stands on the bed',
}

/** Every row, in groups. */
export function ledgerRows(shelf: Shelf): RowGroup[] {
  const named = (records: readonly { readonly key: string; readonly name: string }[]) => records.map(({ key, name }) => ({ key, name }))
  return [
    {
      name: 'Setup',
      shapes: 'what it prints with',
      rows: [
        { kind: 'setup', id: 'printer', label: 'Printer', choices: named(shelf.printers) },
        { kind: 'setup', id: 'nozzle', label: 'Nozzle', choices: named(shelf.nozzles) },
        { kind: 'setup', id: 'material', label: 'Material', choices: named(shelf.materials) },
      ],
    },
    ...groups.map((group) => ({
      name: group,
      shapes: shapes[group],
      rows: settingNames
        .filter((name) => settings[name].group === group)
        .map((name): LedgerRow => ({ kind: 'setting', id: name, label: settings[name].label, setting: definitionOf(name) })),
    })),
  ]
}

/** What stands in a cell. */
export interface Cell {
  readonly value: number | string
  readonly text: string
  /** The same in another way: how thick so many walls are. */
  readonly also: string | undefined
  /** Where the value comes from. */
  readonly origin: Origin
  readonly differs: boolean
  /** Whether the setting means anything beside this candidate's others. */
  readonly applies: boolean
}

/** The cells of one candidate by row; undefined when the shelf lacks what it names. */
export function cellsOf(candidate: Candidate, first: Candidate | undefined, shelf: Shelf): Readonly<Record<string, Cell>> | undefined {
  const own = resolvedValues(candidate, shelf)
  const base = first && first.id !== candidate.id ? resolvedValues(first, shelf) : undefined
  if (!own) return undefined
  return Object.fromEntries(
    Object.entries(own).map(([id, cell]) => [id, { ...cell, differs: base !== undefined && base[id]?.value !== cell.value }]),
  )
}

function resolvedValues(candidate: Candidate, shelf: Shelf): Record<string, Omit<Cell, 'differs'>> | undefined {
  const printer = shelf.printers.find(({ key }) => key === candidate.printer)
  const nozzle = shelf.nozzles.find(({ key }) => key === candidate.nozzle)
  const material = shelf.materials.find(({ key }) => key === candidate.material)
  if (!printer || !nozzle || !material) return undefined
  const { settings: values, origins } = resolveSettings({ printer, nozzle, material }, candidate.values)
  const setup = ({ key, name }: { readonly key: string; readonly name: string }): Omit<Cell, 'differs'> => ({
    value: key,
    text: name,
    also: undefined,
    origin: 'profile',
    applies: true,
  })
  const thickness = (name: SettingName): string | undefined => {
    const mm = thicknessOf(name, Number(values[name]), (other) => Number(values[other]))
    return mm === undefined ? undefined : `${Number(mm.toFixed(2))} mm`
  }
  return {
    printer: setup(printer),
    nozzle: setup(nozzle),
    material: setup(material),
    ...Object.fromEntries(
      settingNames.map((name) => [
        name,
        {
          value: values[name],
          text: formatValue(definitionOf(name), values[name]),
          also: thickness(name),
          origin: origins[name],
          applies: applies(name, values),
        },
      ]),
    ),
  }
}

/** A value as it stands in a cell: as many decimals as its step has, so that columns line up. */
export function formatValue(setting: Setting, value: number | string): string {
  if (typeof value === 'string' || setting.kind === 'choice') return inWords(String(value))
  const digits = setting.step >= 1 ? 0 : (String(setting.step).split('.')[1]?.length ?? 0)
  const shown = value.toFixed(digits)
  return Number(shown) === value ? shown : String(value)
}

/** A choice as a person reads it: "insideFirst" is "inside first". */
export const inWords = (choice: string): string => choice.replace(/([a-z])([A-Z])/g, (_, a: string, b: string) => `${a} ${b.toLowerCase()}`)

/**
 * Keeps the rows that match a search or differ between columns; empty groups disappear. Without a search, rows that mean
 * nothing in any column are left out.
 */
export function filterRows(
  all: readonly RowGroup[],
  search: string,
  differing: ReadonlySet<string> | undefined,
  meaningless: ReadonlySet<string> = new Set(),
): RowGroup[] {
  const wanted = search.trim().toLowerCase()
  const matches = (row: LedgerRow): boolean => {
    if (differing && !differing.has(row.id)) return false
    if (wanted === '') return !meaningless.has(row.id)
    const words = row.kind === 'setting' ? [row.label, row.id, ...row.setting.synonyms, row.setting.group] : [row.label]
    return words.some((word) => word.toLowerCase().includes(wanted))
  }
  return all.map((group) => ({ ...group, rows: group.rows.filter(matches) })).filter((group) => group.rows.length > 0)
}
