import { InputError } from '@sable/core/errors'
import type { Setup } from '@sable/core/profile/resolve'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'

/** What a command says about the machine; absent means the default. */
export interface SetupChoice {
  readonly printer?: string | undefined
  /** Bore, mm. */
  readonly nozzle?: number | undefined
  readonly material?: string | undefined
}

const DEFAULTS = { printer: 'lugger', nozzle: 0.4, material: 'pla' } as const

/** Finds the starter records that a command names. @throws InputError listing what there is */
export function findSetup(choice: SetupChoice): Setup {
  const bore = choice.nozzle ?? DEFAULTS.nozzle
  const nozzle = starterNozzles.find((record) => record.bore === bore)
  if (!nozzle)
    throw unknown(
      '--nozzle',
      `${bore} mm`,
      starterNozzles.map((record) => `${record.bore}`),
    )
  return {
    printer: byKey('--printer', starterPrinters, choice.printer ?? DEFAULTS.printer),
    nozzle,
    material: byKey('--material', starterMaterials, choice.material ?? DEFAULTS.material),
  }
}

function byKey<T extends { readonly key: string }>(option: string, records: readonly T[], key: string): T {
  const found = records.find((record) => record.key === key)
  if (!found)
    throw unknown(
      option,
      key,
      records.map((record) => record.key),
    )
  return found
}

const unknown = (option: string, given: string, known: readonly string[]): InputError =>
  new InputError('record-unknown', `The shelf has no "${given}".`, option, `Choose one of ${known.join(', ')}.`)
