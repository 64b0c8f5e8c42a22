import { clipLines } from '../geometry/clipLines'
import { type Contours, isSameGroup } from '../geometry/contours'
import type { PolygonKernel } from '../geometry/polygon'
import type { Strands, StrandsBuilder } from '../geometry/strands'
import type { Scopes } from '../profile/overrides'
import { settings as definitions, type SettingName, type Settings } from '../profile/settings'
import type { Block } from '../slicing/blocks'
import type { Layers } from '../slicing/layers'
import { patchesOn, scopeOn, type Zone, zoneHolds, zonesOf } from '../slicing/zones'
import { isSpiral, vesselWall } from './spiral'
import { type Walls, widthOn } from './walls'
import { WallsBuilder } from './wallsBuilder'

/** Lays the walls of a block of layers by repeated inset, and a line of varying width wherever an inset makes a place vanish. */
export function layWalls(
  layers: Layers,
  { from, to }: Block,
  scopes: Scopes,
  kernel: PolygonKernel,
  onLayer: (done: number) => void,
): Walls {
  const everywhere = [scopes.settings, ...scopes.overrides.map(({ values }) => values)]
  const most = everywhere.reduce((n, { wallCount = 0 }) => Math.max(n, wallCount), scopes.settings.spiralWall === 'on' ? 1 : 0)
  const more = everywhere.some(({ extraWall }) => extraWall === 'everySecond') ? 1 : 0
  const out = new WallsBuilder(most + more, kernel)
  const lost = new Float64Array(to - from)
  /** For how many layers in a row the same settings were in force on all of each; the first layer has a width of its own. */
  let alike = 0
  let before: number | undefined
  for (let layer = from; layer < to; layer++) {
    if (isSpiral(layer, scopes.settings)) {
      out.laySpiral(vesselWall(layers.outlines, layer, layers.top[layer]!, scopes.settings.lineWidth, kernel))
      out.endGroup()
      onLayer(layer + 1 - from)
      continue
    }
    const scope = scopeOn(layers, layer, scopes)
    const patches = patchesOn(layers, layer, scopes, isOfRegions)
    const isPlain = patches.length === 0
    const isSame = isPlain && before === scope && layer > 1 && isSameGroup(layers.outlines, layer, layer - 1)
    alike = isSame ? alike + 1 : 0
    before = isPlain ? scope : undefined
    // Upright sides make layers that are all alike, or every second one: their walls are too.
    const back = scopes.settingsOf(scope).extraWall === 'none' ? 1 : 2
    if (alike >= back) {
      out.repeatGroup(back)
      lost[layer - from] = lost[layer - from - back]!
      onLayer(layer + 1 - from)
      continue
    }
    if (patches.length === 0) lost[layer - from] = out.lay(layers.outlines, layer, onLayerOf(scopes.settingsOf(scope), layer))
    else {
      for (const zone of zonesOf(layers.outlines, layer, { scope, patches, scopes }, kernel)) {
        const settings = onLayerOf(scopes.settingsOf(zone.scope), layer)
        // The whole layer is laid with the settings of the zone, and what lies in the zone is kept: no wall runs along its rim.
        const whole = new WallsBuilder(settings.wallCount, kernel)
        lost[layer - from] = Math.max(lost[layer - from]!, whole.lay(layers.outlines, layer, settings))
        whole.endGroup()
        keepZone(whole.finish(), zone, widthOn(layer, settings), out, kernel)
      }
    }
    out.endGroup()
    onLayer(layer + 1 - from)
  }
  return { ...out.finish(), lost }
}

/** Every second layer may have a wall more. */
const onLayerOf = (settings: Settings, layer: number): Settings =>
  settings.extraWall === 'everySecond' && layer % 2 === 1 ? { ...settings, wallCount: settings.wallCount + 1 } : settings

/** Settings that divide what is laid of the part itself, and not what stands around it. */
export const isOfRegions = (name: SettingName): boolean => {
  const { stage, group } = definitions[name]
  return stage === 'regions' && group !== 'Supports' && group !== 'First layer and brim'
}

/** Adds the part of a layer that lies in a zone. */
function keepZone(
  { walls, wallParts, thin, inside }: Omit<Walls, 'lost'>,
  zone: Zone,
  width: number,
  { narrow, inside: insideOut }: WallsBuilder,
  kernel: PolygonKernel,
): void {
  for (const [depth, { xy, polygonStart }] of walls.entries()) {
    for (let p = 0; p < polygonStart.length - 1; p++) {
      for (const piece of cutLoop(xy.subarray(2 * polygonStart[p]!, 2 * polygonStart[p + 1]!), zone.contours))
        narrow.walls[depth]!.add(piece.xy, width, piece.closed)
    }
  }
  keepStrands(thin, zone, narrow.thin)
  for (const [depth, strands] of wallParts.entries()) keepStrands(strands, zone, narrow.walls[depth]!)
  kernel.run((ops) => ops.write(ops.intersect(ops.read(inside, 0), ops.read(zone.contours, 0)), insideOut))
}

/** Lines of varying width belong to the zone on whose side their middle lies. */
function keepStrands({ xy, width, strandStart, closed }: Strands, zone: Zone, out: StrandsBuilder): void {
  for (let s = 0; s < strandStart.length - 1; s++) {
    const [from, to] = [strandStart[s]!, strandStart[s + 1]!]
    const middle = Math.floor((from + to) / 2)
    if (zoneHolds(zone.contours, xy[2 * middle]!, xy[2 * middle + 1]!))
      out.add(xy.subarray(2 * from, 2 * to), width.subarray(from, to), closed[s] === 1)
  }
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
