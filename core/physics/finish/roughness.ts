/**
 * Arithmetic mean roughness of layered surfaces, after Pandey, Reddy & Dhande, "Improvement of surface finish by
 * staircase machining in fused deposition modeling", J. Mater. Process. Technol. 132 (2003), quoted from memory: fitted
 * there to measured surfaces, so semi-empirical.
 */

/** µm of Ra per mm of layer height on a vertical surface; the fit gives 69.28 to 72.36, its middle is used. */
export const STAIR_COEFFICIENT = (69.28 + 72.36) / 2
/** µm of Ra per mm of layer height on a surface that lies flat. */
export const FLAT_COEFFICIENT = 117.6
/** Downward faces come out this much rougher than upward ones. */
export const DOWNWARD_FACTOR = 1.2
/** Angle to the vertical, radians, up to which the stair formula holds; beyond it roughness goes straight to the flat value. */
export const STAIR_LIMIT = (70 * Math.PI) / 180

/**
 * Roughness Ra (ISO 21920-2), µm, of a facet.
 *
 * @param layerHeight mm
 * @param tilt angle between the facet and the vertical, radians: 0 for a wall, π/2 for a flat top
 * @param downward whether the facet faces down
 */
export function facetRoughness(layerHeight: number, tilt: number, downward: boolean): number {
  const upward = tilt <= STAIR_LIMIT ? (STAIR_COEFFICIENT * layerHeight) / Math.cos(tilt) : betweenStairAndFlat(layerHeight, tilt)
  return downward ? upward * DOWNWARD_FACTOR : upward
}

function betweenStairAndFlat(layerHeight: number, tilt: number): number {
  const atLimit = (STAIR_COEFFICIENT * layerHeight) / Math.cos(STAIR_LIMIT)
  const share = (tilt - STAIR_LIMIT) / (Math.PI / 2 - STAIR_LIMIT)
  return atLimit + share * (FLAT_COEFFICIENT * layerHeight - atLimit)
}
