import type { Candidate } from '@sable/contract/lineup'
import type { Shelf } from '@sable/contract/shelf'
import type { Profile } from '@sable/core/shelf/profile'

/** A candidate as a profile of the library would have it: with what it is for, as near as can be to another candidate. */
export function fromProfile({ name, materials, bores, values, overrides }: Profile, shelf: Shelf, like?: Candidate): Candidate {
  const fresh = firstCandidate(shelf, like, name)
  const own = materials.find((key) => shelf.materials.some((one) => one.key === key))
  const isItsOwn = own === undefined || materials.includes(fresh.material)
  const { spool: _, ...without } = fresh
  const filled = isItsOwn ? fresh : { ...without, material: own }
  const bore = shelf.nozzles.find(({ key }) => key === filled.nozzle)?.bore
  const fits = ({ bore: of }: { readonly bore: number }): boolean => !bores || (of >= bores[0] && of <= bores[1])
  const nozzle = bore !== undefined && fits({ bore }) ? undefined : shelf.nozzles.find((one) => !one.archived && fits(one))?.key
  return { ...filled, ...(nozzle === undefined ? {} : { nozzle }), values, overrides }
}

/** A candidate that takes everything from the shelf. */
export const firstCandidate = (shelf: Shelf, like?: Candidate, name = 'new'): Candidate => ({
  id: crypto.randomUUID(),
  name,
  printer: like?.printer ?? firstOf(shelf.printers),
  nozzle: like?.nozzle ?? firstOf(shelf.nozzles),
  material: like?.material ?? firstOf(shelf.materials),
  ...(like?.spool === undefined ? {} : { spool: like.spool }),
  values: {},
  overrides: [],
})

const firstOf = (records: readonly { readonly key: string; readonly archived: boolean }[]): string =>
  (records.find(({ archived }) => !archived) ?? records[0])?.key ?? ''
