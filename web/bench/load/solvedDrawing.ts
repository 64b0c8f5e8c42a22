import type { SolvedPicture } from '@sable/core/physics/solved/picture'

/** What of the limit is shown: whichever is nearer, or only that of lines, or of layers. */
export type Limit = 'either' | 'lines' | 'layers'

/** A part cut open: what lies beyond a place along an axis is taken away. */
export interface Cut {
  readonly axis: 0 | 1 | 2
  readonly at: number
}

/** Facets of a solved part, what they wear and how they move. */
export interface DrawnSolved {
  readonly corners: Float32Array
  readonly moved: Float32Array
  /** Of each facet, of the limit: 1 where it fails. */
  readonly shares: Float32Array
}

/** So far from the middle of an edge-less cell to its sides; a hair more, so that no seams show. */
const HALF = 0.502

/**
 * What is drawn of a solved part.
 *
 * @param times the load that is shown over that at which the part fails
 */
export function drawnSolved({ skin, cells }: SolvedPicture, limit: Limit, times: number, cut?: Cut): DrawnSolved {
  const of = ({ lines, layers }: { readonly lines: Float32Array; readonly layers: Float32Array }, i: number): number =>
    times * (limit === 'lines' ? lines[i]! : limit === 'layers' ? layers[i]! : Math.hypot(lines[i]!, layers[i]!))
  const facets = skin.lines.length
  if (!cut) {
    const shares = new Float32Array(facets)
    for (let f = 0; f < facets; f++) shares[f] = of(skin, f)
    return { corners: skin.corners, moved: skin.moved, shares }
  }
  const { axis, at } = cut
  const kept: number[] = []
  for (let f = 0; f < facets; f++) {
    const middle = (skin.corners[9 * f + axis]! + skin.corners[9 * f + 3 + axis]! + skin.corners[9 * f + 6 + axis]!) / 3
    if (middle <= at) kept.push(f)
  }
  const inside: number[] = []
  for (let c = 0; c < cells.lines.length; c++) {
    const off = cells.middles[3 * c + axis]! - at
    // Of two cells whose sides lie on the cut, the one before it.
    if (off > -cells.size[axis] / 2 && off <= cells.size[axis] / 2) inside.push(c)
  }
  const count = kept.length + 2 * inside.length
  const drawn = { corners: new Float32Array(9 * count), moved: new Float32Array(9 * count), shares: new Float32Array(count) }
  for (const [i, f] of kept.entries()) {
    drawn.corners.set(skin.corners.subarray(9 * f, 9 * f + 9), 9 * i)
    drawn.moved.set(skin.moved.subarray(9 * f, 9 * f + 9), 9 * i)
    drawn.shares[i] = of(skin, f)
  }
  const [u, v] = [0, 1, 2].filter((k) => k !== axis) as [number, number]
  const quad = [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, -1],
    [1, 1],
    [-1, 1],
  ] as const
  for (const [i, c] of inside.entries()) {
    const facet = kept.length + 2 * i
    for (const [corner, [a, b]] of quad.entries()) {
      const to = 9 * facet + 3 * corner
      drawn.corners[to + axis] = at
      drawn.corners[to + u] = cells.middles[3 * c + u]! + a * HALF * cells.size[u]!
      drawn.corners[to + v] = cells.middles[3 * c + v]! + b * HALF * cells.size[v]!
      for (let k = 0; k < 3; k++) drawn.moved[to + k] = cells.moved[3 * c + k]!
    }
    drawn.shares[facet] = drawn.shares[facet + 1] = of(cells, c)
  }
  return drawn
}

/** One row of the table behind a picture: what of the limit is reached at a height, and how far that moves. */
export interface SolvedBand {
  readonly z: number
  readonly lines: number
  readonly layers: number
  readonly movedMm: number
}

/** From the bed up, cell by cell of the grid. */
export function bandsOf({ cells }: SolvedPicture, times: number): SolvedBand[] {
  const bands = new Map<number, SolvedBand>()
  for (let c = 0; c < cells.lines.length; c++) {
    const z = cells.middles[3 * c + 2]!
    const own = bands.get(z) ?? { z, lines: 0, layers: 0, movedMm: 0 }
    const moved = times * Math.hypot(cells.moved[3 * c]!, cells.moved[3 * c + 1]!, cells.moved[3 * c + 2]!)
    bands.set(z, {
      z,
      lines: Math.max(own.lines, times * cells.lines[c]!),
      layers: Math.max(own.layers, times * cells.layers[c]!),
      movedMm: Math.max(own.movedMm, moved),
    })
  }
  return [...bands.values()].sort((a, b) => a.z - b.z)
}

/** Smallest and largest coordinate of a part along an axis, mm. */
export function rangeAlong({ skin: { corners } }: SolvedPicture, axis: Cut['axis']): readonly [number, number] {
  let [low, high] = [Infinity, -Infinity]
  for (let i = axis; i < corners.length; i += 3) {
    if (corners[i]! < low) low = corners[i]!
    if (corners[i]! > high) high = corners[i]!
  }
  return [low, high]
}

/** How far each corner of a patch moves, like corners: as the cell that is nearest to it, of those about it. */
export function patchMoved(picture: SolvedPicture, corners: Float32Array): Float32Array {
  const { moved } = picture.cells
  const nearest = finders.get(picture) ?? nearestCells(picture)
  finders.set(picture, nearest)
  const out = new Float32Array(corners.length)
  for (let i = 0; i < corners.length; i += 3) {
    const cell = nearest(corners[i]!, corners[i + 1]!, corners[i + 2]!)
    if (cell >= 0) out.set(moved.subarray(3 * cell, 3 * cell + 3), i)
  }
  return out
}

const finders = new WeakMap<SolvedPicture, ReturnType<typeof nearestCells>>()
/** A corner of the part lies at most so many cells from one that is filled. */
const REACH = 3

/** Finds the cell nearest to a place by the places about it; −1 where none is filled. */
function nearestCells({ cells: { middles, size } }: SolvedPicture): (x: number, y: number, z: number) => number {
  const place = (x: number, y: number, z: number): string =>
    `${Math.round(x / size[0] - first[0]!)} ${Math.round(y / size[1] - first[1]!)} ${Math.round(z / size[2] - first[2]!)}`
  const first = [0, 1, 2].map((k) => middles[k]! / size[k]!)
  const at = new Map<string, number>()
  for (let c = 0; 3 * c < middles.length; c++) at.set(place(middles[3 * c]!, middles[3 * c + 1]!, middles[3 * c + 2]!), c)
  return (x, y, z) => {
    for (let reach = 0; reach <= REACH; reach++) {
      let [best, least] = [-1, Infinity]
      for (let k = -reach; k <= reach; k++)
        for (let j = -reach; j <= reach; j++)
          for (let i = -reach; i <= reach; i++) {
            const cell = at.get(place(x + i * size[0], y + j * size[1], z + k * size[2]))
            if (cell === undefined) continue
            const off = (middles[3 * cell]! - x) ** 2 + (middles[3 * cell + 1]! - y) ** 2 + (middles[3 * cell + 2]! - z) ** 2
            if (off < least) [best, least] = [cell, off]
          }
      if (best >= 0) return best
    }
    return -1
  }
}

/** Short strokes along which a part is pulled or pressed most: two points a stroke, three coordinates each, mm. */
export interface Strokes {
  readonly pulled: Float32Array
  readonly pressed: Float32Array
}

/** So many strokes are drawn at most, each so many cells long. Where less than this share of the limit is reached there is none. */
const [MOST_STROKES, LONG, LEAST_SHARE] = [1400, 1.6, 0.08]

/** Strokes on the skin, or on the cut, where the part is as far as it is drawn moved. */
export function strokesOf({ skin, cells }: SolvedPicture, load: number, far: number, cut?: Cut): Strokes {
  const onSkin: (readonly [cell: number, x: number, y: number, z: number])[] = []
  const facets = skin.lines.length
  for (let f = 0; f < facets; f++) {
    const middle = [0, 1, 2].map((k) => (skin.corners[9 * f + k]! + skin.corners[9 * f + 3 + k]! + skin.corners[9 * f + 6 + k]!) / 3)
    if (cut && middle[cut.axis]! > cut.at) continue
    onSkin.push([skin.cell[f]!, middle[0]!, middle[1]!, middle[2]!])
  }
  const onCut: typeof onSkin = []
  for (let c = 0; cut && c < cells.lines.length; c++) {
    const off = cells.middles[3 * c + cut.axis]! - cut.at
    if (off <= -cells.size[cut.axis] / 2 || off > cells.size[cut.axis] / 2) continue
    const at = [cells.middles[3 * c]!, cells.middles[3 * c + 1]!, cells.middles[3 * c + 2]!]
    at[cut.axis] = cut.at
    onCut.push([c, at[0]!, at[1]!, at[2]!])
  }
  const places = [...onCut, ...onSkin]
  const each = Math.max(1, Math.ceil(places.length / MOST_STROKES))
  const half = (LONG * Math.max(...cells.size)) / 2
  const [pulled, pressed]: [number[], number[]] = [[], []]
  for (let i = 0; i < places.length; i += each) {
    const [c, x, y, z] = places[i]!
    if (load * Math.hypot(cells.lines[c]!, cells.layers[c]!) < LEAST_SHARE) continue
    const to = cells.isPressed[c] === 1 ? pressed : pulled
    const [u, v, w] = [half * cells.way[3 * c]!, half * cells.way[3 * c + 1]!, half * cells.way[3 * c + 2]!]
    const [dx, dy, dz] = [far * cells.moved[3 * c]!, far * cells.moved[3 * c + 1]!, far * cells.moved[3 * c + 2]!]
    to.push(x + dx - u, y + dy - v, z + dz - w, x + dx + u, y + dy + v, z + dz + w)
  }
  return { pulled: Float32Array.from(pulled), pressed: Float32Array.from(pressed) }
}
