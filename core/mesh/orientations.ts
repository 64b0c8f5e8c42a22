import { type Placement, rotationMatrix } from './place'

/** A orientation: which side of the part, as it lies now, comes down. */
export interface Orientation {
  readonly name: string
  readonly placement: Placement
  /** Where an axis of the part as it lies now points to then, and whether it points back. */
  readonly axisOf: (axis: AxisName) => { readonly axis: AxisName; readonly reversed: boolean }
  /** The same for any vector. */
  readonly turned: (vector: readonly [number, number, number]) => [number, number, number]
}

const turns = [
  ['as it lies', [0, 0, 0]],
  ['upside down', [180, 0, 0]],
  ['on its front', [90, 0, 0]],
  ['on its back', [-90, 0, 0]],
  ['on its left', [0, -90, 0]],
  ['on its right', [0, 90, 0]],
] as const

/** The six ways in which a box can lie, reached from how the part lies now. */
export function sixOrientations(now: Placement): Orientation[] {
  const own = rotationMatrix(now.rotateDeg, 1)
  return turns.map(([name, turn]) => {
    const by = rotationMatrix([...turn], 1)
    return {
      name,
      placement: { scale: now.scale, rotateDeg: anglesOf(product(by, own)) },
      axisOf: (axis) => turnedAxis(by, axis),
      turned: (vector) => times(by, vector),
    }
  })
}

const axisNames = ['x', 'y', 'z'] as const
export type AxisName = (typeof axisNames)[number]

/** Quarter turns send each axis onto another, forward or back. */
function turnedAxis(m: readonly number[], axis: AxisName): { axis: AxisName; reversed: boolean } {
  const column = axisNames.indexOf(axis)
  const row = axisNames.findIndex((_, r) => Math.abs(m[3 * r + column]!) > 0.5)
  return { axis: axisNames[row]!, reversed: m[3 * row + column]! < 0 }
}

const times = (m: readonly number[], v: readonly number[]): [number, number, number] =>
  [0, 1, 2].map((row) => [0, 1, 2].reduce((sum, k) => sum + m[3 * row + k]! * v[k]!, 0)) as [number, number, number]

const product = (a: readonly number[], b: readonly number[]): number[] =>
  Array.from({ length: 9 }, (_, i) => {
    const [row, column] = [Math.floor(i / 3), i % 3]
    return [0, 1, 2].reduce((sum, k) => sum + a[3 * row + k]! * b[3 * k + column]!, 0)
  })

/** Angles about x, then y, then z, degrees, that make up a rotation Rz·Ry·Rx. Where y is a quarter turn, z is left at 0. */
function anglesOf(m: readonly number[]): [number, number, number] {
  const sinY = Math.max(-1, Math.min(1, -m[6]!))
  const y = Math.asin(sinY)
  const isQuarter = Math.abs(sinY) > 1 - 1e-9
  const x = isQuarter ? Math.atan2(sinY * m[1]!, m[4]!) : Math.atan2(m[7]!, m[8]!)
  const z = isQuarter ? 0 : Math.atan2(m[3]!, m[0]!)
  // Whole degrees stay whole, so that quarter turns are exact.
  return [x, y, z].map((angle) => Number(((angle * 180) / Math.PI).toFixed(9)) + 0) as [number, number, number]
}
