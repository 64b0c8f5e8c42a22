type Numbers = Float64Array | Float32Array | Uint32Array | Int32Array | Uint8Array

/**
 * Memory that other threads see without a copy of their own, where the host allows that: what a task gives goes on to the
 * next one in whatever thread that runs.
 */
export const sharedRoom = (bytes: number): ArrayBufferLike =>
  typeof SharedArrayBuffer === 'undefined' ? new ArrayBuffer(bytes) : new SharedArrayBuffer(bytes)

/** Arrays one behind the other, in shared memory. */
export function joined<A extends Numbers>(parts: readonly A[]): A {
  const bytes = parts.reduce((sum, { byteLength }) => sum + byteLength, 0)
  const whole = new (parts[0]!.constructor as new (room: ArrayBufferLike) => A)(sharedRoom(bytes))
  let at = 0
  for (const part of parts) {
    whole.set(part, at)
    at += part.length
  }
  return whole
}

export const shared = <A extends Numbers>(values: A): A => joined([values])

/** Lists of where things begin, one behind the other: each ends with where the next one begins. */
export function joinStarts(parts: readonly Uint32Array[]): Uint32Array {
  const whole = joined([...parts.map((part) => part.subarray(0, -1)), Uint32Array.of(0)])
  let at = 0
  let base = 0
  for (const part of parts) {
    for (let i = 0; i < part.length - 1; i++) whole[at++]! += base
    base += part[part.length - 1]!
  }
  whole[at] = base
  return whole
}
