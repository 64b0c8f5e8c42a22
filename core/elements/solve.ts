import { cycle, dot, type Ready } from './cycle'
import { forcesOf } from './operator'

export interface Solved {
  /** Movements of the nodes, three each, mm. */
  readonly moved: Float64Array
  readonly iterations: number
  /** What is left of the forces, as a share. */
  readonly residual: number
}

/** So much left of the forces leaves the movement where they act within a thousandth (see the test). */
const ENOUGH = 3e-3
const MOST_ITERATIONS = 200

/**
 * Movements under forces, by conjugate gradients (Hestenes & Stiefel 1952) that V-cycles guide. Yields the share that is done. Nothing at held movements.
 *
 * @param forces three a node, N
 */
export function* solveWork(ready: Ready, forces: Float64Array, enough = ENOUGH): Generator<number, Solved> {
  const { springs } = ready
  const n = forces.length
  const r = forces.map((force, i) => (springs.held[i] === 1 ? 0 : force))
  const [x, z, p, q] = [new Float64Array(n), new Float64Array(n), new Float64Array(n), new Float64Array(n)]
  const whole = Math.sqrt(dot(r, r))
  if (whole === 0) return { moved: x, iterations: 0, residual: 0 }
  let before = 0
  let left = 1
  for (let iterations = 1; iterations <= MOST_ITERATIONS; iterations++) {
    cycle(ready, r, z)
    const rz = dot(r, z)
    const keeps = before === 0 ? 0 : rz / before
    for (let i = 0; i < n; i++) p[i] = z[i]! + keeps * p[i]!
    before = rz
    forcesOf(springs, p, q)
    const along = rz / dot(p, q)
    for (let i = 0; i < n; i++) {
      x[i]! += along * p[i]!
      r[i]! -= along * q[i]!
    }
    left = Math.sqrt(dot(r, r)) / whole
    if (left <= enough) return { moved: x, iterations, residual: left }
    yield Math.min(0.99, Math.log(left) / Math.log(enough))
  }
  return { moved: x, iterations: MOST_ITERATIONS, residual: left }
}

/** The same without progress. */
export function solve(ready: Ready, forces: Float64Array, enough?: number): Solved {
  const work = solveWork(ready, forces, enough)
  for (;;) {
    const step = work.next()
    if (step.done) return step.value
  }
}
