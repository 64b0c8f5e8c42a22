import { limitedBy, limitNames } from '@sable/core/figures/figures'
import { wordsOf } from '@sable/core/figures/table/strength'
import { wholeCases } from '@sable/core/physics/strength/pickedCases'
import { directionWords, type LimitName, type Purpose } from '@sable/core/physics/strength/purpose'
import { inMoney } from '../../ui/currency'

/** A value of a limit in its unit. */
export const shownLimit = (limit: LimitName, value: number): string => inMoney(limitedBy(limit).shown(value))

/** "under 3 h" */
export const limitWords = (limit: LimitName, wanted: number): string => limitedBy(limit).limit!.words(shownLimit(limit, wanted))

/** "To carry a load: bend along Y · under 1 h · at least 60 N", or the names of its cases. */
export function purposeWords({ kind, load, cases, limits }: Purpose): string {
  const kinds = { show: 'To look at', work: 'To work', load: 'To carry a load' } as const
  const along =
    load.axis === 'weakest'
      ? 'any axis'
      : load.axis === 'free'
        ? directionWords(load.azimuthDeg, load.elevationDeg)
        : load.axis.toUpperCase()
  const set = limitNames.flatMap((limit) => (limits[limit] === undefined ? [] : [limitWords(limit, limits[limit])]))
  const picked = wholeCases({ cases }).map(({ name }) => name)
  return [`${kinds[kind]}: ${picked.length > 0 ? picked.join(', ') : wordsOf({ kind: load.kind, along })}`, ...set].join(' · ')
}
