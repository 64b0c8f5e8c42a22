import type { Scopes } from '../profile/exceptions'
import { settings as definitions, type SettingName } from '../profile/settings'
import type { Block } from '../slicing/blocks'
import type { Layers } from '../slicing/layers'
import { clipLines } from './clipLines'
import type { Contours } from './contours'
import { ContoursBuilder, isSameGroup } from './contours'
import { type MiddleLine, middleLines } from './medialAxis'
import type { PolygonKernel, PolygonOps, Region } from './polygon'
import { polygonsOf } from './polygonsOf'
import { RimCheck } from './rimCheck'
import { type RimMeasure, Rims, thin } from './rims'
import { ringMiddles } from './ringMiddle'
import { RimShifter } from './shiftRims'
import { type Strands, StrandsBuilder } from './strands'
import { patchesOn, scopeOn, type Zone, zoneHolds, zonesOf } from './zones'

export interface WallSettings {
  readonly lineWidth: number
  /** 0 follows `lineWidth`. */
  readonly firstLayerWidth: number
  readonly wallCount: number
  readonly thinLines: 'filled' | 'left'
  readonly leastLineWidth: number
}

export interface Walls {
  /** Centre lines: outermost first; one group a layer of the block, as in everything here, mm. */
  readonly walls: readonly Contours[]
  /** Walls of places with settings of their own, cut where these end: outermost first, with the width of their lines. */
  readonly wallParts: readonly Strands[]
  /** Single lines of varying width where no full line fits: thin places of the part and gaps between walls. */
  readonly thin: Strands
  /** What the walls leave for skins and infill. */
  readonly inside: Contours
  /** Area of each layer that is too thin for any line, mm². */
  readonly lost: Float64Array
}

/** Inner walls are hidden and may cut corners by this share of a line's width; only the outer wall keeps every point. */
const HIDDEN_TOLERANCE = 1 / 16
/** Skins follow a fill of straight lines, so their rim needs no more than this share of a line's width. */
export const SKIN_TOLERANCE = 1 / 8
/** A place has vanished under an inset when the rim is shorter than foretold by this many line widths and this share. */
const VANISHED_WIDTHS = 3
const VANISHED_SHARE = 0.003
/** A line wider than this many line widths is laid as two. */
const WIDEST_LINE = 1.5
/** What is thinner than this, mm, is no detail but the roughness of the model. */
const LEAST_DETAIL = 0.06

export const widthOn = (layer: number, { lineWidth, firstLayerWidth }: Pick<WallSettings, 'lineWidth' | 'firstLayerWidth'>): number =>
  layer === 0 && firstLayerWidth > 0 ? firstLayerWidth : lineWidth

/** Lays the walls of a block of layers by repeated inset, and a line of varying width wherever an inset makes a place vanish. */
export function layWalls(
  layers: Layers,
  { from, to }: Block,
  scopes: Scopes,
  kernel: PolygonKernel,
  onLayer: (done: number) => void,
): Walls {
  const most = [scopes.settings, ...scopes.exceptions.map(({ values }) => values)].reduce(
    (n, { wallCount = 0 }) => Math.max(n, wallCount),
    0,
  )
  const out = new WallsBuilder(most, kernel)
  const parts = Array.from({ length: most }, () => new StrandsBuilder())
  const lost = new Float64Array(to - from)
  /** Exceptions in force on all of the layer below; nothing where it has places of its own. The first layer has a width of its own. */
  let plain: number | undefined
  for (let layer = from; layer < to; layer++) {
    const scope = scopeOn(layers, layer, scopes)
    const patches = patchesOn(layers, layer, scopes, isOfRegions)
    if (patches.length === 0 && plain === scope && layer > 1 && isSameGroup(layers.outlines, layer, layer - 1)) {
      // Upright sides make layers that are all alike: their walls are too.
      out.repeatGroup()
      lost[layer - from] = lost[layer - from - 1]!
      for (const part of parts) part.endGroup()
      onLayer(layer + 1 - from)
      continue
    }
    plain = patches.length === 0 ? scope : undefined
    if (patches.length === 0) lost[layer - from] = out.lay(layers.outlines, layer, scopes.settingsOf(scope))
    else {
      for (const zone of zonesOf(layers.outlines, layer, scope, patches, kernel)) {
        const settings = scopes.settingsOf(zone.scope)
        // The whole layer is laid with the settings of the zone, and what lies in the zone is kept: no wall runs along its rim.
        const whole = new WallsBuilder(settings.wallCount, kernel)
        lost[layer - from] = Math.max(lost[layer - from]!, whole.lay(layers.outlines, layer, settings))
        whole.endGroup()
        keepZone(whole.finish(), zone, widthOn(layer, settings), out, parts, kernel)
      }
    }
    out.endGroup()
    for (const part of parts) part.endGroup()
    onLayer(layer + 1 - from)
  }
  return { ...out.finish(), wallParts: parts.map((part) => part.finish()), lost }
}

export const isOfRegions = (name: SettingName): boolean => definitions[name].stage === 'regions'

/** Collects what is laid, layer by layer. */
class WallsBuilder {
  readonly thin = new StrandsBuilder()
  readonly inside = new ContoursBuilder()
  private readonly walls: readonly ContoursBuilder[]
  private readonly plain = new PlainWalls()

  constructor(
    most: number,
    private readonly kernel: PolygonKernel,
  ) {
    this.walls = Array.from({ length: most }, () => new ContoursBuilder())
  }

  /** Lays one layer with the same settings everywhere. Returns the area that is too thin for any line, mm². */
  lay(outlines: Contours, layer: number, settings: WallSettings): number {
    const { walls, inside, thin } = this
    const width = widthOn(layer, settings)
    const certain = this.plain.lay(outlines, layer, settings, width)
    for (const [depth, wall] of certain.walls.entries()) wall.write(walls[depth]!)
    if (certain.inside) {
      certain.inside.write(inside)
      return 0
    }
    if (settings.thinLines === 'filled') {
      const leastWidth = Math.min(settings.leastLineWidth, width)
      // Narrower than this all round, there is no room for a wall on either side of what is left.
      const rings = ringMiddles(certain.free, leastWidth, 2 * width + (certain.walls.length > 0 ? leastWidth : 0))
      if (rings) {
        for (const ring of rings) addThin(ring, width, thin)
        return 0
      }
    }
    return this.kernel.run((ops) => {
      const fitted = fittedWalls(ops, ops.of(certain.free), certain.walls.length, width, settings, thin)
      for (const [i, wall] of fitted.walls.entries()) ops.write(wall, walls[certain.walls.length + i]!)
      ops.write(fitted.inside, inside)
      return fitted.lost
    })
  }

  endGroup(): void {
    for (const wall of this.walls) wall.endGroup()
    this.thin.endGroup()
    this.inside.endGroup()
  }

  /** Ends a layer that is the same as the one before it. */
  repeatGroup(): void {
    for (const wall of this.walls) wall.repeatGroup()
    this.thin.repeatGroup()
    this.inside.repeatGroup()
  }

  finish(): Omit<Walls, 'wallParts' | 'lost'> {
    return { walls: this.walls.map((wall) => wall.finish()), thin: this.thin.finish(), inside: this.inside.finish() }
  }
}

/** Adds the part of a layer that lies in a zone. */
function keepZone(
  { walls, thin, inside }: Omit<Walls, 'wallParts' | 'lost'>,
  zone: Zone,
  width: number,
  out: WallsBuilder,
  parts: readonly StrandsBuilder[],
  kernel: PolygonKernel,
): void {
  for (const [depth, { xy, polygonStart }] of walls.entries()) {
    for (let p = 0; p < polygonStart.length - 1; p++) {
      for (const piece of cutLoop(xy.subarray(2 * polygonStart[p]!, 2 * polygonStart[p + 1]!), zone.contours))
        parts[depth]!.add(piece.xy, width, piece.closed)
    }
  }
  const { xy, strandStart } = thin
  for (let s = 0; s < strandStart.length - 1; s++) {
    const [from, to] = [strandStart[s]!, strandStart[s + 1]!]
    const middle = Math.floor((from + to) / 2)
    if (zoneHolds(zone.contours, xy[2 * middle]!, xy[2 * middle + 1]!))
      out.thin.add(xy.subarray(2 * from, 2 * to), thin.width.subarray(from, to), thin.closed[s] === 1)
  }
  kernel.run((ops) => ops.write(ops.intersect(ops.read(inside, 0), ops.read(zone.contours, 0)), out.inside))
}

/** The pieces of a closed line that lie in a zone; the whole of it where it does not leave the zone. */
function cutLoop(loop: Float64Array, zone: Contours): { readonly xy: ArrayLike<number>; readonly closed: boolean }[] {
  const line = new Float64Array(loop.length + 2)
  line.set(loop)
  line.set(loop.subarray(0, 2), loop.length)
  const pieces = clipLines([line], zone, 0)
  const [first] = pieces
  if (!first) return []
  if (pieces.length === 1 && first.length === line.length) return [{ xy: loop, closed: true }]
  const last = pieces[pieces.length - 1]!
  const goesOn =
    pieces.length > 1 &&
    first[0] === line[0] &&
    first[1] === line[1] &&
    last[last.length - 2] === line[0] &&
    last[last.length - 1] === line[1]
  if (!goesOn) return pieces.map((xy) => ({ xy, closed: false }))
  // The loop begins inside: its last piece goes on with the first.
  const joined = [...last, ...first.subarray(2)]
  return [...pieces.slice(1, -1), joined].map((xy) => ({ xy, closed: false }))
}

/** Walls that have room everywhere; without `inside` there is not enough of it for the others. */
interface CertainWalls {
  readonly walls: readonly Rims[]
  /** What they leave. */
  readonly free: Rims
  readonly inside: Rims | undefined
}

/** Walls by inset upon inset, as long as there is room for them and a line more and no rim meets another. */
class PlainWalls {
  private readonly shifter = new RimShifter()
  private readonly check = new RimCheck()
  private readonly thinned = new Rims()
  private readonly outline = new Rims()
  private readonly free = new Rims()
  private readonly inside = new Rims()
  private readonly room = new Rims()
  private readonly walls: Rims[] = []

  lay(outlines: Contours, layer: number, settings: WallSettings, width: number): CertainWalls {
    const { wallCount } = settings
    const outline = this.outline.read(outlines, layer)
    if (wallCount === 0) return { walls: [], free: outline, inside: outline }
    let laid = 0
    for (; laid < wallCount; laid++) {
      this.walls[laid] ??= new Rims()
      const wall = this.walls[laid]!
      // The surface keeps every point; what lies behind it is hidden.
      const hasRoom =
        laid === 0
          ? this.shrink(outline, width / 2, width, wall)
          : this.shrinkThinned(this.walls[laid - 1]!, width, HIDDEN_TOLERANCE, width, wall)
      if (!hasRoom) break
    }
    if (
      laid === wallCount &&
      this.shrinkThinned(this.walls[laid - 1]!, width / 2, SKIN_TOLERANCE, width, this.inside) &&
      this.shrink(this.inside, width / 2, width, this.room)
    )
      return { walls: this.walls.slice(0, laid), free: this.inside, inside: this.inside }
    // The innermost may be laid only if a line fits within it, or the gap that it leaves would stay open.
    if (laid > 0 && !this.shrink(this.walls[laid - 1]!, width / 2 + spareFor(settings, width), width, this.room)) laid--
    if (laid > 0 && !this.shrink(this.walls[laid - 1]!, width / 2, width, this.free)) laid = 0
    return { walls: this.walls.slice(0, laid), free: laid > 0 ? this.free : outline, inside: undefined }
  }

  private shrinkThinned(edge: Rims, by: number, tolerance: number, width: number, into: Rims): boolean {
    return this.shrink(thin(edge, width * tolerance, this.thinned), by, width, into)
  }

  private shrink(edge: Rims, by: number, width: number, into: Rims): boolean {
    const before = this.shifter.shift(edge, by, into)
    return before !== undefined && !isShort(before, by, into.length, width) && this.check.boundSolid(into)
  }
}

/** Behind the surface a strip too thin for a line of its own must not be left, so walls keep room for one. */
const spareFor = ({ leastLineWidth }: WallSettings, width: number): number => Math.min(leastLineWidth, width) / 2

interface LayerWalls {
  readonly walls: readonly Region[]
  readonly inside: Region
}

/**
 * Walls where there is room for them on both sides, and lines of a width of their own in every place that is narrower.
 *
 * @param free what the walls outside of these leave
 * @param from how many those are
 */
function fittedWalls(
  ops: PolygonOps,
  free: Region,
  from: number,
  width: number,
  settings: WallSettings,
  thinLines: StrandsBuilder,
): LayerWalls & { readonly lost: number } {
  const walls: Region[] = []
  let lost = 0
  for (let depth = from; depth < settings.wallCount && !ops.isEmpty(free); depth++) {
    const hidden = ops.simplify(free, width * HIDDEN_TOLERANCE)
    const rim = depth === 0 ? free : hidden
    const spare = depth === 0 ? 0 : spareFor(settings, width)
    let rest = ops.offset(hidden, -width)
    const core = spare > 0 ? ops.offset(rest, -spare) : rest
    if (hasVanished(ops, hidden, core, width + spare, width)) {
      const kept = depth === 0 ? ops.offset(rim, -width) : core
      walls.push(ops.offset(kept, width / 2 + spare))
      const held = ops.isEmpty(kept) ? kept : ops.offset(kept, spare + width * (1 + HIDDEN_TOLERANCE))
      lost += layThin(ops, ops.isEmpty(held) ? rim : ops.subtract(rim, held), width, settings, thinLines, depth === 0)
      rest = spare > 0 && !ops.isEmpty(kept) ? ops.offset(kept, spare) : kept
    } else walls.push(ops.offset(rim, -width / 2))
    free = rest
  }
  return { walls, inside: openInside(ops, ops.simplify(free, width * SKIN_TOLERANCE), width, settings, thinLines), lost }
}

/**
 * Whether an inset made a place vanish, told cheaply from the lengths of both rims: without that the length falls as the
 * corners say, and by twice the length of every lost strip.
 */
function hasVanished(ops: PolygonOps, before: Region, after: Region, by: number, width: number): boolean {
  return isShort(ops.measureRim(before), by, ops.measureRim(after).length, width)
}

const isShort = (before: RimMeasure, by: number, after: number, width: number): boolean =>
  before.length - by * before.fall - after > VANISHED_WIDTHS * width + VANISHED_SHARE * before.length

/** Places of the inside that are narrower than a line leave it; a line of their own width fills them. */
function openInside(ops: PolygonOps, inside: Region, width: number, settings: WallSettings, thinLines: StrandsBuilder): Region {
  if (ops.isEmpty(inside)) return inside
  const shrunk = ops.offset(inside, -width / 2)
  if (!hasVanished(ops, inside, shrunk, width / 2, width)) return inside
  const kept = ops.isEmpty(shrunk) ? shrunk : ops.intersect(ops.offset(shrunk, width / 2 + width * HIDDEN_TOLERANCE), inside)
  layThin(ops, ops.isEmpty(kept) ? inside : ops.subtract(inside, kept), width, settings, thinLines, false)
  return kept
}

/**
 * Fills places that are too narrow for a wall on either side: one line along their middle, or two beside it where one
 * would be too wide.
 *
 * @returns area that is too thin for any line, mm²; asked for at the surface only, where it is detail that gets lost
 */
function layThin(
  ops: PolygonOps,
  places: Region,
  width: number,
  settings: WallSettings,
  thinLines: StrandsBuilder,
  atSurface: boolean,
): number {
  const least = Math.min(settings.leastLineWidth, width)
  const fillable = settings.thinLines === 'left' ? ops.empty() : opened(ops, places, least * 0.98)
  for (const piece of polygonsOf(ops, ops.simplify(fillable, width * HIDDEN_TOLERANCE))) {
    for (const line of middleLines(piece, least, 2 * width + least)) addThin(line, width, thinLines)
  }
  if (!atSurface) return 0
  const detail = opened(ops, places, LEAST_DETAIL)
  return ops.isEmpty(detail) ? 0 : ops.area(ops.isEmpty(fillable) ? detail : ops.subtract(detail, fillable))
}

function addThin({ xy, width: widths, closed }: MiddleLine, width: number, thinLines: StrandsBuilder): void {
  for (const line of besideMiddle(xy, widths, closed, WIDEST_LINE * width)) thinLines.add(line.xy, line.width, closed)
}

const opened = (ops: PolygonOps, region: Region, width: number): Region => {
  const shrunk = ops.offset(region, -width / 2)
  return ops.isEmpty(shrunk) ? shrunk : ops.offset(shrunk, width / 2)
}

/** One line along the middle, or, where it would be wider than `most` on average, two of half its width beside it. */
function besideMiddle(xy: number[], width: number[], closed: boolean, most: number): { xy: number[]; width: number[] }[] {
  if (width.reduce((sum, w) => sum + w, 0) / width.length <= most) return [{ xy, width }]
  const halves = width.map((w) => w / 2)
  return [1, -1].map((side) => ({ xy: shifted(xy, width, closed, side / 4), width: halves }))
}

/** A line moved sideways at every point by a share of the width there. */
function shifted(xy: readonly number[], width: readonly number[], closed: boolean, share: number): number[] {
  const count = width.length
  return width.flatMap((w, i) => {
    const before = closed ? (i + count - 1) % count : Math.max(0, i - 1)
    const after = closed ? (i + 1) % count : Math.min(count - 1, i + 1)
    const dx = xy[2 * after]! - xy[2 * before]!
    const dy = xy[2 * after + 1]! - xy[2 * before + 1]!
    const length = Math.hypot(dx, dy) || 1
    return [xy[2 * i]! - (dy / length) * w * share, xy[2 * i + 1]! + (dx / length) * w * share]
  })
}
