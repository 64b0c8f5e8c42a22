import { makeReady } from '../../elements/cycle'
import { failsAt } from '../../elements/failure'
import { type Cells, joinedTo, type Mesh, meshOf } from '../../elements/mesh'
import { solveWork } from '../../elements/solve'
import { POINTS, stressTeller } from '../../elements/stress'
import { InputError } from '../../units/errors'
import { elasticities, Judge, type Plastic } from './limits'
import { middleOf, type Three, type Voxels } from './voxels'

/** A box with edges along the axes, mm. */
export interface Box {
  readonly low: Three
  readonly high: Three
}

/** Where a part is held and where it is loaded. */
export interface Case {
  readonly hold: readonly Box[]
  readonly load: readonly Box[]
  /** In all, N; of several the weakest direction between them is looked for. */
  readonly forces: readonly Three[]
}

export interface SolvedLoad {
  /** Load at which a handful of the part is over its limit, N. An estimate, never a rating. */
  readonly failureN: number
  /** 80 % range: the doubts of the material and of the grid. */
  readonly low: number
  readonly high: number
  /** Where, mm. */
  readonly at: Three
  /** Lines break, or layers part. */
  readonly by: 'lines' | 'layers'
  /** Load per mm that it gives way where it is loaded, N/mm. */
  readonly stiffnessNmm: number
  /** Of a cell, mm. */
  readonly voxelMm: number
  readonly cells: number
  readonly iterations: number
  /** Share of the plastic that does not hang together with what is held. */
  readonly dropped: number
}

/** This near to where it is held or loaded nothing is judged, mm: real grips spread what a box does not. */
export const NEAR_GRIP = 2.5
/** Cells that are emptier are not judged: what is in them is told by their neighbours. */
const JUDGED_FROM = 0.5
/** Standard deviation that a grid leaves in the logarithm of a failure load: assumed, for one half as wide changed it by up to a twelfth. */
const GRID = 0.06
const EIGHTY = 1.2816
/** Directions between two loads that are tried. */
const DIRECTIONS = 12

/**
 * Solves a part for the load at which it fails. Yields the share that is done.
 *
 * @throws InputError where nothing is held or loaded, or what is loaded does not hang together with what is held
 */
export function* solvedLoadWork(voxels: Voxels, plastic: Plastic, { hold, load, forces }: Case): Generator<number, SolvedLoad> {
  const isIn = (boxes: readonly Box[], cell: number): boolean => boxes.some((box) => distanceTo(box, middleOf(voxels, cell)) === 0)
  const seed = Uint8Array.from(voxels.at, (_, cell) => (isIn(hold, cell) ? 1 : 0))
  const { cells, dropped, kept } = joinedTo(voxels, seed)
  const mesh = meshOf(cells)
  const held = new Uint8Array(3 * mesh.nodeCount)
  const weights = new Float64Array(mesh.nodeCount)
  let whole = 0
  for (let c = 0; c < kept.length; c++) {
    const isLoaded = isIn(load, kept[c]!)
    const isHeld = seed[kept[c]!] === 1
    if (isLoaded) whole += mesh.share[c]!
    for (let n = 8 * c; n < 8 * c + 8; n++) {
      if (isHeld) held.fill(1, 3 * mesh.nodes[n]!, 3 * mesh.nodes[n]! + 3)
      if (isLoaded) weights[mesh.nodes[n]!]! += mesh.share[c]! / 8
    }
  }
  if (whole === 0)
    throw new InputError(
      'nothing-loaded',
      'Nothing that hangs together with what is held is loaded.',
      '',
      'Load it where there is some of it.',
    )
  const materials = elasticities(plastic)
  yield 0
  const ready = makeReady(mesh, materials, held)
  const moved: Float64Array[] = []
  let iterations = 0
  for (const [i, force] of forces.entries()) {
    const pushed = new Float64Array(3 * mesh.nodeCount)
    for (let n = 0; n < mesh.nodeCount; n++) for (let k = 0; k < 3; k++) pushed[3 * n + k] = (weights[n]! / whole) * force[k]!
    const work = solveWork(ready, pushed)
    for (;;) {
      const step = work.next()
      if (step.done) {
        if (!(step.value.residual <= MOST_LEFT)) throw notSolvable()
        moved.push(step.value.moved)
        iterations = Math.max(iterations, step.value.iterations)
        break
      }
      yield (i + step.value) / forces.length
    }
  }
  const volumes = judgedVolumes(voxels, kept, cells, [...hold, ...load])
  const weakest = weakestOf({ voxels, kept, mesh, materials, plastic, volumes }, moved, forces)
  const { movement, force } = weakest
  let work = 0
  for (let n = 0; n < mesh.nodeCount; n++) for (let k = 0; k < 3; k++) work += (weights[n]! / whole) * force[k]! * movement[3 * n + k]!
  const newtons = Math.hypot(...force)
  const failureN = weakest.factor * newtons
  const reach = Math.exp(EIGHTY * Math.hypot(GRID, weakest.by === 'layers' ? plastic.spreads.layers : plastic.spreads.lines))
  return {
    failureN,
    low: failureN / reach,
    high: failureN * reach,
    at: weakest.at,
    by: weakest.by,
    stiffnessNmm: newtons ** 2 / work,
    voxelMm: Math.max(...voxels.size),
    cells: kept.length,
    iterations,
    dropped,
  }
}

/** Movements under which more than this share of the forces is left are no result. */
const MOST_LEFT = 0.01
const notSolvable = (): InputError =>
  new InputError(
    'not-solved',
    'The forces on the part found no balance.',
    '',
    'Hold more of it, or take another width of cells: something may hang by a thread.',
  )

/** 0 within it. */
function distanceTo({ low, high }: Box, at: Three): number {
  let sum = 0
  for (let k = 0; k < 3; k++) sum += Math.max(0, low[k]! - at[k]!, at[k]! - high[k]!) ** 2
  return Math.sqrt(sum)
}

/** Plastic at each point of each cell, mm³; nothing where it is not judged. */
function judgedVolumes(voxels: Voxels, kept: Int32Array, { share, size }: Cells, grips: readonly Box[]): Float64Array {
  const whole = (size[0] * size[1] * size[2]) / POINTS
  const volumes = new Float64Array(POINTS * kept.length)
  for (let c = 0; c < kept.length; c++) {
    if (share[c]! <= JUDGED_FROM) continue
    const at = middleOf(voxels, kept[c]!)
    if (grips.some((box) => distanceTo(box, at) < NEAR_GRIP)) continue
    volumes.fill(whole * share[c]!, POINTS * c, POINTS * c + POINTS)
  }
  return volumes
}

interface Judged {
  readonly voxels: Voxels
  readonly kept: Int32Array
  readonly mesh: Mesh
  readonly materials: ReturnType<typeof elasticities>
  readonly plastic: Plastic
  readonly volumes: Float64Array
}

/** Of all directions between two loads the one that the part bears least in. */
function weakestOf({ voxels, kept, mesh, materials, plastic, volumes }: Judged, moved: readonly Float64Array[], forces: readonly Three[]) {
  const turns = forces.length === 1 ? [0] : Array.from({ length: DIRECTIONS }, (_, i) => (Math.PI * i) / DIRECTIONS)
  const tell = stressTeller(mesh, materials)
  const judge = new Judge(plastic)
  const turnTo = (c: number): void => judge.turnTo(voxels.cos2[kept[c]!]!, voxels.sinCos[kept[c]!]!, middleOf(voxels, kept[c]!)[2])
  const [s, r] = [new Float64Array(6 * POINTS), new Float64Array(6 * POINTS)]
  const ratios = turns.map(() => new Float64Array(POINTS * kept.length))
  for (let c = 0; c < kept.length; c++) {
    if (volumes[POINTS * c] === 0) continue
    tell(moved[0]!, c, s)
    if (moved[1]) tell(moved[1], c, r)
    turnTo(c)
    for (let t = 0; t < turns.length; t++) {
      const a = Math.cos(turns[t]!)
      const b = Math.sin(turns[t]!)
      const own = ratios[t]!
      for (let p = 0, k = 0; p < POINTS; p++, k += 6)
        own[POINTS * c + p] = judge.ratio(
          a * s[k]! + b * r[k]!,
          a * s[k + 1]! + b * r[k + 1]!,
          a * s[k + 2]! + b * r[k + 2]!,
          a * s[k + 3]! + b * r[k + 3]!,
          a * s[k + 4]! + b * r[k + 4]!,
          a * s[k + 5]! + b * r[k + 5]!,
        )
    }
  }
  const found = ratios.map((all) => failsAt(all, volumes))
  const best = found.reduce((least, { factor }, t) => (factor < found[least]!.factor ? t : least), 0)
  const { factor, point } = found[best]!
  if (point < 0)
    throw new InputError(
      'nothing-judged',
      'Everything that is solid lies beside where it is held or loaded.',
      '',
      'Hold and load less of it.',
    )
  const [a, b] = [Math.cos(turns[best]!), Math.sin(turns[best]!)]
  const movement = moved[1] ? moved[0]!.map((one, i) => a * one + b * moved[1]![i]!) : moved[0]!
  const force = [0, 1, 2].map((k) => a * forces[0]![k]! + b * (forces[1]?.[k] ?? 0)) as unknown as Three
  const cell = Math.floor(point / POINTS)
  tell(movement, cell, s)
  turnTo(cell)
  const k = 6 * (point % POINTS)
  judge.ratio(s[k]!, s[k + 1]!, s[k + 2]!, s[k + 3]!, s[k + 4]!, s[k + 5]!)
  return {
    factor,
    at: middleOf(voxels, kept[cell]!),
    by: judge.layers > judge.lines ? ('layers' as const) : ('lines' as const),
    movement,
    force,
  }
}
