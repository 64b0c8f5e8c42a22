import { type Buckling, bucklingWork } from '../../elements/buckling'
import { type Elasticity, inverse3 } from '../../elements/elasticity'
import { joinedTo, type Mesh, meshOf } from '../../elements/mesh'
import { readyWork } from '../../elements/ready'
import { solveWork } from '../../elements/solve'
import { POINTS, stressTeller } from '../../elements/stress'
import { InputError } from '../../units/errors'
import { type Steps, within } from '../../units/steps'
import { elasticities, type Plastic } from './limits'
import type { Three, Voxels } from './voxels'
import { Places, type Region } from './where'

/** A support: where, and along which axes it does not give way. What slides is held along some only. */
export interface Hold {
  readonly where: readonly Region[]
  readonly along: readonly [x: boolean, y: boolean, z: boolean]
}

/** What acts on some of a part. */
export interface Load {
  readonly where: readonly Region[]
  /** In all, N. */
  readonly force?: Three
  /** About the middle of where it acts, N·mm. */
  readonly moment?: Three
  /** Into the surface, MPa; on patches only. */
  readonly pressure?: number
}

/** How a part is held and loaded. */
export interface Case {
  readonly holds: readonly Hold[]
  /** Loads that act together; of two such the weakest direction between them is looked for. */
  readonly loads: readonly [readonly Load[], (readonly Load[])?]
  /** Whether it is also sought under how many times its first loads it buckles: it takes some times as long. */
  readonly buckles?: true
}

/** A part as it gives way under a case. */
export interface Structure {
  readonly voxels: Voxels
  /** Cells of the voxels that hang together with what is held: those of the mesh. */
  readonly kept: Int32Array
  readonly mesh: Mesh
  /** Forces on nodes, N, and how these move, mm: three numbers a node, for each of the case's loads. */
  readonly forces: readonly Float64Array[]
  readonly moved: readonly Float64Array[]
  /** How it buckles under the first of the loads, where that was asked for. */
  readonly buckling?: Buckling
  /** Cells of the mesh that are too near to a hold or a load to be judged. */
  readonly isGripped: Uint8Array
  readonly iterations: number
  /** What is left of the forces, as a share. */
  readonly residual: number
  /** Share of the plastic that hangs on nothing that is held. */
  readonly dropped: number
}

/** This near to where it is held or loaded nothing is judged, mm: real grips spread what a grid does not. */
export const NEAR_GRIP = 2.5
/** Share of the work that setting up is, about. */
const SETTING_UP = 0.4
/** Movements under which more than this share of the forces is left are no result. */
const MOST_LEFT = 0.01

/**
 * Several cases of one part, each with its loads; those that are held alike share a set-up. Yields the share that is done.
 *
 * @throws InputError where nothing is held or loaded, where what is loaded does not hang together with what is held, or where forces find no balance
 */
export function* structuresWork(voxels: Voxels, plastic: Plastic, cases: readonly Case[]): Steps<Structure[]> {
  const places = new Places(voxels)
  const groups = new Map<Case['holds'], Case[]>()
  for (const one of cases) groups.set(one.holds, [...(groups.get(one.holds) ?? []), one])
  const found = new Map<Case, Structure>()
  for (const [holds, own] of groups) {
    const work = alikeWork(places, plastic, holds, own)
    const structures = yield* within(work, found.size / cases.length, (found.size + own.length) / cases.length)
    for (const [i, one] of own.entries()) found.set(one, structures[i]!)
  }
  return cases.map((one) => found.get(one)!)
}

function* alikeWork(places: Places, plastic: Plastic, holds: readonly Hold[], cases: readonly Case[]): Steps<Structure[]> {
  const { voxels } = places
  const heldCells = places.marked(holds.flatMap(({ where }) => where))
  const { cells, dropped, kept } = joinedTo(voxels, heldCells)
  const mesh = meshOf(cells)
  const numbers = new Int32Array(voxels.at.length).fill(-1)
  for (let c = 0; c < kept.length; c++) numbers[kept[c]!] = c
  const held = heldMovements(places, mesh, numbers, holds)
  if (isLoose(mesh, held)) throw loose()
  const materials = elasticities(plastic)
  const ready = yield* within(readyWork(mesh, materials, held), 0, SETTING_UP)
  const count = cases.reduce((sum, { loads }) => sum + loads.length, 0)
  const all: Structure[] = []
  let done = 0
  for (const { loads, buckles } of cases) {
    const forces: Float64Array[] = []
    const moved: Float64Array[] = []
    let [iterations, residual] = [0, 0]
    for (const together of loads) {
      const pushed = new Float64Array(3 * mesh.nodeCount)
      for (const load of together ?? []) addLoad(places, mesh, numbers, load, pushed)
      const from = SETTING_UP + ((1 - SETTING_UP) * done) / count
      const solved = yield* within(solveWork(ready, pushed), from, from + (1 - SETTING_UP) / count)
      if (!(solved.residual <= MOST_LEFT)) throw notSolvable()
      forces.push(pushed)
      moved.push(solved.moved)
      iterations = Math.max(iterations, solved.iterations)
      residual = Math.max(residual, solved.residual)
      done++
    }
    const gripped = places.near(
      [...holds, ...loads.flatMap((one) => one ?? [])].flatMap(({ where }) => where),
      NEAR_GRIP,
    )
    const isGripped = Uint8Array.from(kept, (cell) => gripped[cell]!)
    const from = SETTING_UP + ((1 - SETTING_UP) * done) / count
    const buckling = buckles ? yield* within(bucklingWork(ready, meanStress(mesh, materials, moved[0]!)), from, 1) : undefined
    all.push({ voxels, kept, mesh, forces, moved, isGripped, iterations, residual, dropped, ...(buckling ? { buckling } : {}) })
  }
  return all
}

const loose = (): InputError =>
  new InputError(
    'held-loosely',
    'The part can still slide away or turn as a whole.',
    '',
    'Hold it along more directions: of a face that slides only the way that it faces is held.',
  )

/**
 * Whether what is held leaves the whole a way to move: how it holds against three ways to slide and three to turn has no inverse then.
 *
 * @param held 1 for each movement (three a node) that is none
 */
export function isLoose(mesh: Pick<Mesh, 'counts' | 'size' | 'nodeAt'>, held: Uint8Array): boolean {
  const middle = [0, 1, 2].map((k) => (mesh.counts[k]! * mesh.size[k]!) / 2) as unknown as Three
  const reach = Math.hypot(...middle)
  const against = new Float64Array(36)
  for (let d = 0; d < held.length; d++) {
    if (held[d] === 0) continue
    const [x, y, z] = nodePlace(mesh, [0, 0, 0], Math.floor(d / 3)).map((mm, k) => (mm - middle[k]!) / reach) as [number, number, number]
    const turns = [
      [0, z, -y],
      [-z, 0, x],
      [y, -x, 0],
    ][d % 3]!
    const row = [...[0, 1, 2].map((k) => (k === d % 3 ? 1 : 0)), ...turns]
    for (let i = 0; i < 6; i++) for (let j = 0; j < 6; j++) against[6 * i + j]! += row[i]! * row[j]!
  }
  // Elimination; what is left on the diagonal is how much of each way is held that those before do not hold already.
  for (let p = 0; p < 6; p++) {
    const left = against[7 * p]!
    if (!(left > LOOSE * held.length)) return true
    for (let i = p + 1; i < 6; i++) {
      const factor = against[6 * i + p]! / left
      for (let j = p; j < 6; j++) against[6 * i + j]! -= factor * against[6 * p + j]!
    }
  }
  return false
}
/** A way that is held by less than so much of a held node for each node that there is, is not held. */
const LOOSE = 1e-9

const notSolvable = (): InputError =>
  new InputError('not-solved', 'The forces on the part found no balance.', '', 'Hold more of it: something may hang by a thread.')

/** Of each cell, six numbers, MPa. */
function meanStress(mesh: Mesh, materials: readonly Elasticity[], moved: Float64Array): Float64Array {
  const tell = stressTeller(mesh, materials)
  const [stress, own] = [new Float64Array(6 * mesh.share.length), new Float64Array(6 * POINTS)]
  for (let c = 0; c < mesh.share.length; c++) {
    tell(moved, c, own)
    for (let k = 0; k < 6 * POINTS; k++) stress[6 * c + (k % 6)]! += own[k]! / POINTS
  }
  return stress
}

/** 1 for each movement of a node that is none. */
function heldMovements(places: Places, mesh: Mesh, numbers: Int32Array, holds: readonly Hold[]): Uint8Array {
  const held = new Uint8Array(3 * mesh.nodeCount)
  const { size, origin } = places.voxels
  for (const { where, along } of holds)
    for (const region of where) {
      const hold = (node: number): void => {
        for (let k = 0; k < 3; k++) if (along[k]) held[3 * node + k] = 1
      }
      const marks = places.marked([region])
      if (region.kind === 'point') {
        const cell = numbers[marks.indexOf(1)]!
        // One corner of the nearest cell.
        if (cell >= 0) hold(mesh.nodes[8 * cell]!)
        continue
      }
      for (let cell = 0; cell < marks.length; cell++) {
        if (marks[cell] === 0 || numbers[cell]! < 0) continue
        for (let n = 8 * numbers[cell]!; n < 8 * numbers[cell]! + 8; n++) {
          const node = mesh.nodes[n]!
          if (region.kind !== 'plane' || isOnPlane(nodePlace(mesh, origin, node), region, size)) hold(node)
        }
      }
    }
  return held
}

/** Where a node stands, mm. */
export function nodePlace({ counts, size, nodeAt }: Pick<Mesh, 'counts' | 'size' | 'nodeAt'>, origin: Three, node: number): Three {
  const at = nodeAt[node]!
  const [nx, ny] = [counts[0] + 1, counts[1] + 1]
  return [
    origin[0] + size[0] * (at % nx),
    origin[1] + size[1] * (Math.floor(at / nx) % ny),
    origin[2] + size[2] * Math.floor(at / (nx * ny)),
  ]
}

/** Nodes within half a cell of it: of a flat box one sheet of them. */
const isOnPlane = (at: Three, { low, high }: { readonly low: Three; readonly high: Three }, size: Three): boolean =>
  at.every((mm, k) => mm >= low[k]! - size[k]! / 2 && mm < high[k]! + size[k]! / 2)

/** Adds a load's forces to the nodes of the cells that it acts on: by their plastic, or by how much of the patch is theirs. */
function addLoad(places: Places, mesh: Mesh, numbers: Int32Array, { where, force, moment, pressure }: Load, pushed: Float64Array): void {
  const weights = new Float64Array(mesh.nodeCount)
  let whole = 0
  const add = (cell: number, weight: number): void => {
    if (numbers[cell]! < 0) return
    whole += weight
    for (let n = 8 * numbers[cell]!; n < 8 * numbers[cell]! + 8; n++) weights[mesh.nodes[n]!]! += weight / 8
  }
  for (const region of where) {
    if (region.kind === 'patch') {
      const { cells, areas } = places.facesOf(region.triangles)
      for (const [i, cell] of cells.entries()) {
        const [x, y, z] = [areas[3 * i]!, areas[3 * i + 1]!, areas[3 * i + 2]!]
        add(cell, Math.hypot(x, y, z))
        if (pressure === undefined || numbers[cell]! < 0) continue
        for (let n = 8 * numbers[cell]!; n < 8 * numbers[cell]! + 8; n++)
          for (const [k, area] of [x, y, z].entries()) pushed[3 * mesh.nodes[n]! + k]! -= (pressure * area) / 8
      }
    } else {
      const marks = places.marked([region])
      for (let cell = 0; cell < marks.length; cell++) if (marks[cell] === 1) add(cell, places.voxels.share[cell]!)
    }
  }
  if (whole === 0)
    throw new InputError(
      'nothing-loaded',
      'Nothing that hangs together with what is held is loaded.',
      '',
      'Load it where there is some of it.',
    )
  if (force) for (let n = 0; n < mesh.nodeCount; n++) for (let k = 0; k < 3; k++) pushed[3 * n + k]! += (weights[n]! / whole) * force[k]!
  if (moment) addMoment(places.voxels.origin, mesh, weights, moment, pushed)
}

/** Forces that grow with their distance from the middle, as those in a shaft do, and are a moment together. */
function addMoment(origin: Three, mesh: Mesh, weights: Float64Array, moment: Three, pushed: Float64Array): void {
  const middle = [0, 0, 0]
  let whole = 0
  const own: { readonly node: number; readonly weight: number; readonly at: Three }[] = []
  for (let node = 0; node < mesh.nodeCount; node++) {
    const weight = weights[node]!
    if (weight === 0) continue
    const at = nodePlace(mesh, origin, node)
    own.push({ node, weight, at })
    whole += weight
    for (let k = 0; k < 3; k++) middle[k]! += weight * at[k]!
  }
  for (let k = 0; k < 3; k++) middle[k]! /= whole
  const inertia = new Float64Array(9)
  const arms = own.map(({ at }) => at.map((mm, k) => mm - middle[k]!) as unknown as Three)
  for (const [i, [x, y, z]] of arms.entries()) {
    const { weight } = own[i]!
    const square = x * x + y * y + z * z
    for (const [a, p] of [x, y, z].entries())
      for (const [b, q] of [x, y, z].entries()) inertia[3 * a + b]! += weight * ((a === b ? square : 0) - p * q)
  }
  const inverse = inverse3(inertia)
  const turn = [0, 1, 2].map((a) => [0, 1, 2].reduce((sum, b) => sum + inverse[3 * a + b]! * moment[b]!, 0)) as unknown as Three
  for (const [i, [x, y, z]] of arms.entries()) {
    const { node, weight } = own[i]!
    pushed[3 * node]! += weight * (turn[1] * z - turn[2] * y)
    pushed[3 * node + 1]! += weight * (turn[2] * x - turn[0] * z)
    pushed[3 * node + 2]! += weight * (turn[0] * y - turn[1] * x)
  }
}
