import { middleOf, type Three, type Voxels } from './voxels'

/** A box with edges along the axes, mm. */
export interface Box {
  readonly low: Three
  readonly high: Three
}

/** Where a part is held or loaded, in coordinates of its lines. */
export type Region =
  /** All of it in a box. */
  | ({ readonly kind: 'box' } & Box)
  /** Only what lies on a flat box: a part that is held there may turn about it. */
  | ({ readonly kind: 'plane' } & Box)
  /** All of it that lies at least so far along a direction of length 1, mm. */
  | { readonly kind: 'end'; readonly outwards: Three; readonly from: number }
  /** All of it in a box that is turned: its middle, and half of it along each of three directions that stand upright on each other, mm. */
  | { readonly kind: 'turnedBox'; readonly middle: Three; readonly halves: readonly [Three, Three, Three] }
  /** All of it. */
  | { readonly kind: 'whole' }
  /** What of it is nearest to a point, and no more: it may turn about it every way. */
  | { readonly kind: 'point'; readonly at: Three }
  /** A patch of its surface: nine numbers a triangle, outside where its corners run counter-clockwise. */
  | { readonly kind: 'patch'; readonly triangles: Float64Array }

/** What of a cell's outside belongs to a patch, mm² along each axis, outwards. */
export interface Faces {
  readonly cells: Int32Array
  readonly areas: Float64Array
}

/** Finds cells of a grid. */
export class Places {
  private readonly place: Int32Array

  constructor(readonly voxels: Voxels) {
    const { counts, at } = voxels
    this.place = new Int32Array(counts[0] * counts[1] * counts[2]).fill(-1)
    for (let c = 0; c < at.length; c++) this.place[at[c]!] = c
  }

  /** The cell at a place of the grid; −1 where there is none. */
  cellAt(x: number, y: number, z: number): number {
    const [nx, ny, nz] = this.voxels.counts
    return x < 0 || y < 0 || z < 0 || x >= nx || y >= ny || z >= nz ? -1 : this.place[x + nx * (y + ny * z)]!
  }

  /** 1 for each cell of the regions. */
  marked(regions: readonly Region[]): Uint8Array {
    const marks = new Uint8Array(this.voxels.at.length)
    for (const region of regions) {
      if (region.kind === 'patch') for (const cell of this.facesOf(region.triangles).cells) marks[cell] = 1
      else if (region.kind === 'point') marks[this.nearest(region.at)] = 1
      else if (region.kind === 'end') this.markEnd(region, 0, marks)
      else if (region.kind === 'turnedBox') this.markTurned(region, 0, marks)
      else if (region.kind === 'whole') marks.fill(1)
      // Of a plane the cells on both its sides.
      else this.markBox(region, region.kind === 'plane' ? 0.501 : 0, marks)
    }
    return marks
  }

  private markEnd({ outwards: [x, y, z], from }: Extract<Region, { readonly kind: 'end' }>, around: number, marks: Uint8Array): void {
    for (let cell = 0; cell < marks.length; cell++) {
      const at = middleOf(this.voxels, cell)
      if (at[0] * x + at[1] * y + at[2] * z > from - around) marks[cell] = 1
    }
  }

  private markTurned({ middle, halves }: Extract<Region, { readonly kind: 'turnedBox' }>, around: number, marks: Uint8Array): void {
    const reach = halves.map((half) => Math.hypot(...half))
    for (let cell = 0; cell < marks.length; cell++) {
      const [x, y, z] = middleOf(this.voxels, cell).map((mm, k) => mm - middle[k]!) as [number, number, number]
      if (halves.every((half, k) => Math.abs(x * half[0] + y * half[1] + z * half[2]) <= reach[k]! * (reach[k]! + around))) marks[cell] = 1
    }
  }

  private nearest(point: Three): number {
    let [best, least] = [0, Infinity]
    for (let cell = 0; cell < this.voxels.at.length; cell++) {
      const off = middleOf(this.voxels, cell).reduce((sum, mm, k) => sum + (mm - point[k]!) ** 2, 0)
      if (off < least) [best, least] = [cell, off]
    }
    return best
  }

  private markBox({ low, high }: Box, by: number, marks: Uint8Array): void {
    const { counts, size, origin, at } = this.voxels
    const from = [0, 1, 2].map((k) => (low[k]! - origin[k]!) / size[k]! - 0.5 - by)
    const to = [0, 1, 2].map((k) => (high[k]! - origin[k]!) / size[k]! - 0.5 + by)
    const [x0, y0, z0] = from as [number, number, number]
    const [x1, y1, z1] = to as [number, number, number]
    const [nx, ny] = counts
    for (let c = 0; c < at.length; c++) {
      const own = at[c]!
      const x = own % nx
      const y = Math.floor(own / nx) % ny
      const z = Math.floor(own / (nx * ny))
      if (x >= x0 && x <= x1 && y >= y0 && y <= y1 && z >= z0 && z <= z1) marks[c] = 1
    }
  }

  /** The cells under a patch, each with as much of it as lies above it: the first ones inwards that are filled. */
  facesOf(triangles: Float64Array): Faces {
    const { size, origin } = this.voxels
    const step = Math.min(...size) / 2
    const areas = new Map<number, [number, number, number]>()
    for (let t = 0; t < triangles.length; t += 9) {
      const [ax, ay, az, bx, by, bz, cx, cy, cz] = triangles.subarray(t, t + 9) as unknown as number[] as Nine
      const [ux, uy, uz, vx, vy, vz] = [bx - ax, by - ay, bz - az, cx - ax, cy - ay, cz - az]
      const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx]
      const twice = Math.hypot(nx, ny, nz)
      if (!(twice > 0)) continue
      const rows = Math.max(
        1,
        Math.ceil(Math.max(Math.hypot(ux, uy, uz), Math.hypot(vx, vy, vz), Math.hypot(ux - vx, uy - vy, uz - vz)) / step),
      )
      // Middles of the small triangles that parallels to the sides cut; each has as much of the area.
      const each = 0.5 / rows ** 2
      for (let i = 0; i < rows; i++)
        for (let j = 0; j < 2 * (rows - i) - 1; j++) {
          const third = j % 2 === 0 ? 1 / 3 : 2 / 3
          const [p, q] = [(i + third) / rows, (Math.floor(j / 2) + third) / rows]
          const at = [ax + p * ux + q * vx, ay + p * uy + q * vy, az + p * uz + q * vz]
          for (let deep = 0.25; deep <= 1.75; deep += 0.5) {
            const [x, y, z] = [nx, ny, nz].map((n, k) => Math.floor((at[k]! - origin[k]!) / size[k]! - (deep * n) / twice)) as [
              number,
              number,
              number,
            ]
            const cell = this.cellAt(x, y, z)
            if (cell < 0) continue
            const own = areas.get(cell)
            if (own) {
              own[0] += each * nx
              own[1] += each * ny
              own[2] += each * nz
            } else areas.set(cell, [each * nx, each * ny, each * nz])
            break
          }
        }
    }
    return { cells: Int32Array.from(areas.keys()), areas: Float64Array.from([...areas.values()].flat()) }
  }

  /**
   * Cells whose middles are nearer than this to a region; to a patch, nearer to the middle of a cell under it. To the whole none is: what pulls at all
   * of it alike grips it nowhere.
   */
  near(regions: readonly Region[], mm: number): Uint8Array {
    const { at } = this.voxels
    const out = new Uint8Array(at.length)
    for (const region of regions)
      if (region.kind === 'patch') this.nearCells(this.facesOf(region.triangles).cells, mm, out)
      else if (region.kind === 'end') this.markEnd(region, mm, out)
      else if (region.kind === 'turnedBox') this.markTurned(region, mm, out)
      else if (region.kind === 'whole') continue
      else if (region.kind === 'point') this.nearCells(Int32Array.of(this.nearest(region.at)), mm, out)
      else this.nearBox(region, mm, out)
    return out
  }

  private nearBox({ low, high }: Box, mm: number, out: Uint8Array): void {
    const { counts, size, origin, at } = this.voxels
    const [nx, ny] = counts
    for (let c = 0; c < at.length; c++) {
      const own = at[c]!
      const x = origin[0] + size[0] * ((own % nx) + 0.5)
      const y = origin[1] + size[1] * ((Math.floor(own / nx) % ny) + 0.5)
      const z = origin[2] + size[2] * (Math.floor(own / (nx * ny)) + 0.5)
      const dx = Math.max(0, low[0] - x, x - high[0])
      const dy = Math.max(0, low[1] - y, y - high[1])
      const dz = Math.max(0, low[2] - z, z - high[2])
      if (dx * dx + dy * dy + dz * dz < mm * mm) out[c] = 1
    }
  }

  private nearCells(cells: Int32Array, mm: number, out: Uint8Array): void {
    const { counts, size, at } = this.voxels
    const [nx, ny] = counts
    const [rx, ry, rz] = size.map((own) => Math.floor(mm / own)) as [number, number, number]
    for (const c of cells) {
      const own = at[c]!
      const x = own % nx
      const y = Math.floor(own / nx) % ny
      const z = Math.floor(own / (nx * ny))
      for (let dz = -rz; dz <= rz; dz++)
        for (let dy = -ry; dy <= ry; dy++)
          for (let dx = -rx; dx <= rx; dx++) {
            const other = this.cellAt(x + dx, y + dy, z + dz)
            if (other >= 0 && (dx * size[0]) ** 2 + (dy * size[1]) ** 2 + (dz * size[2]) ** 2 < mm * mm) out[other] = 1
          }
    }
  }
}

type Nine = [number, number, number, number, number, number, number, number, number]
