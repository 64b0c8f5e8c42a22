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

/** What pictures are looked for in. */
interface Run {
  readonly layers: Layers
  readonly path: Toolpath
  readonly motion: Motion
  readonly scopes: Scopes
  /** Where the copies of the part stand, mm; the first is looked at. */
  readonly places: readonly (readonly [number, number])[]
}

/**
 * What will be seen of each picture on a part. Gloss follows the speed of the outer wall (CP-S2, S3: common practice), so a picture
 * is its map: as sharp as the machine's acceleration lets it change, and as far as corners, melt and the layer's least time leave it.
 */
export const picturesSeen = (run: Run): PictureSeen[] =>
  run.scopes.overrides.flatMap(({ picture }, of) => {
    if (!picture) return []
    const grid = new Grid(run, of)
    const figures = walked(run, of, grid)
    return [grid.finish(figures)]
  })

/** The same without the pictures themselves. */
export const pictureFigures = (run: Run): PictureFigures[] =>
  run.scopes.overrides.flatMap(({ picture }, of) => (picture ? [walked(run, of)] : []))

/** Goes along all of the outer wall that lies in a picture, step by step. */
function walked({ path, motion, scopes, places }: Run, of: number, grid?: Grid): PictureFigures {
  const { name, picture } = scopes.overrides[of]!
  const { darkSpeed, lightSpeed } = picture!
  const asks = path.sets.map((set) => {
    const grey = set.map(marked).find((mark) => mark.override === of && mark.grey !== undefined)?.grey
    return grey === undefined ? undefined : speedOfGrey(picture!, grey)
  })
  const missedBy = new Float64Array(limiters.length)
  const contrast = new Slope()
  const missed = MISSED * Math.abs(lightSpeed - darkSpeed)
  const fastest = Math.max(darkSpeed, lightSpeed)
  let [timeS, fastS] = [0, 0]
  const layers = grid ? grid.layers : path.layerStart.length - 1
  for (let layer = 0; layer < layers; layer++)
    for (let m = path.layerStart[layer]!; m < path.layerStart[layer + 1]!; m++) {
      const asked = asks[path.scope[m]!]
      if (asked === undefined || path.feature[m] !== code.outerWall || !isOfFirst(path, m, places)) continue
      const length = Math.hypot(path.x[m + 1]! - path.x[m]!, path.y[m + 1]! - path.y[m]!, path.z[m + 1]! - path.z[m]!)
      if (length === 0) continue
      const speedAt = runOf(motion, m, length)
      timeS += motion.duration[m]!
      fastS += length / fastest
      const steps = Math.max(1, Math.ceil(length / STEP), grid ? grid.stepsOf(layer, m) : 0)
      for (let k = 0; k < steps; k++) {
        const share = (k + 0.5) / steps
        const speed = speedAt(share * length)
        grid?.put(layer, m, share, asked, speed)
        contrast.add(asked, speed, length / steps)
        if (Math.abs(speed - asked) > missed) missedBy[motion.limiter[m]!]! += length / steps
      }
    }
  const most = missedBy.indexOf(Math.max(...missedBy))
  return {
    name,
    contrastLeft: contrast.slope,
    heldBy: missedBy[most]! > 0 ? limiters[most] : undefined,
    timeS,
    addedS: timeS - fastS,
  }
}

function isOfFirst({ x, y }: Toolpath, m: number, places: Run['places']): boolean {
  if (places.length < 2) return true
  const far = ([px, py]: readonly [number, number]): number => (x[m]! - px) ** 2 + (y[m]! - py) ** 2
  const own = far(places[0]!)
  return places.every((place) => own <= far(place) + 1e-9)
}

/** Speeds by the pixels of a picture, a row for every layer that it lies on. */
class Grid {
  readonly layers: number
  private readonly rows: (PictureRow | undefined)[] = []
  private readonly rowOf: number[] = []
  private readonly heights: number[] = []
  private readonly columns: number
  private readonly asked: Float64Array
  private readonly seen: Float64Array
  private readonly steps: Float64Array

  constructor(
    private readonly run: Run,
    private readonly of: number,
  ) {
    const { layers, scopes } = run
    this.layers = layerCount(layers)
    this.columns = scopes.overrides[of]!.picture!.columns
    for (let layer = 0; layer < this.layers; layer++) {
      const here = picturesOn(layers, layer, scopes).find((own) => own.of === of)
      this.rows.push(here && new PictureRow(here, here.z))
      this.rowOf.push(this.heights.length)
      if (here) this.heights.push(layers.height[layer]!)
    }
    const cells = this.heights.length * this.columns
    this.asked = new Float64Array(cells)
    this.seen = new Float64Array(cells)
    this.steps = new Float64Array(cells)
  }

  /** So many that every pixel of a move is looked at: a part may be narrower than its picture is wide. */
  stepsOf(layer: number, m: number): number {
    return 2 * (this.rows[layer]?.columnsBetween(this.columnAt(layer, m, 0), this.columnAt(layer, m, 1)) ?? 0)
  }

  put(layer: number, m: number, share: number, asked: number, seen: number): void {
    const column = this.columnAt(layer, m, share)
    if (column === undefined) return
    const cell = this.rowOf[layer]! * this.columns + (column % this.columns)
    this.asked[cell]! += asked
    this.seen[cell]! += seen
    this.steps[cell]!++
  }

  finish(figures: PictureFigures): PictureSeen {
    const { lay, times, darkSpeed, lightSpeed } = this.run.scopes.overrides[this.of]!.picture!
    const rows = this.heights.length
    const mean = (sum: Float64Array): Float32Array => Float32Array.from(sum, (value, i) => value / this.steps[i]!)
    // At the faster speed throughout it would take as long as it is long.
    const lengthMm = (figures.timeS - figures.addedS) * Math.max(darkSpeed, lightSpeed)
    return {
      of: this.of,
      columns: this.columns,
      rows,
      widthMm: lengthMm / Math.max(1, rows) / (lay === 'wrapped' ? times : 1),
      heightMm: this.heights.reduce((sum, height) => sum + height, 0),
      askedMmS: mean(this.asked),
      seenMmS: mean(this.seen),
      figures,
    }
  }

  private columnAt(layer: number, m: number, share: number): number | undefined {
    const { x, y } = this.run.path
    const [atX, atY] = this.run.places[0]!
    return this.rows[layer]?.columnAt(x[m]! + share * (x[m + 1]! - x[m]!) - atX, y[m]! + share * (y[m + 1]! - y[m]!) - atY)
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
