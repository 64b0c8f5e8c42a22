import { noPurpose, type Purpose, purposeSchema } from '@sable/core/physics/strength/purpose'
import { loadKinds } from '@sable/core/physics/strength/sectionLoads'
import { InputError } from '@sable/core/units/errors'
import { typedNumber } from '@sable/core/units/typedNumber'
import type { Command } from 'commander'

/** What says how a part is to be printed; over a profile file where one is given. */
export interface SharedOptions {
  readonly printer?: string
  readonly nozzle?: string
  readonly material?: string
  readonly spool?: string
  readonly set: readonly string[]
  readonly scale: number
  readonly rotate: [number, number, number]
  readonly load?: Purpose['load'] | undefined
  readonly grip?: readonly [heldTo: number, loadedFrom: number]
  readonly json?: boolean
}

/** Options that choose setup, settings and placement. */
export const withOptions = (command: Command): Command =>
  command
    .option('--printer <key>', 'printer from the shelf')
    .option('--nozzle <key or mm>', 'nozzle from the shelf, or its bore, mm')
    .option('--material <key>', 'material from the shelf')
    .option('--spool <key>', 'reel of an exported shelf')
    .option(
      '--set <name=value>',
      'set one setting; may be given often',
      (value: string, before: string[]) => [...before, value],
      [] as string[],
    )
    .option('--scale <factor>', 'scale the part', readNumber('--scale'), 1)
    .option('--rotate <x,y,z>', 'turn the part, degrees about each axis', readAngles, [0, 0, 0])
    .option('--json', 'print one JSON object')

/** Those and the load that the part has to bear. */
export const withLoad = (command: Command): Command =>
  withOptions(command)
    .option(
      '--load <kind:axis>',
      'load of the part: bend:x, pull:weakest, crush:30,45 (from x towards y, up from the bed; degrees)',
      readLoad,
    )
    .option('--grip <from,to>', 'held up to and loaded from, per cent of the length', readGrip)

export function readNumber(option: string) {
  return (text: string): number => {
    const value = typedNumber(text)
    if (!(value > 0 && value < Infinity))
      throw new InputError('option-not-a-number', `"${text}" is not a number above 0.`, option, `Write for example ${option} 0.4.`)
    return value
  }
}

export function readAngles(text: string): [number, number, number] {
  const angles = text.split(',').map(Number)
  if (angles.length !== 3 || !angles.every(Number.isFinite))
    throw new InputError('option-not-angles', `"${text}" is not three angles.`, '--rotate', 'Write for example --rotate 90,0,0.')
  return angles as [number, number, number]
}

function readLoad(text: string): Purpose['load'] {
  const [kind, where = 'weakest'] = text.split(':')
  const [azimuthDeg, elevationDeg] = where.split(',').map(Number)
  const isFree = Number.isFinite(azimuthDeg) && Number.isFinite(elevationDeg)
  const parsed = purposeSchema.shape.load.safeParse({ kind, ...(isFree ? { axis: 'free', azimuthDeg, elevationDeg } : { axis: where }) })
  if (parsed.success) return parsed.data
  throw new InputError(
    'option-not-a-load',
    `"${text}" is no load.`,
    '--load',
    `Write one of ${loadKinds.join(', ')}, a colon, and x, y, z, weakest or two angles, for example --load bend:x.`,
  )
}

function readGrip(text: string): [number, number] {
  const [heldTo, loadedFrom] = text.split(',').map(Number)
  const parsed = purposeSchema.shape.load.safeParse({ ...noPurpose.load, heldTo, loadedFrom })
  if (parsed.success) return [parsed.data.heldTo, parsed.data.loadedFrom]
  throw new InputError(
    'option-not-a-grip',
    `"${text}" does not say where the part is held and loaded.`,
    '--grip',
    'Give 0 to 45 and 55 to 100 per cent, for example --grip 10,90.',
  )
}
