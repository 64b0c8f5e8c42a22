import { concentric, fillRegion, type Pattern } from '../patterns/fillRegion'
import { topPropping } from '../patterns/topPropping'
import type { Scopes } from '../profile/exceptions'
import type { Settings } from '../profile/settings'
import type { Contours } from '../regions/contours'
import type { Regions } from '../regions/findRegions'
import { widthOn } from '../regions/layWalls'
import type { PolygonKernel } from '../regions/polygon'
import { type Layers, layerCount } from '../slicing/layers'
import { AirSense } from './airSense'
import { findIslands, type Islands } from './islands'
import { partitionByBoxes } from './partitionByBoxes'
import { Pen } from './pen'
import { ChainPiece, LinePiece, layNearestFirst, type Piece, type Stroke, takeNearest } from './pieces'
import { code, type Toolpath, ToolpathBuilder } from './toolpath'
import { Traveller } from './traveller'
import { type Loop, layLoops, Seams } from './wallPieces'

/** Skins run across the walls at this angle, turned by a right angle from layer to layer. */
export const FILL_ANGLE = Math.PI / 4
const DEGREE = Math.PI / 180

/**
 * Orders everything that is laid into one path: layer by layer, foot and supports first, then body by body: walls, skins
 * and bridges, infill, ironing, always on to what begins nearest.
 */
export function layPaths(
  layers: Layers,
  regions: Regions,
  scopes: Scopes,
  kernel: PolygonKernel,
  onLayer: (done: number, of: number) => void = () => {},
): Toolpath {
  const out = new ToolpathBuilder()
  const traveller = new Traveller(out)
  let settings = scopes.settings
  const pen = new Pen(out, traveller, () => settings)
  const seams = new Seams()
  out.startAt(0, 0, 0)
  const count = layerCount(layers)
  const infill = infillOf(layers, regions, scopes.settings, kernel)
  const air = new AirSense(
    layers.outlines,
    Math.max(...[scopes.settings, ...scopes.exceptions.map(({ values }) => values)].map(({ lineWidth = 0 }) => lineWidth)),
  )
  for (let layer = 0; layer < count; layer++) {
    const middle = layers.top[layer]! - layers.height[layer]! / 2
    const scope = scopes.ofLayer(middle)
    settings = scopes.settingsOf(scope)
    out.startLayer()
    traveller.rise(layers.top[layer]!, settings)
    traveller.enter(layers.outlines, regions.walls[0], layer)
    if (layer > 0) air.enter(layer - 1)
    pen.enter(
      layers.height[layer]!,
      layer > 0 ? air : undefined,
      scope,
      scopes.partialAt(middle),
      (layers.beltStart ?? 0) + middle * (layers.beltSlope ?? 0),
    )
    seams.nextLayer()
    new LayerLayer(layers, { ...regions, infill }, layer, settings, scopes, pen, seams, kernel).lay()
    onLayer(layer + 1, count)
  }
  return out.finish()
}

const infillOf = (layers: Layers, regions: Regions, settings: Settings, kernel: PolygonKernel): Contours =>
  settings.infillPattern === 'topPropping'
    ? topPropping(regions.infill, [regions.skin, regions.bridges], layers.height, settings.lineWidth, kernel)
    : regions.infill

/** Lays one layer. */
class LayerLayer {
  private readonly width: number
  private readonly height: number

  constructor(
    private readonly layers: Layers,
    private readonly regions: Regions,
    private readonly layer: number,
    private readonly settings: Settings,
    private readonly scopes: Scopes,
    private readonly pen: Pen,
    private readonly seams: Seams,
    private readonly kernel: PolygonKernel,
  ) {
    this.width = widthOn(layer, settings)
    this.height = layers.height[layer]!
  }

  lay(): void {
    const { layers, layer, pen, settings } = this
    if (layer === 0) for (const piece of this.footPieces()) piece.lay(pen)
    layNearestFirst(this.supportPieces(), pen)
    const islands = findIslands(layers.outlines, layer)
    const waiting = Array.from({ length: Math.max(1, islands.count) }, () => ({
      loops: [] as Loop[],
      pieces: [] as Piece[],
    }))
    this.sortLoops(islands, waiting)
    const pieces = [...this.thinPieces(), ...this.skinPieces(), ...this.bridgePieces(), ...this.infillPieces()]
    for (const piece of pieces) waiting[islands.find(...piece.anchor)]!.pieces.push(piece)
    const left = waiting.filter(({ loops, pieces }) => loops.length + pieces.length > 0)
    while (left.length > 0) {
      const { loops, pieces } = takeNearest(left, (island) => this.nearness(island))
      layLoops(loops, settings, this.seams, layer, this.width, pen)
      for (const features of [[code.thin], [code.bridge, code.skin], [code.infill]])
        layNearestFirst(
          pieces.filter(({ feature }) => features.includes(feature)),
          pen,
        )
    }
    layNearestFirst(this.ironingPieces(), pen)
  }

  private nearness({ loops, pieces }: { readonly loops: readonly Loop[]; readonly pieces: readonly Piece[] }): number {
    const { atX, atY } = this.pen
    if (loops.length === 0) return pieces.reduce((least, piece) => Math.min(least, piece.nearness(atX, atY)), Infinity)
    return loops.reduce((least, { contours, polygon }) => {
      const at = 2 * contours.polygonStart[polygon]!
      return Math.min(least, (contours.xy[at]! - atX) ** 2 + (contours.xy[at + 1]! - atY) ** 2)
    }, Infinity)
  }

  private sortLoops(islands: Islands, waiting: readonly { readonly loops: Loop[] }[]): void {
    for (const [depth, contours] of this.regions.walls.entries()) {
      for (let polygon = contours.groupStart[this.layer]!; polygon < contours.groupStart[this.layer + 1]!; polygon++) {
        const first = 2 * contours.polygonStart[polygon]!
        waiting[islands.find(contours.xy[first]!, contours.xy[first + 1]!)]!.loops.push({ contours, polygon, depth })
      }
    }
  }

  private stroke(feature: number, over: Partial<Stroke> = {}): Stroke {
    return { feature, width: this.width, height: this.height, flow: 1, ...over }
  }

  private thinPieces(): Piece[] {
    const { xy, width, strandStart, groupStart, closed } = this.regions.thin
    const pieces: Piece[] = []
    for (let s = groupStart[this.layer]!; s < groupStart[this.layer + 1]!; s++) {
      const from = strandStart[s]!
      const to = strandStart[s + 1]!
      pieces.push(new LinePiece(xy.subarray(2 * from, 2 * to), closed[s] === 1, this.stroke(code.thin), width.subarray(from, to)))
    }
    return pieces
  }

  private skinPieces(): Piece[] {
    const { skinPattern } = this.settings
    if (skinPattern === 'concentric') {
      return concentric(this.regions.skin, this.layer, this.width, this.width, this.kernel).map(
        ({ xy }) => new LinePiece(xy, true, this.stroke(code.skin)),
      )
    }
    return this.filled(this.regions.skin, this.layer, 'lines', 1, FILL_ANGLE, this.stroke(code.skin), skinPattern === 'backAndForth')
  }

  private bridgePieces(): Piece[] {
    const { bridges, bridgeAngle } = this.regions
    const from = bridges.groupStart[this.layer]!
    const to = bridges.groupStart[this.layer + 1]!
    const flow = this.settings.bridgeFlow / 100
    // Rims of one bridge stand together and share their angle.
    const angles = new Set(bridgeAngle.subarray(from, to))
    return [...angles].flatMap((angle) => {
      const own = pick(bridges, from, to, (p) => bridgeAngle[p] === angle)
      // Bridges do not turn from layer to layer.
      return this.filled(own, 0, 'lines', 1, angle, this.stroke(code.bridge, { flow }), true, 0)
    })
  }

  private infillPieces(): Piece[] {
    const { infill, thick, thickHeight } = this.regions
    const high = thickHeight[this.layer]!
    return [
      ...this.infillOf(infill, this.stroke(code.infill), this.layer),
      ...(high > 0
        ? this.infillOf(thick, this.stroke(code.infill, { height: high }), Math.round(this.layer / this.settings.infillEvery))
        : []),
    ]
  }

  /** Infill of a region, in parts where boxes ask for another pattern or density. */
  private infillOf(contours: Contours, stroke: Stroke, turn: number): Piece[] {
    const partial = this.scopes.partialAt(this.layers.top[this.layer]! - this.height / 2).filter(({ exception }) => exception.box)
    if (partial.length === 0) return this.infillWith(contours, this.layer, this.settings, stroke, turn)
    return partitionByBoxes(contours, this.layer, partial, this.kernel).flatMap(({ contours: own, bits }) =>
      this.infillWith(
        own,
        0,
        this.scopes.settingsOf(this.scopes.ofLayer(this.layers.top[this.layer]! - this.height / 2) | bits),
        stroke,
        turn,
      ),
    )
  }

  private infillWith(contours: Contours, group: number, settings: Settings, stroke: Stroke, turn: number): Piece[] {
    const { infillPattern, infillDensity, infillAngle, infillShiftX, infillShiftY } = settings
    return this.filled(contours, group, infillPattern, infillDensity / 100, infillAngle * DEGREE, stroke, infillDensity >= 100, turn, [
      infillShiftX,
      infillShiftY,
    ])
  }

  private ironingPieces(): Piece[] {
    const { ironing, ironingSpacing, ironingFlow } = this.settings
    if (ironing === 'off') return []
    // The plastic that is pressed out is a share of a full line; lines stand closer than that line is wide.
    const stroke = this.stroke(code.ironing, { width: ironingSpacing, flow: ironingFlow / 100 })
    return this.filled(this.regions.ironed, this.layer, 'lines', 1, FILL_ANGLE, stroke, true, this.layer + 1)
  }

  private supportPieces(): Piece[] {
    const { supportPattern, supportDensity, supports } = this.settings
    const { body, roof } = this.regions.support
    const density = supportDensity / 100
    const rims = supports === 'branching' ? concentric(body, this.layer, this.width, Infinity, this.kernel) : []
    const pattern = supportPattern === 'backAndForth' ? 'lines' : supportPattern
    const dense = this.filled(roof, this.layer, 'lines', 1, FILL_ANGLE, this.stroke(code.supportRoof), true)
    if (supports === 'branching') return [...rims.map(({ xy }) => new LinePiece(xy, true, this.stroke(code.support))), ...dense]
    return [
      ...this.filled(body, this.layer, pattern, density, 0, this.stroke(code.support), supportPattern === 'backAndForth', 0),
      ...dense,
    ]
  }

  private footPieces(): Piece[] {
    const { foot } = this.regions
    return Array.from({ length: foot.polygonStart.length - 1 }, (_, p) => {
      const xy = foot.xy.subarray(2 * foot.polygonStart[p]!, 2 * foot.polygonStart[p + 1]!)
      return new LinePiece(xy, true, this.stroke(code.foot))
    })
  }

  private filled(
    contours: Contours,
    group: number,
    pattern: Pattern,
    density: number,
    angle: number,
    stroke: Stroke,
    joined: boolean,
    turn = this.layer,
    [shiftX, shiftY]: readonly [number, number] = [0, 0],
  ): Piece[] {
    const z = this.layers.top[this.layer]!
    const request = { pattern, width: stroke.width, density, angle, shiftX, shiftY, layer: turn, z }
    const { chains, lines } = fillRegion(contours, group, request, this.kernel)
    return [
      ...chains.map(({ lines: own, chain }) => new ChainPiece(own, chain, stroke, joined)),
      ...lines.map(({ xy, closed }) => new LinePiece(xy, closed, stroke)),
    ]
  }
}

/** Some polygons of a group as a group of their own. */
function pick({ xy, polygonStart }: Contours, from: number, to: number, wanted: (polygon: number) => boolean): Contours {
  const points: number[] = []
  const starts = [0]
  for (let p = from; p < to; p++) {
    if (!wanted(p)) continue
    for (let i = 2 * polygonStart[p]!; i < 2 * polygonStart[p + 1]!; i++) points.push(xy[i]!)
    starts.push(points.length / 2)
  }
  return { xy: Float64Array.from(points), polygonStart: Uint32Array.from(starts), groupStart: Uint32Array.of(0, starts.length - 1) }
}
