import type { Steps } from '../units/steps'
import { clearHeld, cycle } from './cycle'
import type { Ready } from './ready'

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
 * One load after the other: what is ready is worked in.
 *
 * @param forces three a node, N
 */
export function* solveWork(ready: Ready, forces: Float64Array, enough = ENOUGH): Steps<Solved> {
  const { kernel, nodes, cells, single } = ready
  const { r, x, p, q } = ready.double
  const words = new Float64Array(kernel.buffer)
  const cleared = (at: number): void => void words.fill(0, at / 8, at / 8 + 4 * nodes)
  for (const at of [r, x, p]) cleared(at)
  for (let n = 0; n < nodes; n++) for (let i = 0; i < 3; i++) words[r / 8 + 4 * n + i] = forces[3 * n + i]!
  clearHeld(ready, words, r / 8)
  const whole = Math.sqrt(kernel.dot(nodes, r, r))
  const told = (iterations: number, residual: number): Solved => {
    const moved = new Float64Array(3 * nodes)
    for (let n = 0; n < nodes; n++) for (let i = 0; i < 3; i++) moved[3 * n + i] = words[x / 8 + 4 * n + i]!
    return { moved, iterations, residual }
  }
  if (whole === 0) return told(0, 0)
  let before = 0
  let left = 1
  for (let iterations = 1; iterations <= MOST_ITERATIONS; iterations++) {
    kernel.toSingle(nodes, r, single.b)
    cycle(ready)
    const rz = kernel.dotMixed(nodes, single.x, r)
    kernel.direction(nodes, single.x, before === 0 ? 0 : rz / before, p)
    before = rz
    cleared(q)
    kernel.springsDouble(cells, p, q)
    clearHeld(ready, words, q / 8)
    const along = rz / kernel.dot(nodes, p, q)
    kernel.add(nodes, along, p, x)
    kernel.add(nodes, -along, q, r)
    left = Math.sqrt(kernel.dot(nodes, r, r)) / whole
    if (left <= enough) return told(iterations, left)
    yield Math.min(0.99, Math.log(left) / Math.log(enough))
  }
  return told(MOST_ITERATIONS, left)
}
