import type { Contours } from '../../geometry/contours'
import type { Layers } from '../../slicing/layers'
import { shared } from '../../units/shared'
import type { Vector } from './direction'

/** Outlines of a part and how high the middle of each layer lies, mm. */
export interface Outlines {
  readonly outlines: Contours
  readonly middle: Float64Array
}

export const outlinesOf = ({ outlines, top, height }: Pick<Layers, 'outlines' | 'top' | 'height'>): Outlines => ({
  outlines,
  middle: top.map((z, layer) => z - height[layer]! / 2),
})

/**
 * What lies inside the outlines along straight rows: for every row and layer some stretches, ascending.
 *
 * ```
 * start  cell → first stretch; cells run layer by layer within a row; one more entry than cells
 * low    where a stretch begins along the row, mm
 * high   where it ends
 * ```
 */
export interface Stretches {
  readonly rows: number
  readonly layers: number
  readonly start: Uint32Array
  readonly low: Float64Array
  readonly high: Float64Array
}

/**
 * Lays rows through a part: row r runs along `level`, where the way along `along` is `first + r · step`.
 *
 * @param along unit vector that is not upright: rows of a layer must lie apart
 * @param level level unit vector across it
 */
export function layRows(
  part: Outlines,
  along: Vector,
  level: readonly [x: number, y: number],
  first: number,
  step: number,
  rows: number,
): Stretches {
  const layers = part.middle.length
  const crossings = new Crossings(part.outlines, along, level, first, step, rows, layers)
  for (let layer = 0; layer < layers; layer++) crossings.countIn(layer, part.middle[layer]!)
  crossings.makeRoom()
  for (let layer = 0; layer < layers; layer++) crossings.fillIn(layer, part.middle[layer]!)
  return crossings.finish()
}

/** Where rims cross rows. Layer by layer, so that the compiler meets small loops often. */
class Crossings {
  /** Counts stand two cells ahead, so that filling moves each cell's end to where its own start belongs. */
  private readonly start: Uint32Array
  private at = new Float64Array(0)

  constructor(
    private readonly outlines: Contours,
    private readonly along: Vector,
    private readonly level: readonly [x: number, y: number],
    private readonly first: number,
    private readonly step: number,
    private readonly rows: number,
    private readonly layers: number,
  ) {
    this.start = new Uint32Array(rows * layers + 2)
  }

  countIn(layer: number, height: number): void {
    const { start, layers, rows, first, along, outlines } = this
    const { xy, polygonStart, groupStart } = outlines
    const [ax, ay, perStep, rise] = [along[0], along[1], 1 / this.step, along[2] * height - first]
    for (let p = groupStart[layer]!; p < groupStart[layer + 1]!; p++) {
      const to = polygonStart[p + 1]!
      for (let i = polygonStart[p]!, j = to - 1; i < to; j = i++) {
        const ti = (ax * xy[2 * i]! + ay * xy[2 * i + 1]! + rise) * perStep
        const tj = (ax * xy[2 * j]! + ay * xy[2 * j + 1]! + rise) * perStep
        const end = Math.min(rows, Math.ceil(ti < tj ? tj : ti))
        for (let row = Math.max(0, Math.ceil(ti < tj ? ti : tj)); row < end; row++) start[row * layers + layer + 2]!++
      }
    }
  }

  makeRoom(): void {
    const { start } = this
    for (let cell = 2; cell < start.length; cell++) start[cell]! += start[cell - 1]!
    this.at = new Float64Array(start[start.length - 1]!)
  }

  fillIn(layer: number, height: number): void {
    const { start, layers, rows, first, along, level, outlines, at } = this
    const { xy, polygonStart, groupStart } = outlines
    const [ax, ay, lx, ly, perStep, rise] = [along[0], along[1], level[0], level[1], 1 / this.step, along[2] * height - first]
    for (let p = groupStart[layer]!; p < groupStart[layer + 1]!; p++) {
      const to = polygonStart[p + 1]!
      for (let i = polygonStart[p]!, j = to - 1; i < to; j = i++) {
        const ti = (ax * xy[2 * i]! + ay * xy[2 * i + 1]! + rise) * perStep
        const tj = (ax * xy[2 * j]! + ay * xy[2 * j + 1]! + rise) * perStep
        const end = Math.min(rows, Math.ceil(ti < tj ? tj : ti))
        let row = Math.max(0, Math.ceil(ti < tj ? ti : tj))
        if (row >= end) continue
        const ui = lx * xy[2 * i]! + ly * xy[2 * i + 1]!
        const slope = (lx * xy[2 * j]! + ly * xy[2 * j + 1]! - ui) / (tj - ti)
        for (; row < end; row++) at[start[row * layers + layer + 1]!++] = ui + (row - ti) * slope
      }
    }
  }

  finish(): Stretches {
    const { start, at, rows, layers } = this
    const cells = rows * layers
    const low = new Float64Array(at.length / 2)
    const high = new Float64Array(at.length / 2)
    for (let cell = 0; cell < cells; cell++) {
      // Rims are closed: every row enters the solid as often as it leaves it.
      sortFew(at, start[cell]!, start[cell + 1]!)
    }
    for (let k = 0; k < low.length; k++) {
      low[k] = at[2 * k]!
      high[k] = at[2 * k + 1]!
    }
    const starts = new Uint32Array(cells + 1)
    for (let cell = 0; cell <= cells; cell++) starts[cell] = start[cell]! / 2
    return { rows, layers, start: shared(starts), low: shared(low), high: shared(high) }
  }
}

/** By insertion: a row meets a layer's rims a few times only. */
function sortFew(values: Float64Array, from: number, to: number): void {
  for (let i = from + 1; i < to; i++) {
    const value = values[i]!
    let k = i - 1
    for (; k >= from && values[k]! > value; k--) values[k + 1] = values[k]!
    values[k + 1] = value
  }
}
