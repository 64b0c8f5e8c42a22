import type { MotionPrinter } from '../motion/moveChunk'
import { type Motion, motionWork } from '../motion/planMotion'
import { startUpTime } from '../motion/startUp'
import { heatOn } from '../profile/heatOn'
import { Scopes } from '../profile/overrides'
import type { Settings } from '../profile/settings'
import { knownSetup } from '../setup/knownSetup'
import type { Setup } from '../setup/resolve'
import { InputError } from '../units/errors'
import type { Work } from '../work/work'
import { placedFootprint } from './footprint'
import { mergePaths, type PlatePath, SHARED } from './mergePaths'
import type { PlateOrder, PlatePart, Standing } from './platePart'
import { type Stood, standsWrong } from './turns'

export interface PlatePartFigures {
  readonly name: string
  /** Of its own moves, and from the start of the plate until its last, s. */
  readonly timeS: number
  readonly doneAtS: number
  readonly massG: number
  readonly lengthMm: number
  readonly materialCost: number
}

/** What is foretold of a plate. */
export interface PlateFigures {
  readonly parts: readonly PlatePartFigures[]
  /** Of all moves; of those that belong to no part; and of heating, homing and purging where that is known, s. */
  readonly timeS: number
  readonly sharedS: number
  readonly startUpS?: number
  readonly massG: number
  readonly lengthMm: number
  readonly cost: number
  readonly heightMm: number
  /** Parts in the order in which each is begun. */
  readonly turns: readonly number[]
  /** What keeps it from being printed, in sentences. */
  readonly problems: readonly InputError[]
}

export interface ForetoldPlate {
  readonly figures: PlateFigures
  readonly merged: PlatePath
  readonly motion: Motion
}

/**
 * Joins the paths of parts where they stand, and plans the motion of all of it at once.
 *
 * @param setup with which all of them are printed
 * @throws InputError where nothing can be joined at all; what only must not be printed is told as a problem
 */
export function* plateWork(
  parts: readonly PlatePart[],
  standing: readonly Standing[],
  order: PlateOrder,
  given: Setup,
): Work<ForetoldPlate> {
  const setup = knownSetup(given)
  const { printer, material, constants } = setup
  if (parts.length === 0) throw new InputError('plate-empty', 'There is no part on the plate.', 'plate', 'Add a column of a lineup.')
  const merged = mergePaths(parts, standing, order)
  const motionPrinter: MotionPrinter = {
    keeps: constants.print.acceleration,
    limits: printer.limits,
    cornerSchool: printer.cornerSchool,
    filamentDiameter: printer.filamentDiameter,
  }
  const motion = yield* motionWork(merged.path, new Scopes(merged.settings, merged.overrides), motionPrinter)
  const pace = constants.print.pace
  const own = parts.map(() => ({ timeS: 0, doneAtS: 0 }))
  let [timeS, sharedS] = [0, 0]
  for (let m = 0; m < merged.owner.length; m++) {
    const seconds = pace * motion.duration[m]!
    timeS += seconds
    const owner = merged.owner[m]!
    if (owner === SHARED) sharedS += seconds
    else {
      own[owner]!.timeS += seconds
      own[owner]!.doneAtS = timeS
    }
  }
  const told = parts.map(
    ({ name, massG, lengthMm }, i): PlatePartFigures => ({
      name,
      ...own[i]!,
      massG,
      lengthMm,
      materialCost: (massG / 1000) * material.pricePerKg,
    }),
  )
  const startUpS = startUpTime(printer, hottestOf(parts), constants.cooling.room, constants.print.start)
  const sum = (of: (part: PlatePartFigures) => number): number => told.reduce((all, part) => all + of(part), 0)
  const figures: PlateFigures = {
    parts: told,
    timeS,
    sharedS,
    ...(startUpS === undefined ? {} : { startUpS }),
    massG: sum((part) => part.massG),
    lengthMm: sum((part) => part.lengthMm),
    cost: sum((part) => part.materialCost) + ((timeS + (startUpS ?? 0)) / 3600) * printer.costPerHour,
    heightMm: parts.reduce((most, { heightMm }) => Math.max(most, heightMm), 0),
    turns: merged.turns,
    problems: problemsOf(parts, standing, order, setup),
  }
  return { figures, merged, motion }
}

const hottestOf = (parts: readonly PlatePart[]): { readonly nozzle: number; readonly bed: number } => {
  const heats = parts.map(({ settings }) => heatOn(0, settings))
  return { nozzle: Math.max(...heats.map(({ nozzle }) => nozzle)), bed: Math.max(...heats.map(({ bed }) => bed)) }
}

/** What keeps parts from being printed where they stand and with what they ask for. */
export function problemsOf(
  parts: readonly Pick<PlatePart, 'name' | 'footprint' | 'heightMm' | 'settings'>[],
  standing: readonly Standing[],
  order: PlateOrder,
  { printer }: Pick<Setup, 'printer'>,
): InputError[] {
  if (printer.kinematics === 'tiltedBelt')
    return [
      new InputError(
        'plate-on-belt',
        `${printer.name} prints on a belt without end: there is no plate to share.`,
        'printer',
        'Print the parts as jobs one after another, or take another printer.',
      ),
    ]
  const stood = parts.map(
    ({ name, footprint, heightMm }, i): Stood => ({ name, heightMm, footprint: placedFootprint(footprint, standing[i]!) }),
  )
  return [...standsWrong(stood, order, printer), ...disagreements(parts, order)]
}

/** What parts of one plate cannot differ in. */
function disagreements(parts: readonly Pick<PlatePart, 'name' | 'settings'>[], order: PlateOrder): InputError[] {
  const found: InputError[] = []
  const differs = (of: (settings: Settings) => number): readonly [string, string] | undefined => {
    const [first] = parts
    const other = parts.find(({ settings }) => of(settings) !== of(first!.settings))
    return other && [`${first!.name} asks for ${of(first!.settings)} °C`, `${other.name} for ${of(other.settings)} °C`]
  }
  const beds = differs((settings) => heatOn(0, settings).bed) ?? differs(({ bedTemperature }) => bedTemperature)
  if (beds)
    found.push(
      new InputError(
        'plate-beds-differ',
        `A bed has one temperature: ${beds.join(', ')}.`,
        'bedTemperature',
        'Give both columns the same one.',
      ),
    )
  const nozzles =
    order === 'together'
      ? (differs(({ nozzleTemperature }) => nozzleTemperature) ?? differs((settings) => heatOn(0, settings).nozzle))
      : undefined
  if (nozzles)
    found.push(
      new InputError(
        'plate-nozzles-differ',
        `Printed together the nozzle would heat and cool on every layer: ${nozzles.join(', ')}.`,
        'nozzleTemperature',
        'Give both columns the same one, or print the parts one after another.',
      ),
    )
  const spiral = order === 'together' && parts.length > 1 ? parts.find(({ settings }) => settings.spiralWall === 'on') : undefined
  if (spiral)
    found.push(
      new InputError(
        'plate-spiral',
        `The wall of ${spiral.name} rises as one line, which others would break.`,
        'spiralWall',
        'Print the parts one after another, or turn its spiral wall off.',
      ),
    )
  return found
}
