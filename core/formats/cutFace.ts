import earcut from 'earcut'

/**
 * Cuts a flat face into triangles, three of its vertices each. A fan where every corner turns the same way; where one is
 * hollow a fan would reach outside of it.
 *
 * @param face vertices in order, three or more
 * @param at coordinate of a vertex, mm
 */
export function cutFace(face: readonly number[], at: (vertex: number, axis: number) => number): number[] {
  if (face.length === 3) return [...face]
  const normal = normalOf(face, at)
  // Seen along the axis in which it lies flattest.
  const along = normal.reduce((most, n, axis) => (Math.abs(n) > Math.abs(normal[most]!) ? axis : most), 0)
  const [u, v] = [(along + 1) % 3, (along + 2) % 3]
  const flat = face.map((vertex) => [at(vertex, u), at(vertex, v)] as const)
  if (!isConvex(flat, Math.sign(normal[along]!))) {
    const ears = earcut(flat.flat())
    // Each ear runs as the face does.
    if (ears.length === 3 * (face.length - 2)) return facingAs(ears, flat, Math.sign(normal[along]!)).map((i) => face[i]!)
  }
  return face.slice(2).flatMap((vertex, i) => [face[0]!, face[i + 1]!, vertex])
}

/** Newell's normal: right for hollow faces, and nearly so for bent ones. */
function normalOf(face: readonly number[], at: (vertex: number, axis: number) => number): number[] {
  const normal = [0, 0, 0]
  for (const [i, vertex] of face.entries()) {
    const next = face[(i + 1) % face.length]!
    for (let k = 0; k < 3; k++) {
      const [u, v] = [(k + 1) % 3, (k + 2) % 3]
      normal[k]! += (at(vertex, u) - at(next, u)) * (at(vertex, v) + at(next, v))
    }
  }
  return normal
}

type Flat = readonly (readonly [u: number, v: number])[]

const turn = (flat: Flat, a: number, b: number, c: number): number =>
  (flat[b]![0] - flat[a]![0]) * (flat[c]![1] - flat[a]![1]) - (flat[b]![1] - flat[a]![1]) * (flat[c]![0] - flat[a]![0])

const isConvex = (flat: Flat, way: number): boolean =>
  flat.every((_, i) => way * turn(flat, i, (i + 1) % flat.length, (i + 2) % flat.length) >= 0)

function facingAs(ears: readonly number[], flat: Flat, way: number): number[] {
  const out: number[] = []
  for (let i = 0; i < ears.length; i += 3) {
    const [a, b, c] = [ears[i]!, ears[i + 1]!, ears[i + 2]!]
    out.push(...(way * turn(flat, a, b, c) < 0 ? [a, c, b] : [a, b, c]))
  }
  return out
}
