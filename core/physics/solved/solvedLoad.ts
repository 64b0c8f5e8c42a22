import { type Steps, within } from '../../units/steps'
import type { Plastic } from './limits'
import type { SetUps } from './setUps'
import { type Case, type Structure, structuresWork } from './structure'
import type { Three, Voxels } from './voxels'
import { type Weakest, weakestOf } from './weakest'

export interface SolvedLoad {
  /** How many times its loads a case is borne until a handful of the part is over its limit. An estimate, never a rating. */
  readonly factor: number
  /** 80 % range of the factor: the doubts of the material and of the grid. */
  readonly spread: number
  /** The force at which it fails, N, and its range; not a number for a moment or a pressure alone. */
  readonly failureN: number
  readonly low: number
  readonly high: number
  /** Where, mm. */
  readonly at: Three
  readonly by: Weakest['by']
  /** Force per mm that it gives way where it is loaded, N/mm; not a number alike. */
  readonly stiffnessNmm: number
  /** Of a cell, mm. */
  readonly voxelMm: number
  readonly cells: number
  readonly iterations: number
  readonly residual: number
  /** Share of the plastic that does not hang together with what is held. */
  readonly dropped: number
}

/** A case, how the part gives way under it, and what that says. */
export interface SolvedCase {
  readonly structure: Structure
  readonly weakest: Weakest
  readonly load: SolvedLoad
}

/** Standard deviation that a grid leaves in the logarithm of a failure load: assumed, for one half as wide changed it by up to a twelfth. */
const GRID = 0.06
/** And what is doubted of a material’s stiffness, by which it buckles: assumed. */
const STIFFNESS = 0.15
const EIGHTY = 1.2816

/** Solves a part for the loads at which it fails. Yields the share that is done. See `structuresWork` for what is refused. */
export function* solvedCasesWork(voxels: Voxels, plastic: Plastic, cases: readonly Case[], setUps?: SetUps): Steps<SolvedCase[]> {
  const breaksAt = (structure: Structure): number => weakestOf(structure, plastic).factor
  const structures = yield* within(structuresWork(voxels, plastic, cases, { breaksAt, setUps }), 0, 0.9)
  const all: SolvedCase[] = []
  for (const structure of structures) {
    const weakest = weakestOf(structure, plastic)
    all.push({ structure, weakest, load: told(structure, weakest, plastic) })
    yield 0.9 + (0.1 * all.length) / structures.length
  }
  return all
}

/** The same for one case. */
export function* solvedLoadWork(voxels: Voxels, plastic: Plastic, one: Case): Steps<SolvedLoad> {
  const [found] = yield* solvedCasesWork(voxels, plastic, [one])
  return found!.load
}

/** A mix of what a structure has for each of its case's loads. */
export function mixed([first, second]: readonly Float64Array[], [a, b]: Weakest['mix']): Float64Array {
  return first!.map((one, i) => a * one + (second ? b * second[i]! : 0))
}

function told(structure: Structure, weakest: Weakest, { spreads }: Plastic): SolvedLoad {
  const { factor, at, by, mix } = weakest
  const forces = mixed(structure.forces, mix)
  const moved = mixed(structure.moved, mix)
  const whole = [0, 0, 0]
  let work = 0
  let size = 0
  for (let d = 0; d < forces.length; d++) {
    whole[d % 3]! += forces[d]!
    work += forces[d]! * moved[d]!
    size += Math.abs(forces[d]!)
  }
  const sum = Math.hypot(...whole)
  // What pulls to and fro alike has no force of its own.
  const newtons = sum > 1e-6 * size ? sum : Number.NaN
  const failureN = factor * newtons
  const spread = Math.exp(EIGHTY * Math.hypot(GRID, by === 'layers' ? spreads.layers : by === 'lines' ? spreads.lines : STIFFNESS))
  return {
    factor,
    spread,
    failureN,
    low: failureN / spread,
    high: failureN * spread,
    stiffnessNmm: newtons ** 2 / work,
    at,
    by,
    voxelMm: Math.max(...structure.voxels.size),
    cells: structure.kept.length,
    iterations: structure.iterations,
    residual: structure.residual,
    dropped: structure.dropped,
  }
}
