import { principal } from '../../elements/principal'
import { POINTS, stressTeller } from '../../elements/stress'
import { elasticities, Judge, type Plastic } from './limits'
import { mixed, type SolvedCase } from './solvedLoad'
import { middleOf, type Three } from './voxels'
import { Places } from './where'

/** How a part looks under the load that it just bears: its skin, and what lies in it. */
export interface SolvedPicture {
  readonly skin: PicturedSkin
  readonly cells: PicturedCells
  /** The furthest that anything of it moves when it fails, mm, and how far the place moves that fails first. */
  readonly mostMm: number
  readonly failsMoved: Three
}

/** What each of many pieces says: how far it moves, mm, and how far its lines are to breaking and its layers to parting, 1 where they do. */
interface Said {
  readonly lines: Float32Array
  readonly layers: Float32Array
}

export interface PicturedSkin extends Said {
  /** Nine coordinates a facet, at rest, mm; facets no longer than some cells. */
  readonly corners: Float32Array
  /** Of each of these corners, three numbers. */
  readonly moved: Float32Array
  /** The cell under each facet. */
  readonly cell: Int32Array
}

export interface PicturedCells extends Said {
  /** Middles, three numbers a cell, mm, and the size of all. */
  readonly middles: Float32Array
  readonly size: Three
  readonly moved: Float32Array
  /** Which way each is pulled or pressed most, three numbers of length 1, and 1 where it is pressed. */
  readonly way: Float32Array
  readonly isPressed: Uint8Array
}

/** Facets are cut until their sides are no longer than so many cells. */
const LONGEST = 1.6
/** More facets than this are not drawn: their sides are longer. */
const MOST_FACETS = 240_000

/**
 * @param corners of the part as it lies, nine coordinates a facet, mm
 */
export function solvedPicture({ structure, weakest }: SolvedCase, plastic: Plastic, corners: Float32Array): SolvedPicture {
  const { voxels, kept } = structure
  const moved = mixed(structure.moved, weakest.mix).map((one) => weakest.factor * one)
  const cells = cellsOf(structure, plastic, moved)
  const places = new Places(voxels)
  const numbers = new Int32Array(voxels.at.length).fill(-1)
  for (let c = 0; c < kept.length; c++) numbers[kept[c]!] = c
  const pieces = cut(corners, LONGEST * Math.max(...voxels.size))
  const facets = pieces.length / 9
  const skin = {
    corners: new Float32Array(pieces.length),
    moved: new Float32Array(pieces.length),
    lines: new Float32Array(facets),
    layers: new Float32Array(facets),
    cell: new Int32Array(facets),
  }
  const { origin, size } = voxels
  /** The cell under a point of the surface, or the one beside it; −1 where there is none. */
  const under = (x: number, y: number, z: number, n: Three): number => {
    for (const deep of DEPTHS) {
      const [i, j, k] = [x, y, z].map((mm, axis) => Math.floor((mm - origin[axis]!) / size[axis]! - deep * n[axis]!)) as [
        number,
        number,
        number,
      ]
      const cell = places.cellAt(i, j, k)
      if (cell >= 0 && numbers[cell]! >= 0) return numbers[cell]!
    }
    return -1
  }
  let count = 0
  for (let f = 0; f < facets; f++) {
    const n = normalOf(pieces, 9 * f)
    const middle = [0, 1, 2].map((k) => (pieces[9 * f + k]! + pieces[9 * f + 3 + k]! + pieces[9 * f + 6 + k]!) / 3) as unknown as Three
    const own = under(...middle, n)
    // Where nothing is laid, as in an edge thinner than a line, there is nothing to be seen.
    if (own < 0) continue
    skin.cell[count] = own
    skin.lines[count] = cells.lines[own]!
    skin.layers[count] = cells.layers[own]!
    for (let v = 0; v < 9; v += 3) {
      const at = [pieces[9 * f + v]!, pieces[9 * f + v + 1]!, pieces[9 * f + v + 2]!] as const
      const cell = under(...at, n)
      skin.moved.set(movedAt(structure, moved, cell >= 0 ? cell : own, at), 9 * count + v)
      skin.corners.set(at, 9 * count + v)
    }
    count++
  }
  let mostMm = 0
  for (let d = 0; d < moved.length; d += 3) mostMm = Math.max(mostMm, Math.hypot(moved[d]!, moved[d + 1]!, moved[d + 2]!))
  const failing = nearestCell(cells, weakest.at)
  return {
    skin: {
      corners: skin.corners.slice(0, 9 * count),
      moved: skin.moved.slice(0, 9 * count),
      lines: skin.lines.slice(0, count),
      layers: skin.layers.slice(0, count),
      cell: skin.cell.slice(0, count),
    },
    cells,
    mostMm,
    failsMoved: [cells.moved[3 * failing]!, cells.moved[3 * failing + 1]!, cells.moved[3 * failing + 2]!],
  }
}

/** So far under the surface a filled cell is looked for, in cells. */
const DEPTHS = [0.25, 0.75, 1.25, 1.75, -0.5]

function cellsOf({ voxels, kept, mesh }: SolvedCase['structure'], plastic: Plastic, moved: Float64Array): PicturedCells {
  const tell = stressTeller(mesh, elasticities(plastic))
  const judge = new Judge(plastic)
  const s = new Float64Array(6 * POINTS)
  const count = kept.length
  const cells = {
    middles: new Float32Array(3 * count),
    size: voxels.size,
    moved: new Float32Array(3 * count),
    lines: new Float32Array(count),
    layers: new Float32Array(count),
    way: new Float32Array(3 * count),
    isPressed: new Uint8Array(count),
  }
  const mean = new Float64Array(6)
  for (let c = 0; c < count; c++) {
    const middle = middleOf(voxels, kept[c]!)
    cells.middles.set(middle, 3 * c)
    judge.turnTo(voxels.cos2[kept[c]!]!, voxels.sinCos[kept[c]!]!, middle[2])
    tell(moved, c, s)
    let [lines, layers] = [0, 0]
    mean.fill(0)
    for (let k = 0; k < 6 * POINTS; k++) mean[k % 6]! += s[k]! / POINTS
    const { way, isPressed } = principal(mean)
    cells.way.set(way, 3 * c)
    cells.isPressed[c] = isPressed ? 1 : 0
    for (let k = 0; k < 6 * POINTS; k += 6) {
      judge.ratio(s[k]!, s[k + 1]!, s[k + 2]!, s[k + 3]!, s[k + 4]!, s[k + 5]!)
      lines = Math.max(lines, judge.lines)
      layers = Math.max(layers, judge.layers)
    }
    cells.lines[c] = Math.sqrt(lines)
    cells.layers[c] = Math.sqrt(layers)
    for (let n = 8 * c; n < 8 * c + 8; n++) for (let k = 0; k < 3; k++) cells.moved[3 * c + k]! += moved[3 * mesh.nodes[n]! + k]! / 8
  }
  return cells
}

function nearestCell({ middles }: PicturedCells, at: Three): number {
  let [best, least] = [0, Infinity]
  for (let c = 0; 3 * c < middles.length; c++) {
    const off = (middles[3 * c]! - at[0]) ** 2 + (middles[3 * c + 1]! - at[1]) ** 2 + (middles[3 * c + 2]! - at[2]) ** 2
    if (off < least) [best, least] = [c, off]
  }
  return best
}

/** Movement of a point by the corners of its cell, beyond whose sides it goes on as within. */
function movedAt(
  { voxels: { origin, size, counts, at: places }, kept, mesh: { nodes } }: SolvedCase['structure'],
  moved: Float64Array,
  cell: number,
  at: Three,
): Three {
  const [nx, ny] = counts
  const own = places[kept[cell]!]!
  const near = [own % nx, Math.floor(own / nx) % ny, Math.floor(own / (nx * ny))]
  const t = at.map((mm, k) => (mm - origin[k]!) / size[k]! - near[k]!)
  const sum: [number, number, number] = [0, 0, 0]
  for (let n = 0; n < 8; n++) {
    let weight = 1
    for (let k = 0; k < 3; k++) weight *= (n >> k) & 1 ? t[k]! : 1 - t[k]!
    for (let k = 0; k < 3; k++) sum[k]! += weight * moved[3 * nodes[8 * cell + n]! + k]!
  }
  return sum
}

function normalOf(corners: Float32Array, at: number): Three {
  const u = [0, 1, 2].map((k) => corners[at + 3 + k]! - corners[at + k]!) as unknown as Three
  const v = [0, 1, 2].map((k) => corners[at + 6 + k]! - corners[at + k]!) as unknown as Three
  const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]] as const
  const length = Math.hypot(...n)
  return length > 0 ? [n[0] / length, n[1] / length, n[2] / length] : [0, 0, 1]
}

/** Facets whose sides are no longer than this, mm, unless there would be too many of them: each is halved across its longest side. */
function cut(corners: Float32Array, longest: number): Float32Array {
  let area = 0
  for (let i = 0; i < corners.length; i += 9) area += areaOf(corners, i)
  const side = Math.max(longest, Math.sqrt((4 * area) / MOST_FACETS))
  const out: number[] = []
  const left: number[][] = []
  for (let i = 0; i < corners.length; i += 9) {
    left.push(Array.from(corners.subarray(i, i + 9)))
    for (let facet = left.pop(); facet; facet = left.pop()) {
      const lengths = [0, 1, 2].map((k) => {
        const [a, b] = [3 * k, 3 * ((k + 1) % 3)]
        return Math.hypot(facet![b]! - facet![a]!, facet![b + 1]! - facet![a + 1]!, facet![b + 2]! - facet![a + 2]!)
      })
      const most = Math.max(...lengths)
      if (most <= side) {
        out.push(...facet)
        continue
      }
      const k = lengths.indexOf(most)
      const [a, b, c] = [0, 1, 2].map((n) => facet!.slice(3 * ((k + n) % 3), 3 * ((k + n) % 3) + 3)) as [number[], number[], number[]]
      const middle = a.map((mm, n) => (mm + b[n]!) / 2)
      left.push([...a, ...middle, ...c], [...middle, ...b, ...c])
    }
  }
  return Float32Array.from(out)
}

function areaOf(c: Float32Array, i: number): number {
  const [ux, uy, uz] = [c[i + 3]! - c[i]!, c[i + 4]! - c[i + 1]!, c[i + 5]! - c[i + 2]!]
  const [vx, vy, vz] = [c[i + 6]! - c[i]!, c[i + 7]! - c[i + 1]!, c[i + 8]! - c[i + 2]!]
  return Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx) / 2
}
