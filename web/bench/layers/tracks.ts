import type { Prediction } from '@sable/core/pipeline/predict'
import { code, isLaid } from '@sable/core/toolpath/toolpath'
import type { DrawnMoves } from '@sable/core/views/drawnMoves'
import { featureColours } from '../../charts/palettes'

/** A column of the strip log: one value a layer, from the bed up. */
export interface Track {
  readonly id: string
  readonly label: string
  readonly unit: string
  readonly digits: number
  readonly help: string
  /** Values are told in this many of the core's units. */
  readonly of: (prediction: Prediction, moves: DrawnMoves | undefined) => ArrayLike<number> | undefined
  /** A line that a layer should stay on one side of. */
  readonly line?: number
  /** The scale ends here, however far values go. */
  readonly most?: number
  readonly least?: number
}

export const tracks: readonly Track[] = [
  {
    id: 'time',
    label: 'Layer time',
    unit: 's',
    digits: 1,
    help: 'How long each layer takes, travels included.',
    of: ({ tracks }) => tracks.timeS,
  },
  {
    id: 'melt',
    label: 'Melt load',
    unit: '%',
    digits: 0,
    help: 'The highest flow of each layer over the flow at which the hot end fails. Semi-empirical.',
    of: ({ tracks }) => tracks.melt.map((share) => 100 * share),
    line: 100,
    least: 110,
  },
  {
    id: 'cooling',
    label: 'Cooling',
    unit: '×',
    digits: 1,
    help: 'Time that each layer takes over the time that it needs to bear the next. Under 1 it is laid on while soft. Semi-empirical.',
    of: ({ tracks }) => tracks.cooling,
    line: 1,
    most: 4,
  },
  {
    id: 'bond',
    label: 'Bonding',
    unit: '%',
    digits: 0,
    help: 'Strength of each layer’s bond to the one below, of the bulk. Semi-empirical.',
    of: ({ tracks }) => tracks.bond.map((share) => 100 * share),
    least: 100,
  },
  {
    id: 'gloss',
    label: 'Gloss',
    unit: '%',
    digits: 0,
    help: 'Of the outer wall, matte to glossy. Semi-empirical.',
    of: ({ tracks }) => tracks.gloss.map((share) => 100 * share),
    least: 100,
  },
  {
    id: 'sway',
    label: 'Sway',
    unit: 'mm',
    digits: 3,
    help: 'How far the part gives way under the nozzle at each height.',
    of: ({ tracks }) => tracks.swayMm,
    // What is less than this is nothing to a nozzle.
    least: 0.05,
  },
  {
    id: 'air',
    label: 'Over air',
    unit: 'mm',
    digits: 0,
    help: 'Line of each layer with half or more of it over air.',
    of: ({ tracks }) => tracks.overAirMm,
  },
  {
    id: 'pace',
    label: 'Real of asked',
    unit: '%',
    digits: 0,
    help: 'Mean speed of what each layer lays over the speed that a program asks for.',
    of: (_, moves) => moves && realOfAsked(moves),
    least: 100,
  },
]

export const usualTracks = ['time', 'melt', 'cooling', 'bond', 'sway'] as const

/** What is done in a layer, for its time drawn by feature. */
export const timeGroups = [
  { id: 'walls', label: 'walls', features: ['outerWall', 'innerWall', 'thin'], colour: featureColours.innerWall },
  { id: 'topBottom', label: 'tops, bottoms', features: ['topBottom', 'bridge', 'ironing'], colour: featureColours.topBottom },
  { id: 'infill', label: 'infill', features: ['infill'], colour: featureColours.infill },
  { id: 'props', label: 'props, foot', features: ['support', 'supportTop', 'foot'], colour: featureColours.support },
  { id: 'travel', label: 'travel', features: ['travel', 'retract', 'pushBack', 'wipe', 'coast'], colour: '#b28cc9' },
] as const

/** Seconds of each group, one array a group, one entry a layer. */
export function timeByGroup({ feature, duration, layerStart }: DrawnMoves): Float64Array[] {
  const groupOf = new Uint8Array(32)
  for (const [g, { features }] of timeGroups.entries()) for (const name of features) groupOf[code[name]] = g
  const sums = timeGroups.map(() => new Float64Array(layerStart.length - 1))
  for (let layer = 0; layer < layerStart.length - 1; layer++)
    for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++) sums[groupOf[feature[m]!]!]![layer]! += duration[m]!
  return sums
}

/** Mean speed over asked speed of what is laid, per cent for each layer. */
export function realOfAsked({ x, y, feature, asked, duration, layerStart }: DrawnMoves): Float64Array {
  return Float64Array.from({ length: layerStart.length - 1 }, (_, layer) => {
    let wanted = 0
    let taken = 0
    for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++) {
      if (!isLaid(feature[m]!) || !(asked[m]! > 0)) continue
      wanted += Math.hypot(x[m + 1]! - x[m]!, y[m + 1]! - y[m]!) / asked[m]!
      taken += duration[m]!
    }
    return taken > 0 ? (100 * wanted) / taken : Number.NaN
  })
}

/** Where the scale of a track ends, for all that is compared: a round number above its highest value. */
export function scaleEnd(track: Track, all: readonly ArrayLike<number>[]): number {
  let highest = track.least ?? 0
  for (const values of all)
    for (let i = 0; i < values.length; i++) if (values[i]! > highest && Number.isFinite(values[i])) highest = values[i]!
  const end = Math.min(track.most ?? Infinity, highest)
  if (end <= 0) return 1
  const decade = 10 ** Math.floor(Math.log10(end))
  const step = decade / (end < 2 * decade ? 10 : 2)
  return Math.ceil(end / step - 1e-9) * step
}

/** Places in a print that are worth a look. */
export interface Jump {
  readonly id: string
  readonly label: string
  readonly z: number
}

/** Of one candidate, or of several compared: the worst of the first, and every risk that has a height. */
export function jumpsOf(all: readonly Pick<Prediction, 'tracks' | 'checks'>[]): Jump[] {
  const [first] = all
  if (!first) return []
  const { tracks } = first
  const worst = (id: string, label: string, values: ArrayLike<number>, isWorse: (a: number, b: number) => boolean): Jump[] => {
    let at = -1
    for (let i = 0; i < values.length; i++) if (Number.isFinite(values[i]) && (at < 0 || isWorse(values[i]!, values[at]!))) at = i
    return at < 0 ? [] : [{ id, label, z: tracks.z[at]! }]
  }
  // The first layer lies on the bed and bonds to nothing.
  const bonds = tracks.bond.map((bond, layer) => (layer === 0 ? Number.NaN : bond))
  return [
    ...worst('slowest', 'Slowest layer', tracks.timeS, (a, b) => a > b),
    ...worst('cooling', 'Worst cooled', tracks.cooling, (a, b) => a < b),
    ...worst('melt', 'Highest melt load', tracks.melt, (a, b) => a > b),
    ...worst('bond', 'Worst bonded', bonds, (a, b) => a < b),
    ...all.flatMap(({ checks }, k) =>
      checks.flatMap(({ id, evidence, atZMm }) => (atZMm === undefined ? [] : [{ id: `check ${k} ${id}`, label: evidence, z: atZMm }])),
    ),
  ]
}

/** The next place above a height; the lowest one again after the highest. */
export function nextAbove(jumps: readonly Jump[], z: number): Jump | undefined {
  const byHeight = [...jumps].sort((a, b) => a.z - b.z)
  return byHeight.find((jump) => jump.z > z + 1e-6) ?? byHeight[0]
}
