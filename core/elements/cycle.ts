import { solveBottom } from './cholesky'
import type { Place } from './kernel/kernel'
import type { Ready } from './ready'

/** Smoothing reaches from the largest eigenvalue down to this share of it. Assumed. */
const DOWN_TO = 1 / 6

/**
 * Movements `single.x` under the forces `single.b`, about: one V-cycle, the same to and fro, so that it can guide conjugate gradients. Before and after
 * the coarse grids two steps of Chebyshev's; on them one of Gauss and Seidel, there and back. In single precision, for it only guides.
 */
export function cycle(ready: Ready): void {
  const { kernel, nodes, own, largest, levels } = ready
  const { b, r, step, x } = ready.single
  const [low, high] = [DOWN_TO * largest, largest]
  const [middle, reach] = [(high + low) / 2, (high - low) / 2]
  const second = 1 / ((2 * middle) / reach - reach / middle)
  const [keeps, takes] = [second * (reach / middle), (2 * second) / reach]
  const smooth = (): void => {
    kernel.step(nodes, own, r, 0, 1 / middle, step)
    kernel.plus(nodes, step, x)
    leftOf(ready, x)
    kernel.step(nodes, own, r, keeps, takes, step)
    kernel.plus(nodes, step, x)
  }
  const words = new Float32Array(kernel.buffer)
  words.fill(0, x / 4, x / 4 + 4 * nodes)
  words.copyWithin(r / 4, b / 4, b / 4 + 4 * nodes)
  smooth()
  leftOf(ready, x)
  const first = levels[0]!
  words.fill(0, first.b / 4, first.b / 4 + 4 * first.nodes)
  kernel.restrict(nodes, first.parents, r, first.b)
  coarseCycle(ready, words, 0)
  kernel.prolong(nodes, first.parents, first.x, x)
  clearHeld(ready, words, x / 4)
  leftOf(ready, x)
  smooth()
}

/** What movements leave of the forces, to `single.r`. */
function leftOf(ready: Ready, moved: Place): void {
  const { kernel, nodes, cells } = ready
  const { b, r } = ready.single
  const words = new Float32Array(kernel.buffer, r, 4 * nodes)
  words.fill(0)
  kernel.springs(cells, moved, r)
  clearHeld(ready, words, 0)
  kernel.left(nodes, b, r, r)
}

/** Nothing at held movements. */
export function clearHeld({ held }: Pick<Ready, 'held'>, words: Float32Array | Float64Array, from: number): void {
  for (let i = 0; i < held.length; i++) words[from + held[i]!] = 0
}

function coarseCycle(ready: Ready, words: Float32Array, at: number): void {
  const { kernel, levels, bottom } = ready
  const level = levels[at]!
  const { nodes, x, b, r } = level
  if (at === levels.length - 1) {
    solveBottom(bottom, words.subarray(b / 4), words.subarray(x / 4))
    return
  }
  words.fill(0, x / 4, x / 4 + 4 * nodes)
  kernel.sweep(level, false)
  kernel.residual(level)
  const next = levels[at + 1]!
  words.fill(0, next.b / 4, next.b / 4 + 4 * next.nodes)
  kernel.restrict(nodes, next.parents, r, next.b)
  coarseCycle(ready, words, at + 1)
  kernel.prolong(nodes, next.parents, next.x, x)
  kernel.sweep(level, true)
}
