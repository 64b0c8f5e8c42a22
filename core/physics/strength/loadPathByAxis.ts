import { type Direction, frameOf, type Vector } from './direction'
import type { Grip } from './grip'
import { acrossRows, asLayers, findLoadPath, type LoadPath } from './loadPath'
import { layRows, type Outlines, type Stretches } from './stretches'

/** LoadPath along one direction, and where the rows lie that tell them apart. */
export interface AxisLoadPath {
  readonly loadPath: LoadPath
  /** Row r lies where the way along this is `first + r · step`, mm, and runs along `level`. */
  readonly along: Vector
  readonly level: readonly [x: number, y: number]
  readonly first: number
  readonly step: number
}
export type LoadPathByAxis = Readonly<Partial<Record<'x' | 'y' | 'z', AxisLoadPath>>>

/** Rows lie about this far apart, mm, as sections do. */
const ROW_STEP = 1
const MOST_ROWS = 200
/** Steeper directions than this, degrees, would have the rows of a layer too far apart. */
const STEEPEST = 75

/** What bears a load along each axis of a part; an axis is left out where all of the part does. */
export function loadPathByAxis(part: Outlines, grip: Grip): LoadPathByAxis {
  const x = rowsAlong(part, [1, 0, 0], [0, 1])
  const y = rowsAlong(part, [0, 1, 0], [1, 0])
  const { layers } = x.stretches
  return {
    ...named('x', x, findLoadPath(x.stretches, acrossRows(x.stretches), ...gripped(x.stretches.rows, grip))),
    ...named('y', y, findLoadPath(y.stretches, acrossRows(y.stretches), ...gripped(y.stretches.rows, grip))),
    // Along z a section is a layer, and rows across x tell its limbs apart.
    ...named('z', x, findLoadPath(x.stretches, asLayers(x.stretches), ...gripped(layers, grip))),
  }
}

/** What bears a load along a direction; nothing where all of the part does, or where it is too steep to be looked through. */
export function loadPathAlong(part: Outlines, direction: Direction, grip: Grip): AxisLoadPath | undefined {
  if (Math.abs(direction.elevationDeg) > STEEPEST) return undefined
  const { along, level } = frameOf(direction)
  const rows = rowsAlong(part, along, [level[0], level[1]])
  const { middle } = part
  const layerHeight = middle.length > 1 ? (middle.at(-1)! - middle[0]!) / (middle.length - 1) : Infinity
  // The way along the direction leads to another row and up by so many layers.
  const sectioning = acrossRows(rows.stretches, Math.round((along[2] * rows.step) / layerHeight))
  return named('free', rows, findLoadPath(rows.stretches, sectioning, ...gripped(rows.stretches.rows, grip))).free
}

type Rows = Omit<AxisLoadPath, 'loadPath'> & { readonly stretches: Stretches }

function rowsAlong(part: Outlines, along: Vector, level: AxisLoadPath['level']): Rows {
  const [low, high] = extentAlong(part, along)
  const count = Math.max(1, Math.min(MOST_ROWS, Math.ceil((high - low) / ROW_STEP)))
  const step = (high - low) / count
  const first = low + step / 2
  return { along, level, first, step, stretches: layRows(part, along, level, first, step, count) }
}

const named = <Name extends string>(name: Name, { stretches: _, ...rows }: Rows, loadPath: LoadPath | undefined) =>
  (loadPath ? { [name]: { ...rows, loadPath } } : {}) as Partial<Record<Name, AxisLoadPath>>

/** The last section that is held and the first that is loaded. */
const gripped = (sections: number, { heldTo, loadedFrom }: Grip): [held: number, loaded: number] => [
  Math.floor(heldTo * sections) - 1,
  Math.min(sections - 1, Math.ceil(loadedFrom * sections)),
]

function extentAlong({ outlines: { xy, polygonStart, groupStart }, middle }: Outlines, along: Vector): [low: number, high: number] {
  let [low, high] = [Infinity, -Infinity]
  for (let layer = 0; layer < middle.length; layer++) {
    const rise = along[2] * middle[layer]!
    const to = polygonStart[groupStart[layer + 1]!]!
    for (let i = polygonStart[groupStart[layer]!]!; i < to; i++) {
      const t = along[0] * xy[2 * i]! + along[1] * xy[2 * i + 1]! + rise
      if (t < low) low = t
      if (t > high) high = t
    }
  }
  return high > low ? [low, high] : [0, 1]
}
