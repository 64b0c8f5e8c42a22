import type { MainModule, Paths64 } from 'clipper2-wasm'
import createKernel from 'clipper2-wasm/dist/umd/clipper2z.js'
import type { Contours, ContoursBuilder } from './contours'

/** Polygon arithmetic runs on whole numbers: this many to a millimetre, a tenth of a micrometre each. */
const UNITS_PER_MM = 10_000
/** Corners sharper than this many times the offset are cut, so that a spike does not reach far outside. */
const MITER_LIMIT = 2

/** A set of closed polygons inside the kernel's memory; valid until the `run` that made it returns. */
export type Region = Paths64

/** Polygon offsets and booleans for one stretch of work. Every region it gives is freed when that ends. */
export interface PolygonOps {
  /** Copies one group of contours into the kernel. */
  read(contours: Contours, group: number): Region
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
      read: (contours, group) => own(readGroup(kernel, contours, group)),
      write: writeRegion,
      offset: (region, distance) =>
        own(kernel.InflatePaths64(region, distance * UNITS_PER_MM, kernel.JoinType.Miter, kernel.EndType.Polygon, MITER_LIMIT, 0)),
      union: (a, b) => own(kernel.Union64(a, b, kernel.FillRule.NonZero)),
      intersect: (a, b) => own(kernel.Intersect64(a, b, kernel.FillRule.NonZero)),
      subtract: (a, b) => own(kernel.Difference64(a, b, kernel.FillRule.NonZero)),
      unite: (region) => own(kernel.UnionSelf64(region, kernel.FillRule.NonZero)),
      simplify: (region, tolerance) => own(kernel.SimplifyPaths64(region, tolerance * UNITS_PER_MM, true)),
      isEmpty: (region) => region.size() === 0,
      area: (region) => kernel.AreaPaths64(region) / UNITS_PER_MM ** 2,
      empty: () => own(new kernel.Paths64()),
    })
  } finally {
    for (const region of owned) region.delete()
  }
}

/** The kernel's points are three 64-bit integers (x, y and an unused z); 214 m fit the lower half, so halves are written. */
function readGroup(kernel: MainModule, { xy, polygonStart, groupStart }: Contours, group: number): Paths64 {
  const region = new kernel.Paths64()
  const path = new kernel.Path64()
  for (let p = groupStart[group]!; p < groupStart[group + 1]!; p++) {
    const from = polygonStart[p]!
    const count = polygonStart[p + 1]! - from
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
    path.assign(coordinates)
    region.push_back(path)
  }
  path.delete()
  return region
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
