import type { Cuts } from './beam'
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

/** What bears a load along each axis of a part. */
export function loadPathByAxis(part: Outlines, grip: Grip): LoadPathByAxis {
  const x = rowsAlong(part, [1, 0, 0], [0, 1])
  const y = rowsAlong(part, [0, 1, 0], [1, 0])
  const { layers } = x.stretches
  const height = layerHeightOf(part)
  return {
    x: withPath(x, findLoadPath(x.stretches, acrossRows(x.stretches, height), ...gripped(x.stretches.rows, grip))),
    y: withPath(y, findLoadPath(y.stretches, acrossRows(y.stretches, height), ...gripped(y.stretches.rows, grip))),
    // Along z a section is a layer, and rows across x tell its limbs apart.
    z: withPath(x, findLoadPath(x.stretches, asLayers(x.stretches, x.step), ...gripped(layers, grip))),
  }
}

/** What bears a load along a direction; nothing where it is too steep to be looked through. */
export function loadPathAlong(part: Outlines, direction: Direction, grip: Grip): AxisLoadPath | undefined {
  if (Math.abs(direction.elevationDeg) > STEEPEST) return undefined
  const { along, level } = frameOf(direction)
  const rows = rowsAlong(part, along, [level[0], level[1]])
  const height = layerHeightOf(part)
  // The way along the direction leads to another row and up by so many layers.
  const sectioning = acrossRows(rows.stretches, height, Math.round((along[2] * rows.step) / height))
  return withPath(rows, findLoadPath(rows.stretches, sectioning, ...gripped(rows.stretches.rows, grip)))
}

/** How what bears lies in sections at these places, mm; in its own sections, the layers, where none are given. */
export function bearingAt(at: Float64Array | undefined, path: AxisLoadPath | undefined): Pick<Cuts, 'bearing'> {
  if (!path) return {}
  const { reaches, limbs, solid } = path.loadPath
  if (!at) return { bearing: { reaches, limbs, solid } }
  const row = (mm: number): number => Math.max(0, Math.min(limbs.length - 1, Math.round((mm - path.first) / path.step)))
  return { bearing: { reaches, limbs: Uint8Array.from(at, (mm) => limbs[row(mm)]!), solid: at.map((mm) => solid[row(mm)]!) } }
}

/** On average; a part of one layer is as thick as that is high. */
const layerHeightOf = ({ middle }: Outlines): number =>
  middle.length > 1 ? (middle.at(-1)! - middle[0]!) / (middle.length - 1) : 2 * (middle[0] ?? 0)

type Rows = Omit<AxisLoadPath, 'loadPath'> & { readonly stretches: Stretches }

function rowsAlong(part: Outlines, along: Vector, level: AxisLoadPath['level']): Rows {
  const [low, high] = extentAlong(part, along)
  const count = Math.max(1, Math.min(MOST_ROWS, Math.ceil((high - low) / ROW_STEP)))
  const step = (high - low) / count
  const first = low + step / 2
  return { along, level, first, step, stretches: layRows(part, along, level, first, step, count) }
}

const withPath = ({ stretches: _, ...rows }: Rows, loadPath: LoadPath): AxisLoadPath => ({ ...rows, loadPath })

/** The last section that is held and the first that is loaded; of few sections, the ends at least. */
const gripped = (sections: number, { heldTo, loadedFrom }: Grip): [held: number, loaded: number] => [
  Math.max(0, Math.floor(heldTo * sections) - 1),
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
