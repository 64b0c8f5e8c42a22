import { type Limiter, limiters } from '../../motion/limiters'
import type { Motion } from '../../motion/planMotion'
import { marked, type Scopes } from '../../profile/overrides'
import { speedOfGrey } from '../../profile/speedPicture'
import { type Layers, layerCount } from '../../slicing/layers'
import { picturesOn } from '../../slicing/zones'
import { PictureRow } from '../../toolpath/pictureRow'
import { code, type Toolpath } from '../../toolpath/toolpath'

/** Lines are looked at in steps of this, mm. */
const STEP = 0.2
/** A step that misses what its grey asks by more than this share of the way from dark to light is held by something. */
const MISSED = 0.1

/** A picture as it is asked for and as the machine runs it: a row for every layer that it lies on, from the bottom up. */
export interface PictureSeen {
  /** Place of its override in the list. */
  readonly of: number
  readonly columns: number
  readonly rows: number
  /** How long and high it is on the part, mm: of its mean layer, one repeat of it. */
  readonly widthMm: number
  readonly heightMm: number
  /** Speed of the outer wall, mm/s, row by row from the lowest layer; not a number where no outer wall lies. */
  readonly askedMmS: Float32Array
  readonly seenMmS: Float32Array
  readonly figures: PictureFigures
}

export interface PictureFigures {
  readonly name: string
  /** Share of the asked contrast that is left: the slope of what is run over what is asked. */
  readonly contrastLeft: number
  /** What holds most of what is missed; nothing where nothing is. */
  readonly heldBy: Limiter | undefined
  /** Of the outer wall in the picture, and by how much that is more than at the faster of its two speeds throughout, s. */
  readonly timeS: number
  readonly addedS: number
}

/**
 * What will be seen of each picture on a part. Gloss follows the speed of the outer wall (CP-S2, S3: common practice), so a picture
 * is its map: as sharp as the machine's acceleration lets it change, and as far as corners, melt and the layer's least time leave it.
 *
 * @param places where the copies of the part stand, mm; the first is looked at
 */
export function picturesSeen(
  layers: Layers,
  path: Toolpath,
  motion: Motion,
  scopes: Scopes,
  places: readonly (readonly [number, number])[],
): PictureSeen[] {
  return scopes.overrides.flatMap(({ picture }, of) => (picture ? [pictureSeen(of, layers, path, motion, scopes, places)] : []))
}

function pictureSeen(
  of: number,
  layers: Layers,
  path: Toolpath,
  motion: Motion,
  scopes: Scopes,
  places: readonly (readonly [number, number])[],
): PictureSeen {
  const { name, picture } = scopes.overrides[of]!
  const { columns, darkSpeed, lightSpeed } = picture!
  const rows: { readonly layer: number; readonly row: PictureRow }[] = []
  for (let layer = 0; layer < layerCount(layers); layer++)
    for (const { z, ...own } of picturesOn(layers, layer, scopes)) if (own.of === of) rows.push({ layer, row: new PictureRow(own, z) })
  const cells = rows.length * columns
  const sums = { asked: new Float64Array(cells), seen: new Float64Array(cells), steps: new Float64Array(cells) }
  const greys = path.sets.map((set) => set.map(marked).find(({ override, grey }) => override === of && grey !== undefined)?.grey)
  const missedBy = new Float64Array(limiters.length)
  const contrast = new Slope()
  let [timeS, fastS, lengthMm] = [0, 0, 0]
  const range = Math.abs(lightSpeed - darkSpeed)
  const [[atX, atY]] = places as [readonly [number, number]]
  const isFirst = (x: number, y: number): boolean =>
    places.every(([px, py]) => (x - atX) ** 2 + (y - atY) ** 2 <= (x - px) ** 2 + (y - py) ** 2 + 1e-9)
  for (const [r, { layer, row }] of rows.entries())
    for (let m = path.layerStart[layer]!; m < path.layerStart[layer + 1]!; m++) {
      const grey = greys[path.scope[m]!]
      if (grey === undefined || path.feature[m] !== code.outerWall || !isFirst(path.x[m]!, path.y[m]!)) continue
      const asked = speedOfGrey(picture!, grey)
      const [dx, dy, dz] = [path.x[m + 1]! - path.x[m]!, path.y[m + 1]! - path.y[m]!, path.z[m + 1]! - path.z[m]!]
      const length = Math.hypot(dx, dy, dz)
      if (length === 0) continue
      const run = runOf(motion, m, length)
      lengthMm += length
      timeS += motion.duration[m]!
      fastS += length / Math.max(darkSpeed, lightSpeed)
      const columnOf = (share: number): number | undefined => row.columnAt(path.x[m]! + share * dx - atX, path.y[m]! + share * dy - atY)
      // Of a part that is narrower than its picture is wide every pixel is looked at.
      const steps = Math.max(1, Math.ceil(length / STEP), 2 * row.columnsBetween(columnOf(0), columnOf(1)))
      for (let k = 0; k < steps; k++) {
        const share = (k + 0.5) / steps
        const speed = run(share * length)
        const column = columnOf(share)
        if (column === undefined) continue
        const cell = r * columns + (column % columns)
        sums.asked[cell]! += asked
        sums.seen[cell]! += speed
        sums.steps[cell]!++
        contrast.add(asked, speed, length / steps)
        if (Math.abs(speed - asked) > MISSED * range) missedBy[motion.limiter[m]!]! += length / steps
      }
    }
  const most = missedBy.indexOf(Math.max(...missedBy))
  const mean = (sum: Float64Array): Float32Array => Float32Array.from(sum, (value, i) => value / sums.steps[i]!)
  return {
    of,
    columns,
    rows: rows.length,
    widthMm: lengthMm / Math.max(1, rows.length) / (picture!.lay === 'wrapped' ? picture!.times : 1),
    heightMm: rows.reduce((sum, { layer }) => sum + layers.height[layer]!, 0),
    askedMmS: mean(sums.asked),
    seenMmS: mean(sums.seen),
    figures: {
      name,
      contrastLeft: contrast.slope,
      heldBy: missedBy[most]! > 0 ? limiters[most] : undefined,
      timeS,
      addedS: timeS - fastS,
    },
  }
}

/**
 * Speed along a move, mm/s by the mm from its beginning: from the speed before it up to its peak and down to the speed after it. Its
 * acceleration is the one that makes it last as long as it was planned to.
 */
function runOf({ duration, peak, exit }: Motion, m: number, length: number): (at: number) => number {
  const [v0, top, v1] = [m > 0 ? exit[m - 1]! : 0, peak[m]!, exit[m]!]
  const spare = 2 * (top * duration[m]! - length)
  const a = spare > 1e-9 ? ((top - v0) ** 2 + (top - v1) ** 2) / spare : Infinity
  return (at) => Math.min(top, Math.sqrt(v0 * v0 + 2 * a * at), Math.sqrt(v1 * v1 + 2 * a * (length - at)))
}

/** Slope of a straight line through points that weigh differently; nothing of the contrast is left where nothing is asked. */
class Slope {
  private w = 0
  private x = 0
  private y = 0
  private xx = 0
  private xy = 0

  add(x: number, y: number, weight: number): void {
    this.w += weight
    this.x += weight * x
    this.y += weight * y
    this.xx += weight * x * x
    this.xy += weight * x * y
  }

  get slope(): number {
    const spread = this.w * this.xx - this.x * this.x
    return spread > 1e-9 * this.w * this.xx ? (this.w * this.xy - this.x * this.y) / spread : 0
  }
}
