import { directionWords, type LimitName, type Purpose } from '@sable/core/physics/strength/purpose'
import { formatDuration, formatForce } from '@sable/core/units/format'
import { wordsOf } from './ledger/verdicts/strengthVerdict'

export const limitNames: readonly LimitName[] = ['maxTimeS', 'maxMassG', 'maxCost', 'maxRaUm', 'minLoadN']

export const limitNouns: Readonly<Record<LimitName, string>> = {
  maxTimeS: 'time',
  maxMassG: 'mass',
  maxCost: 'cost',
  maxRaUm: 'surface',
  minLoadN: 'strength',
}

/** A value of a limit in its unit. */
export const shownLimit = (limit: LimitName, value: number): string => {
  switch (limit) {
    case 'maxTimeS':
      return formatDuration(value)
    case 'maxMassG':
      return `${value.toFixed(1)} g`
    case 'maxCost':
      return value.toFixed(2)
    case 'maxRaUm':
      return `${value.toFixed(1)} µm`
    case 'minLoadN':
      return formatForce(value)
  }
}

/** "under 3 h" */
export const limitWords: Readonly<Record<LimitName, (wanted: number) => string>> = {
  maxTimeS: (wanted) => `under ${shownLimit('maxTimeS', wanted)}`,
  maxMassG: (wanted) => `under ${shownLimit('maxMassG', wanted)}`,
  maxCost: (wanted) => `under ${shownLimit('maxCost', wanted)}`,
  maxRaUm: (wanted) => `surface under ${shownLimit('maxRaUm', wanted)}`,
  minLoadN: (wanted) => `at least ${shownLimit('minLoadN', wanted)}`,
}

/** "To carry a load: bend along Y · under 1 h · at least 60 N" */
export function purposeWords({ kind, load, limits }: Purpose): string {
  const kinds = { show: 'To look at', work: 'To work', load: 'To carry a load' } as const
  const along =
    load.axis === 'weakest'
      ? 'any axis'
      : load.axis === 'free'
        ? directionWords(load.azimuthDeg, load.elevationDeg)
        : load.axis.toUpperCase()
  const set = limitNames.flatMap((limit) => (limits[limit] === undefined ? [] : [limitWords[limit](limits[limit])]))
  return [`${kinds[kind]}: ${wordsOf({ kind: load.kind, along })}`, ...set].join(' · ')
}
