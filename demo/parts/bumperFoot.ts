import type { Mesh } from '@sable/core/mesh/mesh'
import { lathe } from './lathe'

const SEGMENTS = 72
/** Foot, waist, head with a chamfer, and a bore for its screw with the seat of the head, mm. */
const outline: readonly (readonly [number, number])[] = [
  [11, 0],
  [11, 2],
  [9, 5],
  [9, 8],
  [10, 11],
  [10, 13],
  [9, 14],
  [2.2, 14],
  [2.2, 5],
  [4.5, 5],
  [4.5, 0],
]

/** A foot that keeps the lantern's base from the table: soft, bored for a screw. */
export const bumperFoot = (): Mesh => lathe(outline, SEGMENTS, true)
