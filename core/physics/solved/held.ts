import type { Mesh } from '../../elements/mesh'
import { type Body, nodePlace } from './body'
import type { Hold } from './structure'
import type { Three } from './voxels'

/** 1 for each movement of a node that is none. */
export function heldMovements({ places, mesh, numbers }: Body, holds: readonly Hold[]): Uint8Array {
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

/** Nodes within half a cell of it: of a flat box one sheet of them. */
const isOnPlane = (at: Three, { low, high }: { readonly low: Three; readonly high: Three }, size: Three): boolean =>
  at.every((mm, k) => mm >= low[k]! - size[k]! / 2 && mm < high[k]! + size[k]! / 2)

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
