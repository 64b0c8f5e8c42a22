import type { Mesh } from './mesh'

/** {@link weld} for double precision. */
export function weldDoubles(corners: Float64Array): Mesh {
  const cornerCount = corners.length / 3
  let size = 1
  while (size < cornerCount) size *= 2
  const mask = size * 2 - 1
  const slots = new Int32Array(size * 2).fill(-1)
  const positions = new Float64Array(corners.length)
  const triangles = new Uint32Array(cornerCount)
  const scratch = new Float64Array(3)
  const words = new Int32Array(scratch.buffer)
  let vertexCount = 0
  for (let c = 0; c < cornerCount; c++) {
    const x = corners[3 * c]! + 0
    const y = corners[3 * c + 1]! + 0
    const z = corners[3 * c + 2]! + 0
    scratch[0] = x
    scratch[1] = y
    scratch[2] = z
    let hash = 0
    for (let w = 0; w < 6; w++) hash = Math.imul(hash ^ words[w]!, 0x9e3779b1) ^ (hash >>> 15)
    let slot = (hash ^ (hash >>> 13)) & mask
    let vertex = slots[slot]!
    while (vertex >= 0 && (positions[3 * vertex] !== x || positions[3 * vertex + 1] !== y || positions[3 * vertex + 2] !== z)) {
      slot = (slot + 1) & mask
      vertex = slots[slot]!
    }
    if (vertex < 0) {
      vertex = vertexCount++
      slots[slot] = vertex
      positions[3 * vertex] = x
      positions[3 * vertex + 1] = y
      positions[3 * vertex + 2] = z
    }
    triangles[c] = vertex
  }
  return { positions: positions.slice(0, 3 * vertexCount), triangles }
}
