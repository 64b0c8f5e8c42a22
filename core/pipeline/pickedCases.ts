import { faceAt, nearestFacet } from '../mesh/faceAt'
import { measureSize } from '../mesh/measure'
import type { Mesh } from '../mesh/mesh'
import type { Part } from '../mesh/part'
import { type Placement, rotationMatrix } from '../mesh/place'
import type { Case, Hold, Load } from '../physics/solved/structure'
import type { Three } from '../physics/solved/voxels'
import type { Region } from '../physics/solved/where'
import type { PickedBox, PickedCase, PickedFace, PickedPlace } from '../physics/strength/pickedCases'
import { InputError } from '../units/errors'

/** Of a mass, m/s² (standard gravity, ISO 80000-3). */
const GRAVITY = 9.80665
/** A face that slides is held along the axis that it faces; it must face one within this, as a cosine. */
const FACES = Math.cos((20 * Math.PI) / 180)

/**
 * A picked case on a part as it lies.
 *
 * @param placed the part's mesh as it lies, facet by facet as it was read
 * @param density of the plastic, g/cm³
 * @throws InputError where it is held or loaded nowhere, or a face that slides faces no axis of the bed
 */
export function caseOf(
  picked: PickedCase,
  { mesh, edges }: Pick<Part, 'mesh' | 'edges'>,
  placed: Mesh,
  placement: Placement,
  density: number,
): Case {
  const turn = rotationMatrix(placement.rotateDeg, 1)
  const patch = (face: PickedFace): Float64Array => trianglesOf(placed, facetsOf(face, { mesh, edges }, placed, turn))
  const regionOf = (face: PickedPlace): Region =>
    'outwards' in face
      ? endOf(face, placed, turn)
      : 'sides' in face
        ? boxOf(face, mesh, placed, placement)
        : { kind: 'patch', triangles: patch(face) }
  const inwardsOf = (face: PickedPlace): Three =>
    'outwards' in face ? opposite(unit(turnedBy(turn, face.outwards))) : 'sides' in face ? [0, 0, -1] : inwards(patch(face))
  const { weight } = picked
  if (picked.holds.length === 0 || (picked.loads.length === 0 && !weight))
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
    if (action === 'pressure' && 'at' in face) return { where, pressure: amount }
    if (action === 'pressure') throw pressesNoFace(picked.name)
    const way = along ? unit(turnedBy(turn, along)) : inwardsOf(face)
    // A moment in N·m, its arms in mm.
    const size = action === 'mass' ? GRAVITY * amount : action === 'moment' ? 1000 * amount : amount
    const vector = way.map((one) => size * one) as unknown as Three
    return { where, [action === 'mass' ? 'force' : action]: vector }
  })
  // 1 g/cm³ is 10⁻⁶ kg/mm³.
  const heavy = weight && unit(turnedBy(turn, weight.along)).map((one) => 1e-6 * density * GRAVITY * weight.times * one)
  const all = heavy ? [...loads, { where: [{ kind: 'whole' as const }], onVolume: heavy as unknown as Three }] : loads
  return { holds, loads: [all], buckles: true }
}

/** A face as it is drawn: its facets, nine coordinates each, where its middle lies, and which way what acts on it points; of a hold, into it. */
export interface DrawnFace {
  readonly corners: Float32Array
  readonly middle: Three
  readonly way: Three
  /** It is drawn as the box that it is. */
  readonly isBox: boolean
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
  placement: Placement,
): DrawnCase {
  const turn = rotationMatrix(placement.rotateDeg, 1)
  const drawn = (face: PickedPlace, along?: readonly number[]): DrawnFace => {
    const isBox = 'sides' in face
    const triangles = isBox
      ? facetsOfBox(boxOf(face, mesh, placed, placement))
      : trianglesOf(placed, facetsOf(face, { mesh, edges }, placed, turn))
    const way: Three = along ? unit(turnedBy(turn, along)) : isBox ? [0, 0, -1] : inwards(triangles)
    const middle: [number, number, number] = [0, 0, 0]
    for (let i = 0; i < triangles.length; i++) middle[i % 3]! += (3 * triangles[i]!) / triangles.length
    return { corners: Float32Array.from(triangles), middle, way, isBox }
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
function facetsOf(
  face: Exclude<PickedPlace, PickedBox>,
  { mesh, edges }: Pick<Part, 'mesh' | 'edges'>,
  placed: Mesh,
  turn: readonly number[],
): Uint32Array {
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

/** A point of a part as it lies, in the part's own coordinates, mm. */
export function ownPoint({ mesh }: Pick<Part, 'mesh'>, placed: Mesh, at: Three, placement: Placement): Three {
  const off = at.map((mm, k) => (mm - placed.positions[k]!) / placement.scale) as unknown as Three
  return ownDirection(off, placement).map((mm, k) => mm + mesh.positions[k]!) as unknown as Three
}

/** What is pointed at: a face, or a box about a point of it. */
export type PointedAt = 'face' | 'box'
/** A box that was only just pointed at is so large, of the part's longest side. */
const BOX_SHARE = 0.2

/** The face of a part at a point of it as it lies, mm, or a box about that point. */
export function placeAt(part: Pick<Part, 'mesh'>, placed: Mesh, at: Three, placement: Placement, pointedAt: PointedAt): PickedPlace {
  if (pointedAt === 'face') return { at: faceOf(part, placed, at), withinDeg: 20 }
  const side = Number((BOX_SHARE * Math.max(...measureSize(part.mesh))).toPrecision(2))
  const [x, y, z] = ownPoint(part, placed, at, placement).map((mm) => Number(mm.toFixed(1))) as unknown as Three
  return { middle: [x, y, z], sides: [side, side, side] }
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

const opposite = (v: Three): Three => v.map((one) => -one) as unknown as Three
const inwards = (triangles: Float64Array): Three => opposite(normalOf(triangles))

const pressesNoFace = (name: string): InputError =>
  new InputError(
    'presses-no-face',
    `A pressure in “${name}” acts on a box or an end.`,
    '',
    'Point at the face that it presses on, or take a force.',
  )

/** A box of the part as a region of it as it lies. */
function boxOf({ middle, sides }: PickedBox, mesh: Mesh, placed: Mesh, { rotateDeg, scale }: Placement): TurnedBox {
  const matrix = rotationMatrix(rotateDeg, scale)
  // Where a part is set down moves all of it alike: as far as its first corner was.
  const first = turnedBy(matrix, [...mesh.positions.subarray(0, 3)])
  const at = turnedBy(matrix, middle).map((mm, k) => mm + placed.positions[k]! - first[k]!) as unknown as Three
  const halves = [0, 1, 2].map((k) =>
    turnedBy(
      matrix,
      [0, 1, 2].map((i) => (i === k ? sides[k]! / 2 : 0)),
    ),
  )
  return { kind: 'turnedBox', middle: at, halves: halves as unknown as TurnedBox['halves'] }
}
type TurnedBox = Extract<Region, { readonly kind: 'turnedBox' }>

/** The twelve facets of a box, from outside. */
function facetsOfBox({ middle, halves }: TurnedBox): Float64Array {
  const corner = (u: number, v: number, w: number): Three =>
    middle.map((mm, k) => mm + u * halves[0][k]! + v * halves[1][k]! + w * halves[2][k]!) as unknown as Three
  const out: number[] = []
  for (let axis = 0; axis < 3; axis++)
    for (const side of [-1, 1]) {
      const at = (u: number, v: number): Three => {
        const own = [0, 0, 0]
        own[axis] = side
        own[(axis + 1) % 3] = side * u
        own[(axis + 2) % 3] = v
        return corner(own[0]!, own[1]!, own[2]!)
      }
      const [a, b, c, d] = [at(-1, -1), at(1, -1), at(1, 1), at(-1, 1)]
      out.push(...a, ...b, ...c, ...a, ...c, ...d)
    }
  return Float64Array.from(out)
}

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
