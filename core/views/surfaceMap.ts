import { cornersOf } from '../mesh/cornersOf'
import type { Mesh } from '../mesh/mesh'
import type { Part } from '../mesh/part'
import type { Placement } from '../mesh/place'
import { facetRoughnesses, treatmentOf } from '../physics/finish/surfaceFigures'
import { layDown, type PredictOptions } from '../pipeline/layDown'
import { Scopes } from '../profile/overrides'
import type { SettingValues } from '../profile/settings'
import { knownSetup } from '../setup/knownSetup'
import type { Setup } from '../setup/resolve'
import { type Layers, layerAt } from '../slicing/layers'
import { code, type Toolpath } from '../toolpath/toolpath'

/**
 * The surface of a part as it is printed, facet by facet, to be drawn as a map. In the frame of the layers, mm.
 *
 * ```
 * corners    nine coordinates a facet
 * raUm       roughness; not a number on the bed, which gives its own
 * leanDeg    how far the facet leans over, degrees from the vertical; above 0 it faces up, below 0 down
 * offMm      how far the nearest edge of what is laid along the rim lies from the facet's middle; not a number where the
 *            facet is no side
 * lostMm2    of each layer: area that is too thin for any line
 * seams      three coordinates of each place where a closed outer wall begins and ends
 * ```
 */
export interface SurfaceMap {
  readonly corners: Float32Array
  readonly raUm: Float32Array
  readonly leanDeg: Float32Array
  readonly offMm: Float32Array
  readonly lostMm2: Float64Array
  readonly seams: Float32Array
}

/** Facets that lean more than this from the vertical, as the sine, are tops and undersides: solid layers end them, not a wall. */
const SIDE = 0.7

/**
 * What a prediction before it has computed is taken from the cache.
 *
 * @throws InputError when the part cannot be worked on at all
 */
export function surfaceMap(part: Part, placement: Placement, setup: Setup, values: SettingValues, options: PredictOptions): SurfaceMap {
  const { mesh, layers, regions, single, resolved } = layDown(part, placement, setup, values, options)
  const { areas, roughness, up } = facetRoughnesses(
    mesh,
    layers,
    treatmentOf(new Scopes(resolved.settings, options.overrides), layers),
    knownSetup(setup).constants.finish,
  )
  // What lies on the bed faces down, and has neither area nor direction in the figures.
  const facing = up.map((sine, t) => (areas[t]! > 0 ? sine : -1))
  return {
    corners: cornersOf(mesh),
    raUm: Float32Array.from(roughness, (ra, t) => (areas[t]! > 0 ? ra : Number.NaN)),
    leanDeg: Float32Array.from(facing, (sine) => (Math.asin(Math.max(-1, Math.min(1, sine))) * 180) / Math.PI),
    offMm: distancesFromRim(mesh, facing, layers, single),
    lostMm2: regions.lost.slice(),
    seams: seamsOf(single, layers),
  }
}

/** Lines along the rim of a layer, packed: ax, ay, bx, by, half width. */
const STRIDE = 5

function distancesFromRim(mesh: Mesh, up: Float64Array, layers: Layers, path: Toolpath): Float32Array {
  const rims: (Float64Array | undefined)[] = []
  const rimOf = (layer: number): Float64Array => {
    const known = rims[layer]
    if (known) return known
    const packed: number[] = []
    for (let m = path.layerStart[layer]!; m < path.layerStart[layer + 1]!; m++) {
      if (path.feature[m] !== code.outerWall && path.feature[m] !== code.thin) continue
      packed.push(path.x[m]!, path.y[m]!, path.x[m + 1]!, path.y[m + 1]!, path.width[m]! / 2)
    }
    const rim = Float64Array.from(packed)
    rims[layer] = rim
    return rim
  }
  return Float32Array.from(up, (sine, t) => {
    if (Math.abs(sine) > SIDE) return Number.NaN
    const [x, y, z] = [0, 1, 2].map((axis) => middle(mesh, t, axis)) as [number, number, number]
    const layer = layerAt(layers.top, z)
    return nearestEdge(rimOf(layer), x, y)
  })
}

const middle = ({ positions, triangles }: Mesh, t: number, axis: number): number =>
  (positions[3 * triangles[3 * t]! + axis]! + positions[3 * triangles[3 * t + 1]! + axis]! + positions[3 * triangles[3 * t + 2]! + axis]!) /
  3

/** Distance from a point to the nearest side of a line; not a number where there is no line. */
function nearestEdge(rim: Float64Array, x: number, y: number): number {
  let nearest = Infinity
  for (let i = 0; i < rim.length; i += STRIDE) {
    const ax = rim[i]!
    const ay = rim[i + 1]!
    const half = rim[i + 4]!
    const bx = rim[i + 2]!
    const by = rim[i + 3]!
    // Most lines are far away: their box tells so without a root.
    const reach = nearest + half
    if ((ax < x - reach && bx < x - reach) || (ax > x + reach && bx > x + reach)) continue
    if ((ay < y - reach && by < y - reach) || (ay > y + reach && by > y + reach)) continue
    const dx = bx - ax
    const dy = by - ay
    const along = dx * dx + dy * dy
    const share = along === 0 ? 0 : Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / along))
    const off = Math.abs(Math.hypot(x - ax - share * dx, y - ay - share * dy) - half)
    if (off < nearest) nearest = off
  }
  return nearest === Infinity ? Number.NaN : nearest
}

/** On the face of the part: half a line to the right of the wall's middle, since walls run with the part on their left. */
function seamsOf({ x, y, feature, width, layerStart }: Toolpath, { top, height }: Layers): Float32Array {
  const seams: number[] = []
  for (let layer = 0; layer < layerStart.length - 1; layer++) {
    for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++) {
      if (feature[m] !== code.outerWall || (m > layerStart[layer]! && feature[m - 1] === code.outerWall)) continue
      const dx = x[m + 1]! - x[m]!
      const dy = y[m + 1]! - y[m]!
      const out = width[m]! / 2 / Math.max(1e-9, Math.hypot(dx, dy))
      seams.push(x[m]! + dy * out, y[m]! - dx * out, top[layer]! - height[layer]! / 2)
    }
  }
  return Float32Array.from(seams)
}
