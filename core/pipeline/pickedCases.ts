import { faceAt, nearestFacet } from '../mesh/faceAt'
import type { Mesh } from '../mesh/mesh'
import type { Part } from '../mesh/part'
import { type Placement, rotationMatrix } from '../mesh/place'
import type { Case, Hold, Load } from '../physics/solved/structure'
import type { Three } from '../physics/solved/voxels'
import type { Region } from '../physics/solved/where'
import type { PickedCase, PickedFace, PickedPlace } from '../physics/strength/pickedCases'
import { InputError } from '../units/errors'

/** Of a mass, m/s² (standard gravity, ISO 80000-3). */
const GRAVITY = 9.80665
/** A face that slides is held along the axis that it faces; it must face one within this, as a cosine. */
const FACES = Math.cos((20 * Math.PI) / 180)

/**
 * A picked case on a part as it lies.
 *
 * @param placed the part's mesh as it lies, facet by facet as it was read
 * @throws InputError where it is held or loaded nowhere, or a face that slides faces no axis of the bed
 */
export function caseOf(picked: PickedCase, { mesh, edges }: Pick<Part, 'mesh' | 'edges'>, placed: Mesh, placement: Placement): Case {
  const turn = rotationMatrix(placement.rotateDeg, 1)
  const patch = (face: PickedPlace): Float64Array => trianglesOf(placed, facetsOf(face, { mesh, edges }, placed, turn))
  const regionOf = (face: PickedPlace): Region =>
    'outwards' in face ? endOf(face, placed, turn) : { kind: 'patch', triangles: patch(face) }
  const inwardsOf = (face: PickedPlace): Three =>
    ('outwards' in face ? unit(turnedBy(turn, face.outwards)).map((one) => -one) : inwards(patch(face))) as unknown as Three
  if (picked.holds.length === 0 || picked.loads.length === 0)
    throw new InputError(
      'case-empty',
      `“${picked.name}” is not ${picked.holds.length === 0 ? 'held' : 'loaded'} anywhere.`,
      '',
      'Point at a face of the part.',
    )
  const holds = picked.holds.map(({ face, slides }): Hold => {
    return { where: [regionOf(face)], along: slides ? alongOf(inwardsOf(face), picked.name) : [true, true, true] }
  })
  const loads = picked.loads.map(({ face, action, amount, along }): Load => {
    const where = [regionOf(face)]
    if (action === 'pressure') return { where, pressure: amount }
    const way = along ? unit(turnedBy(turn, along)) : inwardsOf(face)
    // A moment in N·m, its arms in mm.
    const size = action === 'mass' ? GRAVITY * amount : action === 'moment' ? 1000 * amount : amount
    const vector = way.map((one) => size * one) as unknown as Three
    return action === 'moment' ? { where, moment: vector } : { where, force: vector }
  })
  return { holds, loads: [loads] }
}

/** A face as it is drawn: its facets, nine coordinates each, where its middle lies, and which way what acts on it points; of a hold, into it. */
export interface DrawnFace {
  readonly corners: Float32Array
  readonly middle: Three
  readonly way: Three
}

export interface DrawnCase {
  readonly holds: readonly DrawnFace[]
  readonly loads: readonly DrawnFace[]
}

/** Where a case acts on a part as it lies. */
export function drawnCase(
  { holds, loads }: PickedCase,
  { mesh, edges }: Pick<Part, 'mesh' | 'edges'>,
  placed: Mesh,
  { rotateDeg }: Placement,
): DrawnCase {
  const turn = rotationMatrix(rotateDeg, 1)
  const drawn = (face: PickedPlace, along?: readonly number[]): DrawnFace => {
    const triangles = trianglesOf(placed, facetsOf(face, { mesh, edges }, placed, turn))
    const way = along ? unit(turnedBy(turn, along)) : inwards(triangles)
    const middle: [number, number, number] = [0, 0, 0]
    for (let i = 0; i < triangles.length; i++) middle[i % 3]! += (3 * triangles[i]!) / triangles.length
    return { corners: Float32Array.from(triangles), middle, way }
  }
  return { holds: holds.map(({ face }) => drawn(face)), loads: loads.map(({ face, along }) => drawn(face, along)) }
}

/** An end as a region of the part as it lies. */
function endOf({ outwards, share }: Extract<PickedPlace, { outwards: unknown }>, { positions }: Mesh, turn: readonly number[]) {
  const [x, y, z] = unit(turnedBy(turn, outwards))
  let [low, high] = [Infinity, -Infinity]
  for (let i = 0; i < positions.length; i += 3) {
    const along = positions[i]! * x + positions[i + 1]! * y + positions[i + 2]! * z
    if (along < low) low = along
    if (along > high) high = along
  }
  return { kind: 'end', outwards: [x, y, z], from: high - share * (high - low) } as const
}

/** Facets of a face, or those of an end. */
function facetsOf(face: PickedPlace, { mesh, edges }: Pick<Part, 'mesh' | 'edges'>, placed: Mesh, turn: readonly number[]): Uint32Array {
  if (!('outwards' in face)) return faceAt(mesh, edges, face.at, face.withinDeg)
  const { outwards, from } = endOf(face, placed, turn)
  const { positions, triangles } = placed
  const own: number[] = []
  for (let facet = 0; 3 * facet < triangles.length; facet++) {
    let along = 0
    for (let k = 0; k < 3; k++) for (let i = 0; i < 3; i++) along += (positions[3 * triangles[3 * facet + k]! + i]! * outwards[i]!) / 3
    if (along >= from) own.push(facet)
  }
  return Uint32Array.from(own)
}

/** The face of a part at a point of it as it lies, mm. */
export function faceOf({ mesh }: Pick<Part, 'mesh'>, placed: Mesh, at: Three): PickedFace['at'] {
  const facet = nearestFacet(placed, at)
  const middle: [number, number, number] = [0, 0, 0]
  for (let k = 0; k < 3; k++)
    for (let axis = 0; axis < 3; axis++) middle[axis]! += mesh.positions[3 * mesh.triangles[3 * facet + k]! + axis]! / 3
  return middle
}

/** A direction of a part as it lies, in the part's own coordinates. */
export function ownDirection(along: Three, { rotateDeg }: Placement): [number, number, number] {
  const turn = rotationMatrix(rotateDeg, 1)
  return [0, 1, 2].map((c) => [0, 1, 2].reduce((sum, r) => sum + turn[3 * r + c]! * along[r]!, 0)) as [number, number, number]
}

const turnedBy = (turn: readonly number[], v: readonly number[]): Three =>
  [0, 1, 2].map((r) => [0, 1, 2].reduce((sum, c) => sum + turn[3 * r + c]! * v[c]!, 0)) as unknown as Three

const inwards = (triangles: Float64Array): Three => normalOf(triangles).map((one) => -one) as unknown as Three

function trianglesOf({ positions, triangles }: Mesh, facets: Uint32Array): Float64Array {
  const out = new Float64Array(9 * facets.length)
  for (const [i, facet] of facets.entries())
    for (let k = 0; k < 3; k++)
      for (let axis = 0; axis < 3; axis++) out[9 * i + 3 * k + axis] = positions[3 * triangles[3 * facet + k]! + axis]!
  return out
}

const unit = (v: Three): Three => {
  const length = Math.hypot(...v)
  return [v[0] / length, v[1] / length, v[2] / length]
}

/** Mean direction that a patch faces. */
function normalOf(t: Float64Array): Three {
  const sum: [number, number, number] = [0, 0, 0]
  for (let i = 0; i < t.length; i += 9) {
    const [ux, uy, uz] = [t[i + 3]! - t[i]!, t[i + 4]! - t[i + 1]!, t[i + 5]! - t[i + 2]!]
    const [vx, vy, vz] = [t[i + 6]! - t[i]!, t[i + 7]! - t[i + 1]!, t[i + 8]! - t[i + 2]!]
    sum[0] += uy * vz - uz * vy
    sum[1] += uz * vx - ux * vz
    sum[2] += ux * vy - uy * vx
  }
  const length = Math.hypot(...sum)
  return length > 0 ? [sum[0] / length, sum[1] / length, sum[2] / length] : [0, 0, 1]
}

function alongOf(normal: Three, name: string): Hold['along'] {
  const faced = normal.findIndex((one) => Math.abs(one) >= FACES)
  if (faced < 0)
    throw new InputError(
      'slides-askew',
      `A face on which “${name}” slides faces none of X, Y and Z.`,
      '',
      'Hold it firmly, or turn the part so that the face lies along the bed or upright.',
    )
  return [faced === 0, faced === 1, faced === 2]
}
