import type { Cells } from '../../elements/mesh'
import { isOfPart, moveCount, type Toolpath } from '../../toolpath/toolpath'

export type Three = readonly [x: number, y: number, z: number]

/** A part as cells that hold what was really laid, and which way its lines run in them. */
export interface Voxels extends Cells {
  /** Of the near corner of the grid, mm. */
  readonly origin: Three
  /** Mean of cos² and of sin·cos of the lines' directions in each cell, from x towards y. */
  readonly cos2: Float32Array
  readonly sinCos: Float32Array
}

/** Line directions are told apart so finely for stiffness: mean cos² of 0, a quarter, a half, three quarters, 1. */
export const KINDS = 5
/** Cells with less in them are taken for empty; dust would cost as much as plastic. */
const LEAST_SHARE = 0.02
/** A line is laid into its cells by so many threads across it, and in steps of this share of a cell. */
const [THREADS, STEP] = [3, 1 / 3]
/** More cells than this, empty ones with them, are not looked at: they are made wider. */
const MOST_PLACES = 6_000_000

/** Extent of what is laid, mm. */
export interface Extent {
  readonly low: Three
  readonly high: Three
}

/** Which of what is laid is looked at: by what it is, and by the height of its layer, mm. */
export type Which = (feature: number, z: number) => boolean

export function extentOf({ x, y, z, area, width, feature }: Toolpath, isLookedAt: Which = isOfPart): Extent {
  const low = [Infinity, Infinity, Infinity]
  const high = [-Infinity, -Infinity, -Infinity]
  for (let m = 0; m < feature.length; m++) {
    if (!isLookedAt(feature[m]!, z[m]!) || !(area[m]! > 0)) continue
    const half = width[m]! / 2
    for (let i = m; i <= m + 1; i++) {
      low[0] = Math.min(low[0]!, x[i]! - half)
      low[1] = Math.min(low[1]!, y[i]! - half)
      high[0] = Math.max(high[0]!, x[i]! + half)
      high[1] = Math.max(high[1]!, y[i]! + half)
    }
    low[2] = Math.min(low[2]!, z[m]! - area[m]! / width[m]!)
    high[2] = Math.max(high[2]!, z[m]!)
  }
  return { low: [low[0]!, low[1]!, low[2]!], high: [high[0]!, high[1]!, high[2]!] }
}

/**
 * Lays every line of a part into cells, its volume kept: a cell's share is what of it is plastic. Planes of the grid lie on the bed and on the outermost
 * lines, so that skins are whole cells.
 *
 * @param voxelMm about how wide a cell is; at most as wide as keeps their number bearable
 */
export function voxelsOf(path: Toolpath, voxelMm: number, isLookedAt: Which = isOfPart): Voxels {
  const { low, high } = extentOf(path, isLookedAt)
  const extent = [0, 1, 2].map((axis) => Math.max(1e-6, high[axis]! - low[axis]!))
  const wide = Math.max(voxelMm, Math.cbrt((extent[0]! * extent[1]! * extent[2]!) / MOST_PLACES))
  const counts = extent.map((mm) => Math.max(1, Math.round(mm / wide))) as [number, number, number]
  const size = extent.map((mm, axis) => mm / counts[axis]!) as [number, number, number]
  const laid = new Laid(counts, size, low)
  const { x, y, z, area, width, feature } = path
  for (let m = 0; m < moveCount(path); m++) {
    if (!isLookedAt(feature[m]!, z[m]!) || !(area[m]! > 0)) continue
    laid.line(x[m]!, y[m]!, x[m + 1]!, y[m + 1]!, z[m]!, area[m]!, width[m]!)
  }
  return laid.finish()
}

class Laid {
  private readonly volume: Float32Array
  private readonly cos2: Float32Array
  private readonly sinCos: Float32Array
  private readonly step: number

  constructor(
    private readonly counts: readonly [number, number, number],
    private readonly size: readonly [number, number, number],
    private readonly origin: Three,
  ) {
    const places = counts[0] * counts[1] * counts[2]
    this.volume = new Float32Array(places)
    this.cos2 = new Float32Array(places)
    this.sinCos = new Float32Array(places)
    this.step = STEP * Math.min(size[0], size[1])
  }

  line(x0: number, y0: number, x1: number, y1: number, top: number, area: number, width: number): void {
    const [dx, dy] = [x1 - x0, y1 - y0]
    const length = Math.sqrt(dx * dx + dy * dy)
    if (!(length > 0)) return
    const [nx, ny, nz] = this.counts
    const height = area / width
    const [c, s] = [dx / length, dy / length]
    const steps = Math.max(1, Math.ceil(length / this.step))
    const each = (area * length) / (steps * THREADS)
    const from = (top - height - this.origin[2]) / this.size[2]
    const to = (top - this.origin[2]) / this.size[2]
    const first = Math.max(0, Math.min(nz - 1, Math.floor(from + 1e-6)))
    const last = Math.max(first, Math.min(nz - 1, Math.ceil(to - 1e-6) - 1))
    for (let thread = 0; thread < THREADS; thread++) {
      const aside = ((thread + 0.5) / THREADS - 0.5) * width
      const [ax, ay] = [x0 - s * aside - this.origin[0], y0 + c * aside - this.origin[1]]
      for (let i = 0; i < steps; i++) {
        const t = (i + 0.5) / steps
        const ix = Math.max(0, Math.min(nx - 1, Math.floor((ax + t * dx) / this.size[0])))
        const iy = Math.max(0, Math.min(ny - 1, Math.floor((ay + t * dy) / this.size[1])))
        for (let iz = first; iz <= last; iz++) {
          const share = first === last ? 1 : Math.max(0, Math.min(to, iz + 1) - Math.max(from, iz)) / (to - from)
          const cell = ix + nx * (iy + ny * iz)
          this.volume[cell]! += share * each
          this.cos2[cell]! += share * each * c * c
          this.sinCos[cell]! += share * each * s * c
        }
      }
    }
  }

  finish(): Voxels {
    const whole = this.size[0] * this.size[1] * this.size[2]
    let count = 0
    for (const volume of this.volume) if (volume >= LEAST_SHARE * whole) count++
    const at = new Int32Array(count)
    const [share, cos2, sinCos] = [new Float32Array(count), new Float32Array(count), new Float32Array(count)]
    const kind = new Uint8Array(count)
    for (let place = 0, c = 0; place < this.volume.length; place++) {
      const volume = this.volume[place]!
      if (volume < LEAST_SHARE * whole) continue
      at[c] = place
      share[c] = Math.min(1, volume / whole)
      cos2[c] = this.cos2[place]! / volume
      sinCos[c] = this.sinCos[place]! / volume
      kind[c] = Math.round((KINDS - 1) * cos2[c]!)
      c++
    }
    return { counts: this.counts, size: this.size, origin: this.origin, at, share, kind, cos2, sinCos }
  }
}

/**
 * How wide cells may be at least, mm, so that there are no more than so many of them: by the plastic's own volume, and by twice that where it is laid
 * sparsely, for a cell that a line only touches is one as well.
 */
export function bearableVoxel({ x, y, z, area, feature }: Toolpath, voxelMm: number, most: number, isLookedAt: Which = isOfPart): number {
  let volume = 0
  for (let m = 0; m < feature.length; m++)
    if (isLookedAt(feature[m]!, z[m]!) && area[m]! > 0) volume += area[m]! * Math.hypot(x[m + 1]! - x[m]!, y[m + 1]! - y[m]!)
  return Math.max(voxelMm, Math.cbrt((2 * volume) / most))
}

/** The middle of a cell, mm. */
export function middleOf({ counts, size, origin, at }: Pick<Voxels, 'counts' | 'size' | 'origin' | 'at'>, cell: number): Three {
  const [nx, ny] = counts
  const own = at[cell]!
  return [
    origin[0] + ((own % nx) + 0.5) * size[0],
    origin[1] + ((Math.floor(own / nx) % ny) + 0.5) * size[1],
    origin[2] + (Math.floor(own / (nx * ny)) + 0.5) * size[2],
  ]
}
