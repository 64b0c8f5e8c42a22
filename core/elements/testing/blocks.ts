import { runToEnd } from '../../units/steps'
import type { Elasticity } from '../elasticity'
import { type Cells, type Mesh, meshOf } from '../mesh'
import { type Ready, readyWork } from '../ready'
import { type Solved, solveWork } from '../solve'

type Three = readonly [number, number, number]

/** Cells of a grid whose middles are in a solid. */
export function cellsOf(counts: Three, size: Three, isIn: (x: number, y: number, z: number) => boolean = () => true, share = 1): Cells {
  const at: number[] = []
  for (let z = 0; z < counts[2]; z++)
    for (let y = 0; y < counts[1]; y++)
      for (let x = 0; x < counts[0]; x++)
        if (isIn((x + 0.5) * size[0], (y + 0.5) * size[1], (z + 0.5) * size[2])) at.push(x + counts[0] * (y + counts[1] * z))
  return { counts, size, at: Int32Array.from(at), share: new Float32Array(at.length).fill(share), kind: new Uint8Array(at.length) }
}

/** Where a node stands, mm. */
export function placeOf({ counts, size, nodeAt }: Mesh, node: number): Three {
  const [nx, ny] = [counts[0] + 1, counts[1] + 1]
  const at = nodeAt[node]!
  return [(at % nx) * size[0], (Math.floor(at / nx) % ny) * size[1], Math.floor(at / (nx * ny)) * size[2]]
}

export interface Loaded extends Solved {
  readonly mesh: Mesh
  readonly ready: Ready
  readonly forces: Float64Array
  /** Work of the forces, N·mm: the movement where they act, times them. */
  readonly work: number
}

/**
 * Solves a solid that is held and loaded at nodes.
 *
 * @param hold which movements of a node are none
 * @param force on a node, N
 */
export function loaded(
  cells: Cells,
  material: Elasticity,
  hold: (at: Three) => readonly [boolean, boolean, boolean],
  force: (at: Three) => Three,
  enough?: number,
  isPlain?: boolean,
): Loaded {
  const mesh = meshOf(cells)
  const held = new Uint8Array(3 * mesh.nodeCount)
  const forces = new Float64Array(3 * mesh.nodeCount)
  for (let n = 0; n < mesh.nodeCount; n++) {
    const at = placeOf(mesh, n)
    const own = hold(at)
    const pushed = force(at)
    for (let i = 0; i < 3; i++) {
      held[3 * n + i] = own[i] ? 1 : 0
      forces[3 * n + i] = pushed[i]!
    }
  }
  const ready = runToEnd(readyWork(mesh, [material], held, isPlain))
  const solved = runToEnd(solveWork(ready, forces, enough))
  return { ...solved, mesh, ready, forces, work: solved.moved.reduce((sum, one, i) => sum + one * forces[i]!, 0) }
}

/** A node's share of an even load on an end: half on rims, a quarter at corners. */
export function endShare(value: number, step: number, count: number): number {
  const rim = value < step / 2 || value > step * count - step / 2
  return (rim ? 0.5 : 1) / count
}
