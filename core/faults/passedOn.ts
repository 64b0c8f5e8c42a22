import type { Weighed } from './weigh'

/** A case as a file that is passed on says of its causes: it can be read without the print. */
export const causesAsFile = (weighed: readonly Weighed[]) =>
  weighed.map(({ cause, odds, ruledOut, factors }) => ({
    id: cause.id,
    name: cause.name,
    odds,
    ruledOut,
    evidence: factors.map(({ what, factor, basis }) => ({ what, factor, basis })),
  }))
