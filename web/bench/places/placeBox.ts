import type { Override } from '@sable/core/profile/overrides'

/** A box as it stands on the bed, mm and °. */
export type PlaceBox = NonNullable<Override['box']>
export type Point = readonly [number, number]

/** Corners of a box, and the ends of what they are pulled by: −1 or 1 along its own two axes. */
export const cornerSigns: readonly Point[] = [
  [-1, -1],
  [1, -1],
  [1, 1],
  [-1, 1],
]

/** No side becomes shorter than this, mm. */
const SHORTEST = 0.4

const turned = ([x, y]: Point, degrees: number): Point => {
  const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)]
  return [x * cos - y * sin, x * sin + y * cos]
}
const middleOf = ({ minX, maxX, minY, maxY }: PlaceBox): Point => [(minX + maxX) / 2, (minY + maxY) / 2]

/** A point of a box by its own axes: ±1 are its sides. */
export function pointOf(box: PlaceBox, [u, v]: Point): Point {
  const [x, y] = middleOf(box)
  const [dx, dy] = turned([(u * (box.maxX - box.minX)) / 2, (v * (box.maxY - box.minY)) / 2], box.turn ?? 0)
  return [x + dx, y + dy]
}

/** A box between two points, as a pointer draws it. */
export const drawnBox = ([x0, y0]: Point, [x1, y1]: Point): PlaceBox => ({
  minX: Math.min(x0, x1),
  maxX: Math.max(x0, x1, Math.min(x0, x1) + SHORTEST),
  minY: Math.min(y0, y1),
  maxY: Math.max(y0, y1, Math.min(y0, y1) + SHORTEST),
})

export const movedBox = ({ minX, maxX, minY, maxY, ...rest }: PlaceBox, [dx, dy]: Point): PlaceBox => ({
  minX: minX + dx,
  maxX: maxX + dx,
  minY: minY + dy,
  maxY: maxY + dy,
  ...rest,
})

/** One corner pulled to a point; the one across from it stays. */
export function stretchedBox(box: PlaceBox, [u, v]: Point, to: Point): PlaceBox {
  const turn = box.turn ?? 0
  const stays = pointOf(box, [-u, -v])
  const [across, along] = turned([to[0] - stays[0], to[1] - stays[1]], -turn)
  const [width, depth] = [Math.max(SHORTEST, across * u), Math.max(SHORTEST, along * v)]
  const [dx, dy] = turned([(u * width) / 2, (v * depth) / 2], turn)
  const [x, y] = [stays[0] + dx, stays[1] + dy]
  return { ...box, minX: x - width / 2, maxX: x + width / 2, minY: y - depth / 2, maxY: y + depth / 2 }
}

/** Turned about its middle so that its far side looks at a point, by whole degrees. */
export function turnedBox(box: PlaceBox, to: Point): PlaceBox {
  const [x, y] = middleOf(box)
  const degrees = Math.round((Math.atan2(to[1] - y, to[0] - x) * 180) / Math.PI - 90)
  return withTurn(box, degrees < -180 ? degrees + 360 : degrees)
}

/** A box that stands straight says nothing of its turn. */
export const withTurn = ({ turn: _, ...box }: PlaceBox, degrees: number): PlaceBox => (degrees === 0 ? box : { ...box, turn: degrees })

/** Numbers as a person would write them, to a tenth of a millimetre or degree. */
export function roundedBox(box: PlaceBox): PlaceBox {
  const tenth = (value: number): number => Math.round(value * 10) / 10
  const { minX, maxX, minY, maxY, turn = 0 } = box
  return withTurn({ minX: tenth(minX), maxX: tenth(maxX), minY: tenth(minY), maxY: tenth(maxY) }, tenth(turn))
}

/** The twelve edges of a place between two heights, two points each. */
export function edgesOfPlace(box: PlaceBox, fromZ: number, toZ: number): Float32Array {
  const corners = cornerSigns.map((signs) => pointOf(box, signs))
  const at = (k: number, z: number): number[] => [...corners[k % 4]!, z]
  return Float32Array.from(
    cornerSigns.flatMap((_, k) => [...at(k, fromZ), ...at(k + 1, fromZ), ...at(k, toZ), ...at(k + 1, toZ), ...at(k, fromZ), ...at(k, toZ)]),
  )
}

/** The twelve facets of a place between two heights, nine coordinates each. */
export function facetsOfPlace(box: PlaceBox, fromZ: number, toZ: number): Float32Array {
  const corners = cornerSigns.map((signs) => pointOf(box, signs))
  const out: number[] = []
  const quad = (a: readonly number[], b: readonly number[], c: readonly number[], d: readonly number[]): void => {
    out.push(...a, ...b, ...c, ...a, ...c, ...d)
  }
  const at = (k: number, z: number): number[] => [...corners[k % 4]!, z]
  for (let k = 0; k < 4; k++) quad(at(k, fromZ), at(k + 1, fromZ), at(k + 1, toZ), at(k, toZ))
  quad(at(0, toZ), at(1, toZ), at(2, toZ), at(3, toZ))
  quad(at(3, fromZ), at(2, fromZ), at(1, fromZ), at(0, fromZ))
  return Float32Array.from(out)
}
