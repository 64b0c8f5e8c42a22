import type { Candidate } from '@sable/contract/lineup'

/** A candidate that takes everything from the shelf. */
export const firstCandidate = (like?: Candidate, name = 'new'): Candidate => ({
  id: crypto.randomUUID(),
  name,
  printer: like?.printer ?? 'lugger',
  nozzle: like?.nozzle ?? 'bore-0.4',
  material: like?.material ?? 'pla',
  ...(like?.spool === undefined ? {} : { spool: like.spool }),
  values: {},
  overrides: [],
})
