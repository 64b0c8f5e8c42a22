import type { Constants } from '../../constants/constants'

/**
 * Arithmetic mean roughness of layered surfaces, after Pandey, Reddy & Dhande, "Improvement of surface finish by
 * staircase machining in fused deposition modeling", J. Mater. Process. Technol. 132 (2003), quoted from memory: fitted
 * there to measured surfaces, so semi-empirical.
 */

/**
 * Roughness Ra (ISO 21920-2), µm, of a facet.
 *
 * @param layerHeight mm
 * @param tilt angle between the facet and the vertical, radians: 0 for a wall, π/2 for a flat top
 * @param downward whether the facet faces down
 */
export function facetRoughness(layerHeight: number, tilt: number, downward: boolean, finish: Constants['finish']): number {
  const { stair, stairLimit } = finish
  const limit = (stairLimit * Math.PI) / 180
  const upward = tilt <= limit ? (stair * layerHeight) / Math.cos(tilt) : betweenStairAndFlat(layerHeight, tilt, limit, finish)
  return downward ? upward * finish.downward : upward
}

/** Beyond the limit, radians, roughness goes straight to the flat value. */
function betweenStairAndFlat(layerHeight: number, tilt: number, limit: number, { stair, flat }: Constants['finish']): number {
  const atLimit = (stair * layerHeight) / Math.cos(limit)
  const share = (tilt - limit) / (Math.PI / 2 - limit)
  return atLimit + share * (flat * layerHeight - atLimit)
}
