import type { Mesh } from '../../elements/mesh'
import type { Three } from './voxels'
import type { Places } from './where'

/** The cells of a part that are solved: those that hang together with what is held. */
export interface Body {
  readonly places: Places
  readonly mesh: Mesh
  /** Of each cell of the voxels its number in the mesh; −1 where it is in none. */
  readonly numbers: Int32Array
}

export function bodyOf(places: Places, mesh: Mesh, kept: Int32Array): Body {
  const numbers = new Int32Array(places.voxels.at.length).fill(-1)
  for (let c = 0; c < kept.length; c++) numbers[kept[c]!] = c
  return { places, mesh, numbers }
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
