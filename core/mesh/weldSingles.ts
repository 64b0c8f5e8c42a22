import type { Mesh } from './mesh'

const MINUS_ZERO = 1 << 31

/** {@link weld} for single precision, as binary STL has it: coordinates are compared as the 32-bit words that they are. */
export function weldSingles(corners: Float32Array): Mesh {
  const count = corners.length / 3
  const words = new Int32Array(corners.buffer, corners.byteOffset, corners.length)
  const triangles = new Uint32Array(count)
  /** x, y, z of each vertex. */
  const keys = new Int32Array(corners.length)
  // A closed surface has a sixth as many vertices as corners; a table for that stays in the processor's cache.
  let slots = new Int32Array(powerOfTwo(count / 2))
  let mask = slots.length - 1
  let vertices = 0
  for (let c = 0; c < count; c++) {
    let x = words[3 * c]!
    let y = words[3 * c + 1]!
    let z = words[3 * c + 2]!
    if (x === MINUS_ZERO) x = 0
    if (y === MINUS_ZERO) y = 0
    if (z === MINUS_ZERO) z = 0
    let slot = hash(x, y, z) & mask
    /** Number of the vertex + 1; 0 where there is none. */
    let found = slots[slot]!
    while (found > 0 && (keys[3 * found - 3] !== x || keys[3 * found - 2] !== y || keys[3 * found - 1] !== z)) {
      slot = (slot + 1) & mask
      found = slots[slot]!
    }
    if (found === 0) {
      keys[3 * vertices] = x
      keys[3 * vertices + 1] = y
      keys[3 * vertices + 2] = z
      found = ++vertices
      slots[slot] = found
      if (2 * vertices > slots.length) {
        slots = tableOf(keys, vertices, 2 * slots.length)
        mask = slots.length - 1
      }
    }
    triangles[c] = found - 1
  }
  return { positions: new Float64Array(new Float32Array(keys.buffer, 0, 3 * vertices)), triangles }
}

function tableOf(keys: Int32Array, vertices: number, size: number): Int32Array<ArrayBuffer> {
  const slots = new Int32Array(size)
  for (let v = 0; v < vertices; v++) {
    let slot = hash(keys[3 * v]!, keys[3 * v + 1]!, keys[3 * v + 2]!) & (size - 1)
    while (slots[slot]! > 0) slot = (slot + 1) & (size - 1)
    slots[slot] = v + 1
  }
  return slots
}

/** Mixes the bits of three words; low bits depend on all of them. */
function hash(x: number, y: number, z: number): number {
  const mixed = Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca6b) ^ Math.imul(z, 0xc2b2ae35)
  return mixed ^ (mixed >>> 15)
}

function powerOfTwo(least: number): number {
  let power = 1
  while (power < least) power *= 2
  return power
}
