import type { Candidate } from '@sable/contract/lineup'
import { type Shelf, setupOf } from '@sable/contract/shelf'
import { carriedValues, carry } from '@sable/core/setup/carry'
import type { Profile } from '@sable/core/shelf/profile'
import { madeWith } from '../../shelf/madeWith'
import { today } from '../../ui/today'

/** What the columns of a matrix are. */
export const acrossKinds = ['materials', 'spools', 'printers', 'nozzles'] as const
export type Across = (typeof acrossKinds)[number]

/** A row: a profile of the library, or a column of this lineup. */
export interface MatrixRow {
  readonly id: string
  readonly name: string
  readonly family: string
  readonly profile: Pick<Profile, 'values' | 'overrides'>
  /** What it was made with. */
  readonly from: Pick<Candidate, 'printer' | 'nozzle' | 'material' | 'spool'>
}

/** The columns of this lineup, as rows. */
export const OWN = 'this lineup'

export function rowsOf(shelf: Shelf, candidates: readonly Candidate[]): MatrixRow[] {
  const own = candidates.map(
    (candidate): MatrixRow => ({ id: candidate.id, name: candidate.name, family: OWN, profile: candidate, from: candidate }),
  )
  const kept = shelf.profiles
    .filter(({ archived }) => !archived)
    .map((profile): MatrixRow => ({ id: profile.key, name: profile.name, family: profile.family, profile, from: madeWith(profile, shelf) }))
    .sort((a, b) => a.family.localeCompare(b.family) || a.name.localeCompare(b.name))
  return [...own, ...kept]
}

export interface MatrixColumn {
  readonly key: string
  readonly name: string
}

/** What there is of a kind, but not what was put away or used up. */
export const columnsOf = (shelf: Shelf, across: Across): MatrixColumn[] =>
  shelf[across].filter((record) => !record.archived && !('empty' in record && record.empty)).map(({ key, name }) => ({ key, name }))

/**
 * A cell as a column of the ledger: the profile, printed with what the column says and otherwise with what it was made with.
 *
 * @param isCarried whether its values are carried over to that
 */
export function cellCandidate(row: MatrixRow, across: Across, key: string, shelf: Shelf, isCarried: boolean): Candidate {
  const { spool: _, ...from } = row.from
  const spool = across === 'spools' ? shelf.spools.find((one) => one.key === key) : undefined
  const to = {
    ...(across === 'printers' || across === 'nozzles' ? row.from : from),
    ...(across === 'materials' ? { material: key } : {}),
    ...(spool ? { spool: spool.key, material: spool.material } : {}),
    ...(across === 'printers' ? { printer: key } : {}),
    ...(across === 'nozzles' ? { nozzle: key } : {}),
  }
  const [before, after] = [setupOf(row.from, shelf, today()), setupOf(to, shelf, today())]
  const values =
    isCarried && before && after ? carriedValues(row.profile.values, carry(row.profile.values, before, after)) : row.profile.values
  return { ...to, id: `${row.id} ${key}`, name: row.name, values, overrides: [...row.profile.overrides] }
}
