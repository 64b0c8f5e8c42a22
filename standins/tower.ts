import type { Making } from './making'
import { Machine, usualLimits } from './printer/machine'
import { runProgram, type SeenThing, seenThing } from './thing'
import { type Truth, truthFrom } from './truth'

/** What is read off a tower: the middle of what is clean, the flow at which it begins to fail, the pull from which it is clean. */
export const towerKinds = ['temperature', 'flowLadder', 'retraction'] as const
export type TowerKind = (typeof towerKinds)[number]

/** A stretch of a tower: what varies, and where it lies, mm. */
export interface TowerBand {
  readonly value: number
  readonly fromZ: number
  readonly toZ: number
}

/** A tower as it would stand on the table, and what only its maker knows. */
export interface DrawnTower {
  readonly thing: SeenThing
  /** Strings and holes of each band. */
  readonly counts: readonly { readonly strings: number; readonly gaps: number }[]
  /** °C as the thermometer shows it; mm³/s as they are asked for; or mm. */
  readonly truth: number
}

/**
 * Prints a tower on a machine whose truth a seed tells, some lines at a time; the tower is what it returns.
 *
 * @throws RangeError for a program that lays nothing
 */
export function* drawnTower(
  kind: TowerKind,
  program: Iterable<string>,
  bands: readonly TowerBand[],
  seed: number,
): Generator<void, DrawnTower> {
  const machine = new Machine(truthFrom(seed), usualLimits, seed)
  yield* runProgram(machine, program)
  const { making, truth } = machine
  const thing = seenThing(making)
  if (!thing) throw new RangeError('Nothing was laid.')
  const within =
    ({ fromZ, toZ }: TowerBand) =>
    ({ z }: { readonly z: number }): boolean =>
      z > fromZ + 1e-6 && z <= toZ + 1e-6
  const counts = bands.map((band) => ({
    strings: making.strings.filter(within(band)).length,
    gaps: making.gaps.filter(within(band)).length,
  }))
  return { thing, counts, truth: truthOf[kind](truth, making, bands) }
}

/** Strings that a band may show by chance and still be called clean. */
const CLEAN = 1

const truthOf: Readonly<Record<TowerKind, (truth: Truth, making: Making, bands: readonly TowerBand[]) => number>> = {
  temperature: ({ window: { low, high }, thermometer }) => (low + high) / 2 + thermometer,
  flowLadder: ({ failingFlow, flowSlope, flowFactor, thermometer }, { layers }) => {
    const shown = layers[layers.length >> 1]!.nozzle
    return (failingFlow * Math.exp((flowSlope * (shown - thermometer - 210)) / 10)) / flowFactor
  },
  retraction: (_, { layers }, bands) => {
    const means = bands.map(({ fromZ, toZ }) => layers.reduce((sum, { z, strung }) => sum + (z > fromZ && z <= toZ ? strung : 0), 0))
    const clean = means.findIndex((mean) => mean <= CLEAN)
    // Of one that is clean nowhere, or everywhere, nothing can be read.
    if (clean <= 0) return clean === 0 ? 0 : Number.MAX_VALUE
    const [over, under] = [Math.log(means[clean - 1]!), Math.log(Math.max(1e-6, means[clean]!))]
    const [from, to] = [bands[clean - 1]!.value, bands[clean]!.value]
    return from + ((to - from) * (over - Math.log(CLEAN))) / (over - under)
  },
}
