import { normalBy, seededBy } from './random'

/** A hair across the gap between two columns: how high in the band and how far it sags, as shares of it. */
export interface DrawnString {
  readonly at: number
  readonly sag: number
  readonly from: number
  readonly to: number
}
/** A hole or a split in a wall, as shares of the band. */
export interface DrawnGap {
  readonly x: number
  readonly at: number
  readonly width: number
}
export interface DrawnBand {
  readonly label: string
  readonly strings: readonly DrawnString[]
  readonly gaps: readonly DrawnGap[]
}

/** A tower as it would stand on the table, and what only its maker knows. */
export interface DrawnTower {
  readonly kind: 'temperature' | 'flow'
  readonly unit: string
  readonly bands: readonly DrawnBand[]
  /** The middle of what is clean, °C; or the flow at which it begins to fail, mm³/s. */
  readonly truth: number
}

/** Number of a Poisson distribution, by inversion (Knuth). */
function poisson(mean: number, random: () => number): number {
  const least = Math.exp(-Math.min(50, mean))
  let count = 0
  for (let product = random(); product > least; product *= random()) count++
  return count
}

const drawnString = (random: () => number): DrawnString => ({
  at: 0.1 + 0.8 * random(),
  sag: 0.02 + 0.12 * random(),
  from: 0.05 * random(),
  to: random() < 0.7 ? 1 : 0.4 + 0.5 * random(),
})
const drawnGap = (random: () => number): DrawnGap => ({ x: random(), at: 0.08 + 0.84 * random(), width: 0.02 + 0.06 * random() })

/** How quickly strings and gaps come, °C: a band of 5 °C beyond an edge shows a few. Assumed. */
const SOFTNESS = 4
const CLEAN = 0.15

/** A tower of temperatures: gaps below its window, strings above it. */
function temperatureTower(random: () => number): DrawnTower {
  const normal = (): number => normalBy(random)
  const low = 192 + 7 * normal()
  const high = low + 9 + 4 * Math.abs(normal())
  const bands = Array.from({ length: 10 }, (_, i) => 180 + 5 * i).map((celsius) => ({
    label: String(celsius),
    strings: Array.from({ length: poisson(CLEAN * Math.exp((celsius - high) / SOFTNESS), random) }, () => drawnString(random)).slice(0, 40),
    gaps: Array.from({ length: poisson(CLEAN * Math.exp((low - celsius) / SOFTNESS), random) }, () => drawnGap(random)).slice(0, 40),
  }))
  return { kind: 'temperature', unit: '°C', bands, truth: (low + high) / 2 }
}

/** A ladder of flows: holes from where the hot end begins to fail. */
function flowTower(random: () => number): DrawnTower {
  const fails = 21 * Math.exp(0.2 * normalBy(random))
  const bands = Array.from({ length: 16 }, (_, i) => 10 + 1.5 * i).map((flow) => ({
    label: flow.toFixed(1),
    strings: [],
    gaps: Array.from({ length: flow <= fails ? 0 : poisson(0.8 + 30 * Math.log(flow / fails), random) }, () => drawnGap(random)).slice(
      0,
      40,
    ),
  }))
  return { kind: 'flow', unit: 'mm³/s', bands, truth: fails }
}

/** The tower of a seed: even ones are towers of temperature, odd ones ladders of flow. */
export function drawnTower(seed: number): DrawnTower {
  const random = seededBy(seed)
  return seed % 2 === 0 ? temperatureTower(random) : flowTower(random)
}
