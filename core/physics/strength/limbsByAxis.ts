import { type Direction, frameOf, type Vector } from './direction'
import type { Grip } from './grip'
import { acrossRows, asLayers, findLimbs, type Limbs } from './limbs'
import { layRows, type Outlines, type Stretches } from './stretches'

/** Limbs along one direction, and where the rows lie that tell them apart. */
export interface AxisLimbs {
  readonly limbs: Limbs
  /** Row r lies where the way along this is `first + r · step`, mm, and runs along `level`. */
  readonly along: Vector
  readonly level: readonly [x: number, y: number]
  readonly first: number
  readonly step: number
}
export type LimbsByAxis = Readonly<Partial<Record<'x' | 'y' | 'z', AxisLimbs>>>

/** Rows lie about this far apart, mm, as sections do. */
const ROW_STEP = 1
const MOST_ROWS = 200
/** Steeper directions than this, degrees, would have the rows of a layer too far apart. */
const STEEPEST = 75

/** What bears a load along each axis of a part; an axis is left out where all of the part does. */
export function limbsByAxis(part: Outlines, grip: Grip): LimbsByAxis {
  const x = rowsAlong(part, [1, 0, 0], [0, 1])
  const y = rowsAlong(part, [0, 1, 0], [1, 0])
  const { layers } = x.stretches
  return {
    ...named('x', x, findLimbs(x.stretches, acrossRows(x.stretches), ...gripped(x.stretches.rows, grip))),
    ...named('y', y, findLimbs(y.stretches, acrossRows(y.stretches), ...gripped(y.stretches.rows, grip))),
    // Along z a section is a layer, and rows across x tell its limbs apart.
    ...named('z', x, findLimbs(x.stretches, asLayers(x.stretches), ...gripped(layers, grip))),
  }
}

/** What bears a load along a direction; nothing where all of the part does, or where it is too steep to be looked through. */
export function limbsAlong(part: Outlines, direction: Direction, grip: Grip): AxisLimbs | undefined {
  if (Math.abs(direction.elevationDeg) > STEEPEST) return undefined
  const { along, level } = frameOf(direction)
  const rows = rowsAlong(part, along, [level[0], level[1]])
  const { middle } = part
  const layerHeight = middle.length > 1 ? (middle.at(-1)! - middle[0]!) / (middle.length - 1) : Infinity
  // The way along the direction leads to another row and up by so many layers.
  const sectioning = acrossRows(rows.stretches, Math.round((along[2] * rows.step) / layerHeight))
  return named('free', rows, findLimbs(rows.stretches, sectioning, ...gripped(rows.stretches.rows, grip))).free
}

type Rows = Omit<AxisLimbs, 'limbs'> & { readonly stretches: Stretches }

function rowsAlong(part: Outlines, along: Vector, level: AxisLimbs['level']): Rows {
  const [low, high] = extentAlong(part, along)
  const count = Math.max(1, Math.min(MOST_ROWS, Math.ceil((high - low) / ROW_STEP)))
  const step = (high - low) / count
  const first = low + step / 2
  return { along, level, first, step, stretches: layRows(part, along, level, first, step, count) }
}

const named = <Name extends string>(name: Name, { stretches: _, ...rows }: Rows, limbs: Limbs | undefined) =>
  (limbs ? { [name]: { ...rows, limbs } } : {}) as Partial<Record<Name, AxisLimbs>>

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
