import type { Contours } from '../geometry/contours'
import { oneGroup } from '../geometry/oneGroup'
import type { PolygonKernel } from '../geometry/polygon'
import type { Strands } from '../geometry/strands'
import { concentric, fillRegion, type Pattern } from '../patterns/fillRegion'
import type { Scopes } from '../profile/overrides'
import type { SettingName, Settings } from '../profile/settings'
import type { Regions } from '../regions/findRegions'
import { isSpiral } from '../regions/spiral'
import { widthOn } from '../regions/walls'
import type { Layers } from '../slicing/layers'
import { patchesOn, scopeOn, zonesOf } from '../slicing/zones'
import { supportKind } from '../supports/supports'
import { findIslands } from './islands'
import { laySpiral } from './laySpiral'
import type { Pen } from './pen'
import { type Bead, ChainStroke, LineStroke, layNearestFirst, type Stroke, takeNearest } from './strokes'
import { code } from './toolpath'
import { anchorOf, layWallLines, type WallLine } from './wallLines'

/** Tops and bottoms run across the walls at this angle, turned by a right angle from layer to layer. */
export const FILL_ANGLE = Math.PI / 4
const DEGREE = Math.PI / 180
/** Branches narrower than this many line widths are hollow. */
const LEAST_FILLED = 8
const widthSettings = ['lineWidth', 'firstLayerWidth'] as const

/** What is laid, and with which settings. */
export interface Plan {
  readonly layers: Layers
  readonly regions: Regions
  readonly scopes: Scopes
  /** Point at which each outermost wall begins, one a polygon of the first of `regions.walls`. */
  readonly seams: Uint32Array
  readonly kernel: PolygonKernel
}

/** Lays one layer: foot and supports first, then body by body: walls, tops, bottoms and bridges, infill; ironing last. */
export const layLayer = (plan: Plan, layer: number, settings: Settings, pen: Pen): void => new LayerLayer(plan, layer, settings, pen).lay()

class LayerLayer {
  private readonly width: number
  private readonly height: number

  constructor(
    private readonly plan: Plan,
    private readonly layer: number,
    private readonly settings: Settings,
    private readonly pen: Pen,
  ) {
    this.width = widthOn(layer, settings)
    this.height = plan.layers.height[layer]!
  }

  lay(): void {
    const { layer, pen, settings } = this
    const { layers, regions, seams, scopes } = this.plan
    if (isSpiral(layer, scopes.settings)) {
      laySpiral(this.plan, layer, this.width, pen)
      return
    }
    if (layer === 0) for (const stroke of this.footStrokes()) stroke.lay(pen)
    layNearestFirst(this.supportStrokes(), pen)
    const islands = findIslands(layers.outlines, layer)
    const waiting = Array.from({ length: Math.max(1, islands.count) }, () => ({
      loops: [] as WallLine[],
      strokes: [] as Stroke[],
    }))
    for (const wall of this.wallLines()) waiting[islands.find(...anchorOf(wall))]!.loops.push(wall)
    const strokes = [
      ...this.strandStrokes(regions.thin, code.thin),
      ...this.topBottomStrokes(),
      ...this.bridgeStrokes(),
      ...this.infillStrokes(),
    ]
    for (const stroke of strokes) waiting[islands.find(...stroke.anchor)]!.strokes.push(stroke)
    const left = waiting.filter(({ loops, strokes }) => loops.length + strokes.length > 0)
    while (left.length > 0) {
      const { loops, strokes } = takeNearest(left, (island) => this.turnOf(island))
      layWallLines(loops, settings, seams, this.width, pen)
      for (const features of [[code.thin], [code.bridge, code.topBottom], [code.infill]])
        layNearestFirst(
          strokes.filter(({ feature }) => features.includes(feature)),
          pen,
        )
    }
    layNearestFirst(this.ironingStrokes(), pen)
  }

  /** How soon a body is laid: less is sooner. */
  private turnOf(island: { readonly loops: readonly WallLine[]; readonly strokes: readonly Stroke[] }): number {
    const { bodyOrder } = this.plan.scopes.settings
    if (bodyOrder === 'nearest') return this.nearness(island)
    const axis = bodyOrder === 'leftToRight' ? 0 : 1
    const anchors = [...island.loops.map(anchorOf), ...island.strokes.map(({ anchor }) => anchor)]
    return anchors.reduce((least, anchor) => Math.min(least, anchor[axis]), Infinity)
  }

  private nearness({ loops, strokes }: { readonly loops: readonly WallLine[]; readonly strokes: readonly Stroke[] }): number {
    const { atX, atY } = this.pen
    if (loops.length === 0) return strokes.reduce((least, stroke) => Math.min(least, stroke.nearness(atX, atY)), Infinity)
    return loops.reduce((least, wall) => {
      const [x, y] = anchorOf(wall)
      return Math.min(least, (x - atX) ** 2 + (y - atY) ** 2)
    }, Infinity)
  }

  private wallLines(): WallLine[] {
    const { layer } = this
    const { walls, wallParts } = this.plan.regions
    const loops = walls.flatMap((contours, depth) =>
      range(contours.groupStart[layer]!, contours.groupStart[layer + 1]!).map((polygon) => ({ contours, polygon, depth })),
    )
    const parts = wallParts.flatMap((strands, depth) =>
      this.strandStrokes(strands, depth === 0 ? code.outerWall : code.innerWall).map((stroke) => ({ stroke, depth })),
    )
    return [...loops, ...parts]
  }

  private bead(feature: number, over: Partial<Bead> = {}): Bead {
    return { feature, width: this.width, height: this.height, flow: 1, ...over }
  }

  private strandStrokes({ xy, width, strandStart, groupStart, closed }: Strands, feature: number): LineStroke[] {
    return range(groupStart[this.layer]!, groupStart[this.layer + 1]!).map((s) => {
      const from = strandStart[s]!
      const to = strandStart[s + 1]!
      return new LineStroke(xy.subarray(2 * from, 2 * to), closed[s] === 1, this.bead(feature), width.subarray(from, to))
    })
  }

  /** Fills a region, in parts where places change one of these settings. */
  private byZone(
    contours: Contours,
    group: number,
    names: readonly SettingName[],
    lay: (contours: Contours, group: number, settings: Settings, width: number) => Stroke[],
  ): Stroke[] {
    const { layer, settings, width } = this
    const { layers, scopes, kernel } = this.plan
    const patches = patchesOn(layers, layer, scopes, (name) => names.includes(name))
    if (patches.length === 0) return lay(contours, group, settings, width)
    return zonesOf(contours, group, { scope: scopeOn(layers, layer, scopes), patches, scopes }, kernel).flatMap((zone) => {
      const own = scopes.settingsOf(zone.scope)
      return lay(zone.contours, 0, own, widthOn(layer, own))
    })
  }

  private topBottomStrokes(): Stroke[] {
    return this.byZone(
      this.plan.regions.topBottom,
      this.layer,
      ['topBottomPattern', 'bottomAngle', ...widthSettings],
      (contours, group, settings, width) => {
        const bead = this.bead(code.topBottom, { width })
        const { bottomLayers, bottomPattern, bottomAngle, topBottomPattern } = settings
        const pattern = this.layer < bottomLayers && bottomPattern !== 'asTops' ? bottomPattern : topBottomPattern
        if (pattern === 'concentric')
          return concentric(contours, group, width, width, this.plan.kernel).map(({ xy }) => new LineStroke(xy, true, bead))
        const joined = pattern === 'backAndForth'
        return this.filled(contours, group, bead, this.layer === 0 ? { joined, angle: bottomAngle * DEGREE } : { joined })
      },
    )
  }

  private bridgeStrokes(): Stroke[] {
    const { bridges, bridgeAngle } = this.plan.regions
    const from = bridges.groupStart[this.layer]!
    const to = bridges.groupStart[this.layer + 1]!
    // Rims of one bridge stand together and share their angle.
    const angles = new Set(bridgeAngle.subarray(from, to))
    return [...angles].flatMap((angle) => {
      const own = pick(bridges, from, to, (p) => bridgeAngle[p] === angle)
      return this.byZone(own, 0, ['bridgeFlow', ...widthSettings], (contours, group, { bridgeFlow }, width) =>
        // Bridges do not turn from layer to layer.
        this.filled(contours, group, this.bead(code.bridge, { width, flow: bridgeFlow / 100 }), { angle, turn: 0 }),
      )
    })
  }

  private infillStrokes(): Stroke[] {
    const { infill, thick, thickHeight } = this.plan.regions
    const high = thickHeight[this.layer]!
    return [
      ...this.infillOf(infill, this.layer, {}),
      ...(high > 0 ? this.infillOf(thick, Math.round(this.layer / this.settings.infillEvery), { height: high }) : []),
    ]
  }

  private infillOf(all: Contours, turn: number, over: Partial<Bead>): Stroke[] {
    const names: readonly SettingName[] = [
      'infillPattern',
      'infillDensity',
      'infillAngle',
      'infillShiftX',
      'infillShiftY',
      ...widthSettings,
    ]
    return this.byZone(all, this.layer, names, (contours, group, settings, width) => {
      const { infillPattern, infillDensity, infillAngle, infillShiftX, infillShiftY } = settings
      return this.filled(contours, group, this.bead(code.infill, { width, ...over }), {
        pattern: infillPattern,
        density: infillDensity / 100,
        angle: infillAngle * DEGREE,
        joined: infillDensity >= 100,
        turn,
        shift: [infillShiftX, infillShiftY],
      })
    })
  }

  private ironingStrokes(): Stroke[] {
    return this.byZone(this.plan.regions.ironed, this.layer, ['ironingSpacing', 'ironingFlow'], (contours, group, settings) => {
      // The plastic that is pressed out is a share of a full line; lines stand closer than that line is wide.
      const bead = this.bead(code.ironing, { width: settings.ironingSpacing, flow: settings.ironingFlow / 100 })
      return this.filled(contours, group, bead, { turn: this.layer + 1 })
    })
  }

  private supportStrokes(): Stroke[] {
    const { body, top } = this.plan.regions.support
    const bead = this.bead(code.support)
    const filled = (all: Contours, group: number): Stroke[] =>
      this.byZone(all, group, ['supportDensity', 'supportPattern'], (contours, own, { supportPattern, supportDensity }) => {
        const pattern = supportPattern === 'backAndForth' ? 'lines' : supportPattern
        const how = { pattern, density: supportDensity / 100, angle: 0, joined: supportPattern === 'backAndForth', turn: 0 } as const
        return this.filled(contours, own, bead, how)
      })
    const dense = this.filled(top, this.layer, this.bead(code.supportTop))
    if (supportKind(this.plan.scopes) !== 'branching') return [...filled(body, this.layer), ...dense]
    const { width, layer, plan } = this
    const rims = concentric(body, layer, width, Infinity, plan.kernel).map(({ xy }) => new LineStroke(xy, true, bead))
    // Thin branches are their rim alone; what is wider is filled as other supports are.
    const inside = oneGroup(plan.kernel, (ops) => {
      const wide = ops.offset(ops.read(body, layer), (-LEAST_FILLED / 2) * width)
      return ops.isEmpty(wide) ? wide : ops.offset(wide, (LEAST_FILLED / 2 - 1) * width)
    })
    return [...rims, ...filled(inside, 0), ...dense]
  }

  private footStrokes(): Stroke[] {
    const { foot } = this.plan.regions
    return Array.from({ length: foot.polygonStart.length - 1 }, (_, p) => {
      const xy = foot.xy.subarray(2 * foot.polygonStart[p]!, 2 * foot.polygonStart[p + 1]!)
      return new LineStroke(xy, true, this.bead(code.foot))
    })
  }

  private filled(contours: Contours, group: number, bead: Bead, how: Partial<Fill> = {}): Stroke[] {
    const { pattern, density, angle, joined, turn, shift } = { ...solid, turn: this.layer, ...how }
    const [shiftX, shiftY] = shift
    const z = this.plan.layers.top[this.layer]!
    const request = { pattern, width: bead.width, density, angle, shiftX, shiftY, layer: turn, z }
    const { chains, lines } = fillRegion(contours, group, request, this.plan.kernel)
    return [
      ...chains.map(({ lines: own, chain }) => new ChainStroke(own, chain, bead, joined)),
      ...lines.map(({ xy, closed }) => new LineStroke(xy, closed, bead)),
    ]
  }
}

/** How a region is filled. */
interface Fill {
  readonly pattern: Pattern
  /** Share of the region that is laid, 1 for all of it. */
  readonly density: number
  /** Of the lines, radians. */
  readonly angle: number
  /** Whether lines are joined at their ends. */
  readonly joined: boolean
  /** How often the pattern has been turned; the layer's number unless told otherwise. */
  readonly turn: number
  /** mm */
  readonly shift: readonly [x: number, y: number]
}

const solid = { pattern: 'lines', density: 1, angle: FILL_ANGLE, joined: true, shift: [0, 0] } as const satisfies Partial<Fill>

const range = (from: number, to: number): number[] => Array.from({ length: to - from }, (_, i) => from + i)

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
