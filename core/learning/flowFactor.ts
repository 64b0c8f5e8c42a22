import type { LogNormal } from './logNormal'

/** A print on the scale: what was predicted and what it weighs, g. */
export interface Weighed {
  readonly predictedG: number
  readonly weighedG: number
}

/** What a scale is off by, g, and what prints of one spool scatter by, as a logarithm. Assumed. */
export const SCALE_G = 1
const SCATTER = 0.01

/** The flow factor after prints were weighed, each worth as much as its mass tells. Only the product of factor, density and width is known by it. */
export function narrowByWeight({ median, spread }: LogNormal, prints: readonly Weighed[]): LogNormal {
  let precision = 1 / spread ** 2
  let mean = Math.log(median) * precision
  for (const { predictedG, weighedG } of prints) {
    const own = 1 / ((SCALE_G / predictedG) ** 2 + SCATTER ** 2)
    precision += own
    mean += own * Math.log(weighedG / predictedG)
  }
  return { median: Math.exp(mean / precision), spread: Math.sqrt(1 / precision) }
}
