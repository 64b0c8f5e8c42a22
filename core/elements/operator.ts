import { blocksOf } from './brick'
import type { Mesh } from './mesh'

/** What a mesh's cells are as springs: the blocks of each material, and which movements are held. */
export interface Springs {
  readonly mesh: Mesh
  /** 72 numbers for each material. */
  readonly blocks: Float64Array
  /** 1 for each movement (three a node) that is none. */
  readonly held: Uint8Array
}

/** @param stiffness 24 × 24 of a full cell, by material */
export function springsOf(mesh: Mesh, stiffness: readonly Float64Array[], held: Uint8Array): Springs {
  const blocks = new Float64Array(72 * stiffness.length)
  for (const [kind, own] of stiffness.entries()) blocks.set(blocksOf(own), 72 * kind)
  return { mesh, blocks, held }
}

/** Forces that hold nodes where they were moved to, N; nothing at held movements, which are taken as none. */
export function forcesOf({ mesh, blocks, held }: Springs, moved: Float64Array, out: Float64Array): void {
  out.fill(0)
  addForces(mesh, blocks, moved, out)
  for (let i = 0; i < held.length; i++) if (held[i] === 1) out[i] = 0
}

const w = new Float64Array(24)
const t = new Float64Array(24)

/** Cell by cell: to even and odd movements, through the blocks, and back. */
function addForces({ nodes, share, kind }: Mesh, blocks: Float64Array, moved: Float64Array, out: Float64Array): void {
  for (let c = 0; c < share.length; c++) {
    const first = 8 * c
    const n0 = 3 * nodes[first]!
    const n1 = 3 * nodes[first + 1]!
    const n2 = 3 * nodes[first + 2]!
    const n3 = 3 * nodes[first + 3]!
    const n4 = 3 * nodes[first + 4]!
    const n5 = 3 * nodes[first + 5]!
    const n6 = 3 * nodes[first + 6]!
    const n7 = 3 * nodes[first + 7]!
    for (let i = 0; i < 3; i++)
      signs(
        moved[n0 + i]!,
        moved[n1 + i]!,
        moved[n2 + i]!,
        moved[n3 + i]!,
        moved[n4 + i]!,
        moved[n5 + i]!,
        moved[n6 + i]!,
        moved[n7 + i]!,
        8 * i,
      )
    const full = share[c]!
    let b = 72 * kind[c]!
    for (let k = 0; k < 8; k++, b += 9) {
      const x = k ^ 1
      const y = 8 + (k ^ 2)
      const z = 16 + (k ^ 4)
      const wx = full * w[x]!
      const wy = full * w[y]!
      const wz = full * w[z]!
      t[x] = blocks[b]! * wx + blocks[b + 1]! * wy + blocks[b + 2]! * wz
      t[y] = blocks[b + 3]! * wx + blocks[b + 4]! * wy + blocks[b + 5]! * wz
      t[z] = blocks[b + 6]! * wx + blocks[b + 7]! * wy + blocks[b + 8]! * wz
    }
    for (let i = 0; i < 3; i++) {
      const o = 8 * i
      corners(o)
      out[n0 + i]! += w[o]!
      out[n1 + i]! += w[o + 1]!
      out[n2 + i]! += w[o + 2]!
      out[n3 + i]! += w[o + 3]!
      out[n4 + i]! += w[o + 4]!
      out[n5 + i]! += w[o + 5]!
      out[n6 + i]! += w[o + 6]!
      out[n7 + i]! += w[o + 7]!
    }
  }
}

/** Sums of eight corners with the signs of each pattern, into `w`: a Hadamard transform whose far sides are positive. */
// biome-ignore lint/complexity/useMaxParams: private, and called for every cell: an array would cost as much as the sums.
function signs(a: number, b: number, c: number, d: number, e: number, f: number, g: number, h: number, to: number): void {
  const ab = b + a
  const ba = b - a
  const cd = d + c
  const dc = d - c
  const ef = f + e
  const fe = f - e
  const gh = h + g
  const hg = h - g
  const s0 = cd + ab
  const s1 = dc + ba
  const s2 = cd - ab
  const s3 = dc - ba
  const s4 = gh + ef
  const s5 = hg + fe
  const s6 = gh - ef
  const s7 = hg - fe
  w[to] = s4 + s0
  w[to + 1] = s5 + s1
  w[to + 2] = s6 + s2
  w[to + 3] = s7 + s3
  w[to + 4] = s4 - s0
  w[to + 5] = s5 - s1
  w[to + 6] = s6 - s2
  w[to + 7] = s7 - s3
}

/** From patterns in `t` back to corners in `w`: the same signs, transposed. */
function corners(at: number): void {
  const ab = t[at]! - t[at + 1]!
  const ba = t[at]! + t[at + 1]!
  const cd = t[at + 2]! - t[at + 3]!
  const dc = t[at + 2]! + t[at + 3]!
  const ef = t[at + 4]! - t[at + 5]!
  const fe = t[at + 4]! + t[at + 5]!
  const gh = t[at + 6]! - t[at + 7]!
  const hg = t[at + 6]! + t[at + 7]!
  const s0 = ab - cd
  const s1 = ba - dc
  const s2 = ab + cd
  const s3 = ba + dc
  const s4 = ef - gh
  const s5 = fe - hg
  const s6 = ef + gh
  const s7 = fe + hg
  w[at] = s0 - s4
  w[at + 1] = s1 - s5
  w[at + 2] = s2 - s6
  w[at + 3] = s3 - s7
  w[at + 4] = s0 + s4
  w[at + 5] = s1 + s5
  w[at + 6] = s2 + s6
  w[at + 7] = s3 + s7
}
