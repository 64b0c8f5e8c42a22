import type { Prediction } from '@sable/core/pipeline/predict'
import { layerAt } from '@sable/core/slicing/layers'
import type { SurfaceMap } from '@sable/core/views/surfaceMap'
import type { ScaleName } from '../../charts/palettes'

/** What the surface can be coloured by: a value for each facet, or one for each layer. */
export interface MapKind {
  readonly id: string
  readonly label: string
  readonly unit: string
  readonly digits: number
  readonly scale: ScaleName
  readonly help: string
  readonly ofFacets?: (map: SurfaceMap) => ArrayLike<number>
  readonly ofLayers?: (prediction: Prediction, map: SurfaceMap) => ArrayLike<number>
  /** The scale reaches at least to here, and no farther than there. */
  readonly least?: number
  readonly most?: number
}

export const mapKinds: readonly MapKind[] = [
  {
    id: 'roughness',
    label: 'roughness Ra',
    unit: 'µm',
    digits: 1,
    scale: 'viridis',
    help: 'From layer height and slope (Pandey 2003, semi-empirical), tops from their lines; rougher on supports, smoother where it is ironed.',
    ofFacets: ({ raUm }) => raUm,
  },
  {
    id: 'gloss',
    label: 'gloss',
    unit: '%',
    digits: 0,
    scale: 'viridis',
    help: 'Of the outer wall, layer by layer: what is laid slowly against what the hot end can melt shines. Semi-empirical.',
    ofLayers: ({ tracks }) => tracks.gloss.map((share) => 100 * share),
    least: 100,
  },
  {
    id: 'overhang',
    label: 'overhang',
    unit: '°',
    digits: 0,
    scale: 'viridis',
    help: 'How far a face leans over, from the vertical. What faces up leans nowhere.',
    ofFacets: ({ leanDeg, raUm }) => leanDeg.map((lean, t) => (Number.isNaN(raUm[t]!) ? Number.NaN : Math.max(0, -lean))),
    least: 90,
  },
  {
    id: 'detail',
    label: 'detail lost',
    unit: 'mm',
    digits: 2,
    scale: 'viridis',
    help: 'How far the model’s face lies from the nearest edge of a line along the rim: steps of layers, and what is too thin for a line.',
    ofFacets: ({ offMm }) => offMm,
    least: 0.2,
    most: 1,
  },
  {
    id: 'seam',
    label: 'seams',
    unit: '',
    digits: 0,
    scale: 'viridis',
    help: 'Where the outer wall of each layer begins and ends.',
  },
  {
    id: 'bond',
    label: 'bonding',
    unit: '%',
    digits: 0,
    scale: 'viridis',
    help: 'Strength of each layer’s bond to the one below, of the bulk. Semi-empirical.',
    ofLayers: ({ tracks }) => tracks.bond.map((share) => 100 * share),
    least: 100,
  },
  {
    id: 'sway',
    label: 'sway',
    unit: 'mm',
    digits: 3,
    scale: 'viridis',
    help: 'How far the part gives way under the nozzle at each height.',
    ofLayers: ({ tracks }) => tracks.swayMm,
    least: 0.05,
  },
]

export interface Range {
  readonly low: number
  readonly high: number
}

/** One scale for all that is compared. */
export function rangeOf(kind: MapKind, all: readonly { prediction: Prediction; drawing: SurfaceMap }[]): Range {
  let high = kind.least ?? 0
  for (const { prediction, drawing } of all) {
    const values = kind.ofFacets?.(drawing) ?? kind.ofLayers?.(prediction, drawing) ?? []
    for (let i = 0; i < values.length; i++) if (values[i]! > high) high = values[i]!
  }
  return { low: 0, high: Math.min(kind.most ?? Infinity, high) || 1 }
}

/** What is known of one place of the surface. */
export interface Reading {
  readonly value: number | undefined
  readonly layer: number
  readonly z: number
  /** Degrees from the vertical; above 0 it faces up. */
  readonly leanDeg: number
  readonly cause: string
}

export function readingAt(kind: MapKind, prediction: Prediction, map: SurfaceMap, facet: number, z: number): Reading {
  const { tracks } = prediction
  const layer = layerAt(tracks.z, z)
  const leanDeg = map.leanDeg[facet]!
  const value = kind.ofFacets?.(map)[facet] ?? kind.ofLayers?.(prediction, map)[layer]
  return {
    value: value === undefined || Number.isNaN(value) ? undefined : value,
    layer,
    z,
    leanDeg,
    cause: causeOf(kind, prediction, map, facet, layer),
  }
}

function causeOf({ id }: MapKind, { tracks, settings }: Prediction, map: SurfaceMap, facet: number, layer: number): string {
  const height = tracks.z[layer]! - (layer > 0 ? tracks.z[layer - 1]! : 0)
  const lean = map.leanDeg[facet]!
  const onBed = Number.isNaN(map.raUm[facet]!)
  if (onBed) return 'Lies on the bed and takes its face.'
  switch (id) {
    case 'roughness':
      if (lean > 85)
        return settings.ironing === 'on' ? 'A level top, smoothed by ironing.' : `A level top of ${settings.lineWidth.toFixed(2)} mm lines.`
      if (lean < 0 && settings.supports !== 'off' && -lean > settings.supportAngle) return 'Was broken off supports.'
      if (Math.abs(lean) < 0.5) return `Edges of ${height.toFixed(2)} mm layers, one over another, on an upright face.`
      return `Layers of ${height.toFixed(2)} mm stand as steps on a face that leans ${Math.abs(lean).toFixed(0)}° ${lean < 0 ? 'over' : 'back'}.`
    case 'gloss':
      return `This layer loads the melt up to ${(100 * tracks.melt[layer]!).toFixed(0)} % of what fails.`
    case 'overhang':
      return lean >= 0
        ? 'Faces up, or stands upright.'
        : `Each layer reaches ${(height * Math.tan((-lean * Math.PI) / 180)).toFixed(2)} mm beyond the one below.`
    case 'detail':
      return map.lostMm2[layer]! > 0
        ? `${map.lostMm2[layer]!.toFixed(1)} mm² of this layer are too thin for any line.`
        : 'Every line of this layer’s rim is there.'
    case 'seam':
      return `${seamsOn(map, tracks.z, layer)} closed outer walls begin on this layer.`
    case 'bond':
      return layer === 0
        ? 'The first layer holds to the bed.'
        : `The layer below took ${tracks.timeS[layer - 1]!.toFixed(1)} s and had cooled for as long.`
    default:
      return `Under the side force of the nozzle, at ${tracks.z[layer]!.toFixed(1)} mm.`
  }
}

function seamsOn({ seams }: SurfaceMap, tops: Float64Array, layer: number): number {
  let count = 0
  for (let i = 2; i < seams.length; i += 3) if (seams[i]! <= tops[layer]! && (layer === 0 || seams[i]! > tops[layer - 1]!)) count++
  return count
}

/** Mean of a facet value over the facets of each layer, weighted by area; not a number where a layer has none. */
export function meansByLayer(values: ArrayLike<number>, { corners }: SurfaceMap, tops: Float64Array): Float64Array {
  const sums = new Float64Array(tops.length)
  const areas = new Float64Array(tops.length)
  for (let t = 0; t < values.length; t++) {
    if (Number.isNaN(values[t]!)) continue
    const c = 9 * t
    const area = areaOf(corners, c)
    const layer = layerAt(tops, (corners[c + 2]! + corners[c + 5]! + corners[c + 8]!) / 3)
    sums[layer]! += area * values[t]!
    areas[layer]! += area
  }
  return sums.map((sum, layer) => (areas[layer]! > 0 ? sum / areas[layer]! : Number.NaN))
}

function areaOf(p: Float32Array, c: number): number {
  const [ux, uy, uz] = [p[c + 3]! - p[c]!, p[c + 4]! - p[c + 1]!, p[c + 5]! - p[c + 2]!]
  const [vx, vy, vz] = [p[c + 6]! - p[c]!, p[c + 7]! - p[c + 1]!, p[c + 8]! - p[c + 2]!]
  return Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx) / 2
}
