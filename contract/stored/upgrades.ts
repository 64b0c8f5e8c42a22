import { exceptionsBecomeOverrides, ofEach, ofObject } from '@sable/core/formats/upgrade'
import { byNamesOfToday } from '@sable/core/profile/settings'

/*
 * What earlier versions wrote, said as later ones do. Each stays as it is for good: desks, backups and files of that version
 * come for years. `stored.test.ts` and the desks in `server/database/releases` hold one of each.
 */

/** A lineup, with its columns. */
export const candidatesOverride = ofObject((lineup) => ({ ...lineup, candidates: ofEach(exceptionsBecomeOverrides)(lineup.candidates) }))

/** A shelf, with its profiles. */
export const profilesOverride = ofObject((shelf) => ({ ...shelf, profiles: ofEach(exceptionsBecomeOverrides)(shelf.profiles) }))

/** A search, with the column that it starts from. */
export const baseOverrides = ofObject((spec) => ({ ...spec, base: exceptionsBecomeOverrides(spec.base) }))

/** The mass of filament was `grams` in searches and `filament` elsewhere. */
export const gramsBecomeFilament = ofObject(({ grams, ...rest }) => ({ ...rest, ...(grams === undefined ? {} : { filament: grams }) }))

const figureIsFilament = ofObject((weighed) => (weighed.figure === 'grams' ? { ...weighed, figure: 'filament' } : weighed))
export const specWeighsFilament = ofObject((spec) => ({
  ...spec,
  objectives: ofEach(figureIsFilament)(spec.objectives),
  limits: ofEach(figureIsFilament)(spec.limits),
}))

/** Settings that have other names since a print was begun. */
export const resolvedByNamesOfToday = ofObject((print) => ({ ...print, resolved: byNamesOfToday(print.resolved) }))

/** A profile was for one material, or for any. */
export const profileHasMaterials = ofObject(({ material, ...profile }) => ({
  ...profile,
  ...(material === undefined ? {} : { materials: [material] }),
}))

/** A shelf, with its profiles. */
export const profilesHaveMaterials = ofObject((shelf) => ({ ...shelf, profiles: ofEach(profileHasMaterials)(shelf.profiles) }))

/** A purpose had one load along an axis, and no cases that are picked face by face. */
export const purposeHasCases = ofObject((purpose) => ({ cases: [], ...purpose }))
