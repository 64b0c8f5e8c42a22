import type { Candidate } from '@sable/contract/lineup'
import { type Kept, type Shelf, setupOf } from '@sable/contract/shelf'
import { applies } from '@sable/core/profile/applies'
import { definitionOf, type SettingName, settingNames, settings } from '@sable/core/profile/settings'
import { type Group, groups, type Setting } from '@sable/core/profile/table/setting'
import { thicknessOf } from '@sable/core/profile/typedValue'
import { type Origin, resolveSettings } from '@sable/core/setup/resolve'
import { inWords } from '@sable/core/units/format'
import type { SetupField } from '../../desk/edits'

/** An editable row of the ledger: what a candidate prints with, or one setting. */
export type LedgerRow =
  | {
      readonly kind: 'setup'
      readonly id: SetupField
      readonly label: string
      readonly choices: readonly SetupChoice[]
    }
  | { readonly kind: 'setting'; readonly id: SettingName; readonly label: string; readonly setting: Setting }

export interface SetupChoice {
  /** Empty for none. */
  readonly key: string
  readonly name: string
  /** What a spool is of. */
  readonly material?: string
}

export interface RowGroup {
  readonly name: Group | 'Setup'
  readonly shapes: string
  readonly rows: readonly LedgerRow[]
}

const shapes: Readonly<Record<Group, string>> = {
  'Lines and layers': 'what one line is',
  'Walls, tops and bottoms': 'what shows and what carries',
  Infill: 'what lies inside',
  'Speed and acceleration': 'how fast it runs',
  'Heat, cooling, overhangs': 'what keeps its shape',
  'Retraction and travel': 'what filament does on the way',
  Supports: 'what holds overhangs up',
  'First layer and brim': 'what stands on the bed',
}

/** Every row, in groups. What is archived is offered only where a candidate has it already. */
export function ledgerRows(shelf: Shelf, candidates: readonly Candidate[] = []): RowGroup[] {
  const used = new Set(candidates.flatMap(({ printer, nozzle, material, spool }) => [printer, nozzle, material, spool]))
  const named = (records: readonly (SetupChoice & Kept)[]): SetupChoice[] =>
    records.filter(({ archived, key }) => !archived || used.has(key)).map(({ key, name }) => ({ key, name }))
  const spools = shelf.spools.filter(({ archived, empty, key }) => (!archived && !empty) || used.has(key))
  return [
    {
      name: 'Setup',
      shapes: 'what it prints with',
      rows: [
        { kind: 'setup', id: 'printer', label: 'Printer', choices: named(shelf.printers) },
        { kind: 'setup', id: 'nozzle', label: 'Nozzle', choices: named(shelf.nozzles) },
        { kind: 'setup', id: 'material', label: 'Material', choices: named(shelf.materials) },
        {
          kind: 'setup',
          id: 'spool',
          label: 'Spool',
          choices: [{ key: '', name: 'none' }, ...spools.map(({ key, name, material }) => ({ key, name, material }))],
        },
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
  const chosen = setupOf(candidate, shelf)
  if (!chosen) return undefined
  const { settings: values, origins } = resolveSettings(chosen, candidate.values)
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
    printer: setup(chosen.printer),
    nozzle: setup(chosen.nozzle),
    material: setup(chosen.material),
    spool: setup(chosen.spool ?? { key: '', name: 'none' }),
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
  if (value === 0 && setting.zero !== undefined) return setting.zero
  const digits = setting.step >= 1 ? 0 : (String(setting.step).split('.')[1]?.length ?? 0)
  const shown = value.toFixed(digits)
  // Sums of decimals leave digits that nobody typed.
  const asTyped = Number(value.toPrecision(10))
  return Number(shown) === asTyped ? shown : String(asTyped)
}

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
