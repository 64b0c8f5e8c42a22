import { limitedBy, limitNames } from '@sable/core/figures/figures'
import { wordsOf } from '@sable/core/figures/table/strength'
import { directionWords, type LimitName, type Purpose } from '@sable/core/physics/strength/purpose'
import { inMoney } from '../../ui/currency'

/** A value of a limit in its unit. */
export const shownLimit = (limit: LimitName, value: number): string => inMoney(limitedBy(limit).shown(value))

/** "under 3 h" */
export const limitWords = (limit: LimitName, wanted: number): string => limitedBy(limit).limit!.words(shownLimit(limit, wanted))

/** "To carry a load: bend along Y · under 1 h · at least 60 N" */
export function purposeWords({ kind, load, limits }: Purpose): string {
  const kinds = { show: 'To look at', work: 'To work', load: 'To carry a load' } as const
  const along =
    load.axis === 'weakest'
      ? 'any axis'
      : load.axis === 'free'
        ? directionWords(load.azimuthDeg, load.elevationDeg)
        : load.axis.toUpperCase()
  const set = limitNames.flatMap((limit) => (limits[limit] === undefined ? [] : [limitWords(limit, limits[limit])]))
  return [`${kinds[kind]}: ${wordsOf({ kind: load.kind, along })}`, ...set].join(' · ')
}
