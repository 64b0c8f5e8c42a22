import type { Constants } from '../../constants/constants'
import type { Material } from '../../shelf/material'

/**
 * Flow at the wall at which a filament turns from glossy to matte, mm³/s: the filament's own, whatever the hot end could melt,
 * higher for what flows easily and where it is hotter. Semi-empirical.
 */
export const dullsAt = (
  { flowFactor, nozzleRange: [low, high] }: Pick<Material, 'flowFactor' | 'nozzleRange'>,
  celsius: number,
  { glossTurn, glossHeat }: Constants['finish'],
): number => glossTurn * flowFactor * Math.exp((glossHeat * (celsius - (low + high) / 2)) / 10)

/** Gloss of a wall, 0 matte to 1 glossy, from its flow over that at which the filament turns: slow walls shine. Semi-empirical. */
export function glossAt(share: number, { glossSteepness }: Constants['finish']): number {
  const squared = share * share
  // A power costs more than all the rest of the layer's sums; the fourth is two products.
  return 1 / (1 + (glossSteepness === 4 ? squared * squared : squared ** (glossSteepness / 2)))
}

export interface GlossFigures {
  /** Over the length of the outer wall, 0–1. */
  readonly mean: number
  /** Between the twentieth that shines least and the one that shines most: the wider, the more bands show. */
  readonly spread: number
  /** Height at which gloss changes most from one layer to the next, mm, and by how much. */
  readonly bandAtZMm: number
  readonly band: number
}

const BINS = 200

/** Collects gloss layer by layer. */
export class GlossSums {
  private readonly bins = new Float64Array(BINS + 1)
  private total = 0
  private weighted = 0
  private layerLength = 0
  private layerWeighted = 0
  private lastMean = Number.NaN
  private band = 0
  private bandAtZ = 0

  constructor(private readonly finishing: Constants['finish']) {}

  /** @param share flow over that at which the filament turns */
  add(share: number, length: number): void {
    const gloss = glossAt(share, this.finishing)
    this.bins[Math.round(gloss * BINS)]! += length
    this.layerLength += length
    this.layerWeighted += gloss * length
  }

  /** @returns the mean of the layer; not a number where it has no outer wall */
  endLayer(z: number): number {
    if (this.layerLength === 0) return Number.NaN
    const mean = this.layerWeighted / this.layerLength
    if (Math.abs(mean - this.lastMean) > this.band) {
      this.band = Math.abs(mean - this.lastMean)
      this.bandAtZ = z
    }
    this.lastMean = mean
    this.total += this.layerLength
    this.weighted += this.layerWeighted
    this.layerLength = this.layerWeighted = 0
    return mean
  }

  finish(): GlossFigures {
    const at = (share: number): number => {
      let sum = 0
      for (let i = 0; i <= BINS; i++) {
        sum += this.bins[i]!
        if (sum >= share * this.total) return i / BINS
      }
      return 1
    }
    return {
      mean: this.total > 0 ? this.weighted / this.total : 0,
      spread: this.total > 0 ? at(0.95) - at(0.05) : 0,
      bandAtZMm: this.bandAtZ,
      band: this.band,
    }
  }
}
