import { nearestNames } from '@sable/core/profile/nearestNames'
import type { Setup } from '@sable/core/setup/resolve'
import { materialOf } from '@sable/core/shelf/spool'
import { InputError } from '@sable/core/units/errors'
import { typedNumber } from '@sable/core/units/typedNumber'
import { records } from './shelfInUse'

/** What a command says about the machine; absent means the default. */
export interface SetupChoice {
  readonly printer?: string | undefined
  /** Key, or bore, mm. */
  readonly nozzle?: number | string | undefined
  readonly material?: string | undefined
  readonly spool?: string | undefined
}

const DEFAULTS = { printer: 'lugger', nozzle: 0.4, material: 'pla' } as const

/** Finds the records that a command names, on the shelf that is in use. @throws InputError listing what there is */
export function findSetup(choice: SetupChoice): Setup {
  const { printers, materials, spools } = records()
  const spool = choice.spool === undefined ? undefined : byKey('--spool', spools, choice.spool)
  const material = byKey('--material', materials, spool?.material ?? choice.material ?? usual(materials, DEFAULTS.material))
  return {
    printer: byKey('--printer', printers, choice.printer ?? usual(printers, DEFAULTS.printer)),
    nozzle: nozzleOf(choice.nozzle ?? DEFAULTS.nozzle),
    material: materialOf(material, spool),
    ...(spool ? { spool } : {}),
  }
}

/** The usual one where it is there, else the first. */
const usual = (known: readonly { readonly key: string }[], key: string): string =>
  known.some((record) => record.key === key) ? key : (known[0]?.key ?? key)

/** A nozzle by its key, or the plain one of a bore. */
function nozzleOf(given: number | string): Setup['nozzle'] {
  const { nozzles } = records()
  const bore = typeof given === 'number' ? given : typedNumber(given)
  const ofBore = nozzles.find((record) => record.bore === bore)
  return ofBore ?? byKey('--nozzle', nozzles, Number.isNaN(bore) ? String(given) : `${bore} mm`)
}

function byKey<T extends { readonly key: string }>(option: string, known: readonly T[], key: string): T {
  const found = known.find((record) => record.key === key)
  if (found) return found
  const keys = known.map((record) => record.key)
  throw new InputError('record-unknown', `The shelf has no "${key}".`, option, nearestNames(key, keys, 'keys'))
}
