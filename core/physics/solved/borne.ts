import { Matrix, solve } from 'ml-matrix'
import { inverse3 } from '../../elements/elasticity'
import type { Mesh } from '../../elements/mesh'
import type { Ready } from '../../elements/ready'
import { type Solved, solveWork } from '../../elements/solve'
import { InputError } from '../../units/errors'
import { type Steps, within } from '../../units/steps'
import { type Body, nodePlace } from './body'
import type { Load } from './structure'
import type { Three } from './voxels'

/** Movements under which more than this share of the forces is left are no result. */
const MOST_LEFT = 0.01

/** Forces on nodes, N, and how these move under them, mm. */
export type Borne = { readonly forces: Float64Array } & Solved

/** How a structure moves under loads that act together. What is moved so and so far takes the forces that move it there on the mean. */
export function* borneWork(ready: Ready, body: Body, loads: readonly Load[]): Steps<Borne> {
  const slips = loads.filter(({ slip }) => slip)
  const given = loads.filter(({ slip }) => !slip)
  const pushes = [...(given.length > 0 ? [given] : []), ...slips.map(({ where, slip }) => [{ where, force: unit(slip!) }])]
  const borne: Borne[] = []
  for (const [i, push] of pushes.entries()) {
    const forces = new Float64Array(3 * body.mesh.nodeCount)
    for (const load of push) addLoad(body, load, forces)
    const solved = yield* within(solveWork(ready, forces), i / pushes.length, (i + 1) / pushes.length)
    if (!(solved.residual <= MOST_LEFT)) throw notSolvable()
    borne.push({ forces, ...solved })
  }
  if (slips.length === 0) return borne[0]!
  const units = borne.slice(-slips.length)
  // A force of one newton along a way, times movements, is how far these go that way on the mean.
  const wanted = slips.map(({ slip }, i) => Math.hypot(...slip!) - (given.length > 0 ? dot(units[i]!.forces, borne[0]!.moved) : 0))
  const shares = solve(new Matrix(units.map(({ forces }) => units.map(({ moved }) => dot(forces, moved)))), Matrix.columnVector(wanted))
  const factors = [...(given.length > 0 ? [1] : []), ...shares.getColumn(0)]
  const sum = (of: 'forces' | 'moved'): Float64Array =>
    borne[0]![of].map((_, d) => factors.reduce((all, factor, i) => all + factor * borne[i]![of][d]!, 0))
  return {
    forces: sum('forces'),
    moved: sum('moved'),
    iterations: Math.max(...borne.map(({ iterations }) => iterations)),
    residual: Math.max(...borne.map(({ residual }) => residual)),
  }
}

const unit = (way: Three): Three => way.map((one) => one / Math.hypot(...way)) as unknown as Three

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!
  return sum
}

const notSolvable = (): InputError =>
  new InputError('not-solved', 'The forces on the part found no balance.', '', 'Hold more of it: something may hang by a thread.')

/** Adds a load's forces to the nodes of the cells that it acts on: by their plastic, or by how much of the patch is theirs. */
function addLoad({ places, mesh, numbers }: Body, { where, force, moment, pressure, onVolume }: Load, pushed: Float64Array): void {
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
  if (onVolume) {
    const [x, y, z] = mesh.size
    for (let n = 0; n < mesh.nodeCount; n++) for (let k = 0; k < 3; k++) pushed[3 * n + k]! += weights[n]! * x * y * z * onVolume[k]!
  }
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
