import type { MainModule, Paths64 } from 'clipper2-wasm'
import createKernel from 'clipper2-wasm/dist/umd/clipper2z.js'
import type { Contours, ContoursBuilder } from './contours'
import type { Rims } from './rims'

/** Polygon arithmetic runs on whole numbers: this many to a millimetre, a tenth of a micrometre each. */
const UNITS_PER_MM = 10_000
/** Corners sharper than this many times the offset are cut, so that a spike does not reach far outside. */
const MITER_LIMIT = 2
/** Rounded corners leave the true arc by no more than this, in units: 10 µm. */
const ARC_TOLERANCE = 100

/** A set of closed polygons inside the kernel's memory; valid until the `run` that made it returns. */
export type Region = Paths64

/** Polygon offsets and booleans for one stretch of work. Every region it gives is freed when that ends. */
export interface PolygonOps {
  /** Copies one group of contours into the kernel. */
  read(contours: Contours, group: number): Region
  /** Copies rims into the kernel. */
  of(rims: Rims): Region
  /** Appends a region to a builder as polygons of its current group. */
  write(region: Region, out: ContoursBuilder): void
  /** Grows (positive) or shrinks (negative) by `distance` mm; corners stay sharp up to twice the distance. */
  offset(region: Region, distance: number): Region
  union(a: Region, b: Region): Region
  intersect(a: Region, b: Region): Region
  subtract(a: Region, b: Region): Region
  /** Unites whatever overlaps, by the non-zero rule. */
  unite(region: Region): Region
  /** Leaves out points that lie within `tolerance` mm of the line through their neighbours. */
  simplify(region: Region, tolerance: number): Region
  /** The region grown round by `distance` mm, corners rounded. */
  swell(region: Region, distance: number): Region
  /** All polygons of several regions together, overlapping or not. */
  gather(regions: readonly Region[]): Region
  /** The outer rims alone, united: holes are filled. */
  positive(region: Region): Region
  /** What a line of this width covers along an open or closed polyline, x, y … in mm: square ends, sharp corners. */
  strip(xy: ArrayLike<number>, width: number, closed: boolean): Region
  /** A region of one polygon, x, y, x, y … in mm. */
  polygon(xy: ArrayLike<number>): Region
  /** Length of all rims, mm, and by how much it falls per mm of inset while no place vanishes: 2·Σ tan(turn/2). */
  measureRim(region: Region): { readonly length: number; readonly fall: number }
  isEmpty(region: Region): boolean
  /** mm² */
  area(region: Region): number
  empty(): Region
}

/**
 * Clipper2 (A. Johnson), as WebAssembly, behind the few operations that the pipeline needs. This module alone knows that
 * the kernel has a memory of its own.
 */
export interface PolygonKernel {
  run<T>(work: (ops: PolygonOps) => T): T
}

/** Starts the kernel. `wasm` is the content of `clipper2z.wasm`: only the host knows where that file is. */
export async function loadPolygonKernel(wasm: ArrayBuffer | Uint8Array): Promise<PolygonKernel> {
  const kernel: MainModule = await createKernel({ wasmBinary: wasm })
  return { run: (work) => runWith(kernel, work) }
}

function runWith<T>(kernel: MainModule, work: (ops: PolygonOps) => T): T {
  const owned: Paths64[] = []
  const own = (region: Paths64): Paths64 => {
    owned.push(region)
    return region
  }
  try {
    return work({
      read: ({ xy, polygonStart, groupStart }, group) =>
        own(readPolygons(kernel, xy, polygonStart, groupStart[group]!, groupStart[group + 1]!)),
      of: ({ xy, start, count }) => own(readPolygons(kernel, xy, start, 0, count)),
      write: writeRegion,
      offset: (region, distance) => {
        const inset = own(mitred(kernel, region, distance))
        // Thinning may turn a sliver over. The kernel takes the lowest rim's direction for that of all: an inset then grows them.
        if (distance >= 0 || kernel.AreaPaths64(inset) <= kernel.AreaPaths64(region)) return inset
        return own(mitred(kernel, own(kernel.UnionSelf64(region, kernel.FillRule.Positive)), distance))
      },
      union: (a, b) => own(kernel.Union64(a, b, kernel.FillRule.NonZero)),
      intersect: (a, b) => own(kernel.Intersect64(a, b, kernel.FillRule.NonZero)),
      subtract: (a, b) => own(kernel.Difference64(a, b, kernel.FillRule.NonZero)),
      unite: (region) => own(kernel.UnionSelf64(region, kernel.FillRule.NonZero)),
      simplify: (region, tolerance) => own(kernel.SimplifyPaths64(region, tolerance * UNITS_PER_MM, true)),
      swell: (region, distance) =>
        own(kernel.InflatePaths64(region, distance * UNITS_PER_MM, kernel.JoinType.Round, kernel.EndType.Polygon, 2, ARC_TOLERANCE)),
      gather: (regions) => {
        const all = own(new kernel.Paths64())
        for (const region of regions) {
          for (let p = 0; p < region.size(); p++) {
            const path = region.get(p)
            all.push_back(path)
            path.delete()
          }
        }
        return all
      },
      positive: (region) => own(outerRims(kernel, region)),
      strip: (xy, width, closed) => {
        const line = own(new kernel.Paths64())
        const path = newPath(kernel, xy, 0, xy.length / 2)
        line.push_back(path)
        path.delete()
        const end = closed ? kernel.EndType.Joined : kernel.EndType.Butt
        return own(kernel.InflatePaths64(line, (width / 2) * UNITS_PER_MM, kernel.JoinType.Miter, end, MITER_LIMIT, 0))
      },
      polygon: (xy) => {
        const region = own(new kernel.Paths64())
        const path = newPath(kernel, xy, 0, xy.length / 2)
        region.push_back(path)
        path.delete()
        return region
      },
      measureRim,
      isEmpty: (region) => region.size() === 0,
      area: (region) => kernel.AreaPaths64(region) / UNITS_PER_MM ** 2,
      empty: () => own(new kernel.Paths64()),
    })
  } finally {
    for (const region of owned) region.delete()
  }
}

const mitred = (kernel: MainModule, region: Paths64, distance: number): Paths64 =>
  kernel.InflatePaths64(region, distance * UNITS_PER_MM, kernel.JoinType.Miter, kernel.EndType.Polygon, MITER_LIMIT, 0)

function readPolygons(kernel: MainModule, xy: Float64Array, polygonStart: Uint32Array, from: number, to: number): Paths64 {
  const region = new kernel.Paths64()
  const path = new kernel.Path64()
  for (let p = from; p < to; p++) {
    path.assign(toUnits(xy, polygonStart[p]!, polygonStart[p + 1]! - polygonStart[p]!))
    region.push_back(path)
  }
  path.delete()
  return region
}

/** The kernel's points are three 64-bit integers (x, y and an unused z); 214 m fit the lower half, so halves are written. */
function toUnits(xy: ArrayLike<number>, from: number, count: number): BigInt64Array {
  const coordinates = new BigInt64Array(3 * count)
  const halves = new Int32Array(coordinates.buffer)
  for (let i = 0; i < count; i++) {
    const x = Math.round(xy[2 * (from + i)]! * UNITS_PER_MM)
    const y = Math.round(xy[2 * (from + i) + 1]! * UNITS_PER_MM)
    halves[6 * i] = x
    halves[6 * i + 1] = x >> 31
    halves[6 * i + 2] = y
    halves[6 * i + 3] = y >> 31
  }
  return coordinates
}

function newPath(kernel: MainModule, xy: ArrayLike<number>, from: number, count: number): InstanceType<MainModule['Path64']> {
  const path = new kernel.Path64()
  path.assign(toUnits(xy, from, count))
  return path
}

/** Rims that run counter-clockwise, united. */
function outerRims(kernel: MainModule, region: Paths64): Paths64 {
  const outer = new kernel.Paths64()
  for (let p = 0; p < region.size(); p++) {
    const path = region.get(p)
    if (kernel.AreaPath64(path) > 0) outer.push_back(path)
    path.delete()
  }
  const united = kernel.UnionSelf64(outer, kernel.FillRule.NonZero)
  outer.delete()
  return united
}

function measureRim(region: Paths64): { length: number; fall: number } {
  let length = 0
  let fall = 0
  for (let p = 0; p < region.size(); p++) {
    const path = region.get(p)
    const coordinates = path.view()
    const halves = new Int32Array(coordinates.buffer, coordinates.byteOffset, coordinates.length * 2)
    const count = coordinates.length / 3
    let ux = 0
    let uy = 0
    // One more round than points: the first only finds the direction in which the rim arrives.
    for (let i = count - 1, n = 0; n <= count; n++) {
      const j = i + 1 === count ? 0 : i + 1
      const dx = halves[6 * j]! - halves[6 * i]!
      const dy = halves[6 * j + 2]! - halves[6 * i + 2]!
      const l = Math.sqrt(dx * dx + dy * dy)
      if (l > 0) {
        const vx = dx / l
        const vy = dy / l
        if (n > 0) {
          length += l
          // tan(turn/2) = sin/(1 + cos); a corner that turns back is cut, as the offset cuts it.
          const cos = ux * vx + uy * vy
          fall += 2 * Math.max(-MITER_LIMIT, Math.min(MITER_LIMIT, (ux * vy - uy * vx) / Math.max(1e-9, 1 + cos)))
        }
        ux = vx
        uy = vy
      }
      i = j
    }
    path.delete()
  }
  return { length: length / UNITS_PER_MM, fall }
}

function writeRegion(region: Paths64, out: ContoursBuilder): void {
  const polygons = region.size()
  for (let p = 0; p < polygons; p++) {
    const path = region.get(p)
    const coordinates = path.view()
    const halves = new Int32Array(coordinates.buffer, coordinates.byteOffset, coordinates.length * 2)
    const count = coordinates.length / 3
    if (count >= 3) {
      const { xy, at } = out.reserve(count)
      for (let i = 0; i < count; i++) {
        xy[at + 2 * i] = halves[6 * i]! / UNITS_PER_MM
        xy[at + 2 * i + 1] = halves[6 * i + 2]! / UNITS_PER_MM
      }
      out.endPolygon(count)
    }
    path.delete()
  }
}
