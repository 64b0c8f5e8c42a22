import type { Constants } from '../../constants/constants'

/**
 * Arithmetic mean roughness of layered surfaces, after Pandey, Reddy & Dhande, "Improvement of surface finish by
 * staircase machining in fused deposition modeling", J. Mater. Process. Technol. 132 (2003), quoted from memory: fitted
 * there to measured surfaces, so semi-empirical.
 */

/** A line as it lies beside its neighbours, mm. */
export interface LaidLine {
  readonly height: number
  readonly width: number
}

/**
 * Ra, µm, of lines side by side whose edges are round as half of their height: the mean distance of that profile from its mean.
 * Computed, not fitted: 14 µm for lines of 0.2 × 0.4 mm, 10.7 for 0.2 × 0.6.
 */
export function beadRoughness({ height, width }: LaidLine): number {
  const radius = height / 2
  const pitch = Math.max(width, height)
  const mean = (2 * radius * radius * (1 - Math.PI / 4)) / pitch
  // So far from where the edge begins to fall the profile lies over its mean.
  const over = Math.sqrt(radius * radius - (radius - mean) ** 2)
  const fallen = radius * over - (over * Math.sqrt(radius * radius - over * over) + radius * radius * Math.asin(over / radius)) / 2
  return (1000 * 2 * ((pitch - 2 * radius) * mean + 2 * (over * mean - fallen))) / pitch
}

/**
 * Roughness Ra (ISO 21920-2), µm, of a facet.
 *
 * @param tilt angle between the facet and the vertical, radians: 0 for a wall, π/2 for a flat top
 * @param downward whether the facet faces down
 */
export function facetRoughness(line: LaidLine, tilt: number, downward: boolean, finish: Constants['finish']): number {
  const { stair, stairLimit } = finish
  const limit = (stairLimit * Math.PI) / 180
  const upward = tilt <= limit ? (stair * line.height) / Math.cos(tilt) : betweenStairAndFlat(line, tilt, limit, finish)
  return downward ? upward * finish.downward : upward
}

/** Beyond the limit, radians, roughness goes straight to the flat value. */
function betweenStairAndFlat(line: LaidLine, tilt: number, limit: number, { stair, flat }: Constants['finish']): number {
  const atLimit = (stair * line.height) / Math.cos(limit)
  const share = (tilt - limit) / (Math.PI / 2 - limit)
  return atLimit + share * (flat * beadRoughness(line) - atLimit)
}
