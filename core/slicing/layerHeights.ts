import { areaNormal, measureBox } from '../mesh/measure'
import { type Mesh, triangleCount } from '../mesh/mesh'

export interface HeightSettings {
  readonly layerHeight: number
  readonly firstLayerHeight: number
  readonly layerMode: 'uniform' | 'followShape'
  /** How far a step may stand off the true surface, mm. */
  readonly largestCusp: number
  readonly leastLayerHeight: number
  readonly greatestLayerHeight: number
  readonly layerHeightStep: number
}

export interface Heights {
  /** Top of each layer above the bed, mm. */
  readonly top: Float64Array
  /** Thickness of each layer, mm. */
  readonly height: Float64Array
}

/**
 * Heights of a part's layers from the bed up. The last layer is laid when the part reaches at least half-way into it, so
 * the printed height is within half a layer of the part's.
 *
 * @param settingsAt settings in force at a height; overrides by height make them differ
 */
export function layerHeights(mesh: Mesh, settingsAt: (z: number) => HeightSettings): Heights {
  const partHeight = measureBox(mesh).max[2]
  let slopes: SlopeProfile | undefined
  const tops = [settingsAt(0).firstLayerHeight]
  const heights = [settingsAt(0).firstLayerHeight]
  // Counted in layers since the last change of height, so that sums of many equal heights do not drift.
  let from = tops[0]!
  let equal = 0
  for (;;) {
    const z = tops[tops.length - 1]!
    const settings = settingsAt(z + 1e-6)
    let height = settings.layerHeight
    if (settings.layerMode === 'followShape') {
      slopes ??= new SlopeProfile(mesh, partHeight)
      height = followingHeight(slopes, z, settings)
    }
    if (height !== heights[heights.length - 1]) {
      from = z
      equal = 0
    }
    if (partHeight - z < height / 2 - 1e-9) break
    equal++
    tops.push(from + equal * height)
    heights.push(height)
  }
  return { top: Float64Array.from(tops), height: Float64Array.from(heights) }
}

/**
 * Greatest height at which no step stands farther off the surface than the cusp allows: c = h·|n_z| (Dolenc & Mäkelä 1994,
 * from memory). Level faces need no thin layers: they lie on a layer's rim whatever its height, within half of it.
 */
function followingHeight(slopes: SlopeProfile, z: number, settings: HeightSettings): number {
  const { largestCusp, leastLayerHeight, greatestLayerHeight, layerHeightStep } = settings
  const steps = Math.max(0, Math.floor((greatestLayerHeight - leastLayerHeight) / layerHeightStep + 1e-9))
  for (let k = steps; k > 0; k--) {
    const height = Math.round((leastLayerHeight + k * layerHeightStep) * 1e6) / 1e6
    if (height * slopes.steepest(z, z + height) <= largestCusp) return height
  }
  return leastLayerHeight
}

/** Faces nearer to level than this, as |n_z|, are level. */
const LEVEL = 0.9995
const BIN = 0.02

/** Largest |n_z| of the surface by height, level faces left out. */
class SlopeProfile {
  private readonly bins: Float32Array

  constructor(mesh: Mesh, height: number) {
    this.bins = new Float32Array(Math.ceil(height / BIN) + 1)
    const normal = new Float64Array(3)
    for (let t = 0; t < triangleCount(mesh); t++) {
      const twice = areaNormal(mesh, t, normal)
      const slope = twice > 0 ? Math.abs(normal[2]!) / twice : 0
      if (slope === 0 || slope > LEVEL) continue
      let low = Infinity
      let high = -Infinity
      for (let k = 0; k < 3; k++) {
        const z = mesh.positions[3 * mesh.triangles[3 * t + k]! + 2]!
        low = Math.min(low, z)
        high = Math.max(high, z)
      }
      const to = Math.min(this.bins.length - 1, Math.floor(high / BIN))
      for (let b = Math.max(0, Math.floor(low / BIN)); b <= to; b++) if (slope > this.bins[b]!) this.bins[b] = slope
    }
  }

  steepest(from: number, to: number): number {
    let most = 0
    const end = Math.min(this.bins.length - 1, Math.ceil(to / BIN) - 1)
    for (let b = Math.max(0, Math.floor(from / BIN)); b <= end; b++) most = Math.max(most, this.bins[b]!)
    return most
  }
}
