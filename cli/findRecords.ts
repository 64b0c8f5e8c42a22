import { nearestNames } from '@sable/core/profile/nearestNames'
import type { Setup } from '@sable/core/setup/resolve'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { InputError } from '@sable/core/units/errors'
import { typedNumber } from '@sable/core/units/typedNumber'

/** What a command says about the machine; absent means the default. */
export interface SetupChoice {
  readonly printer?: string | undefined
  /** Key, or bore, mm. */
  readonly nozzle?: number | string | undefined
  readonly material?: string | undefined
}

const DEFAULTS = { printer: 'lugger', nozzle: 0.4, material: 'pla' } as const

/** Finds the starter records that a command names. @throws InputError listing what there is */
export function findSetup(choice: SetupChoice): Setup {
  return {
    printer: byKey('--printer', starterPrinters, choice.printer ?? DEFAULTS.printer),
    nozzle: nozzleOf(choice.nozzle ?? DEFAULTS.nozzle),
    material: byKey('--material', starterMaterials, choice.material ?? DEFAULTS.material),
  }
}

/** A nozzle by its key, or the plain one of a bore. */
function nozzleOf(given: number | string): Setup['nozzle'] {
  const bore = typeof given === 'number' ? given : typedNumber(given)
  const ofBore = starterNozzles.find((record) => record.bore === bore)
  return ofBore ?? byKey('--nozzle', starterNozzles, Number.isNaN(bore) ? String(given) : `${bore} mm`)
}

function byKey<T extends { readonly key: string }>(option: string, records: readonly T[], key: string): T {
  const found = records.find((record) => record.key === key)
  if (found) return found
  const known = records.map((record) => record.key)
  throw new InputError('record-unknown', `The shelf has no "${key}".`, option, nearestNames(key, known, 'keys'))
}
