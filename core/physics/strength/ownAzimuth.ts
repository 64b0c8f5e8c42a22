import type { Contours } from '../../geometry/contours'

/** So many layers and points are enough to tell how a part lies. */
const LAYERS = 40
const POINTS = 1500
/** A plan that is not smaller than this share of its box along x and y lies along them. */
const CLEARLY = 0.9
const STEP = Math.PI / 180

/**
 * How the plan of a part lies: by how much the smallest box around it is turned from x towards y, radians from 0 up to a right
 * angle; 0 where no turned one is clearly smaller, as of what is round.
 */
export function ownAzimuth({ xy, polygonStart, groupStart }: Contours): number {
  const layers = groupStart.length - 1
  const points: number[] = []
  for (let layer = 0; layer < layers; layer += Math.max(1, Math.floor(layers / LAYERS)))
    for (let i = 2 * polygonStart[groupStart[layer]!]!; i < 2 * polygonStart[groupStart[layer + 1]!]!; i++) points.push(xy[i]!)
  const stride = 2 * Math.max(1, Math.ceil(points.length / 2 / POINTS))
  const area = (angle: number): number => {
    const [c, s] = [Math.cos(angle), Math.sin(angle)]
    let [lowU, highU, lowV, highV] = [Infinity, -Infinity, Infinity, -Infinity]
    for (let i = 0; i < points.length; i += stride) {
      const [u, v] = [c * points[i]! + s * points[i + 1]!, c * points[i + 1]! - s * points[i]!]
      if (u < lowU) lowU = u
      if (u > highU) highU = u
      if (v < lowV) lowV = v
      if (v > highV) highV = v
    }
    return (highU - lowU) * (highV - lowV)
  }
  const least = (angles: readonly number[]): number => angles.reduce((best, angle) => (area(angle) < area(best) ? angle : best))
  const rough = least(Array.from({ length: 45 }, (_, k) => 2 * k * STEP))
  const fine = least(Array.from({ length: 21 }, (_, k) => rough + (k - 10) * 0.2 * STEP))
  const turned = (fine + Math.PI / 2) % (Math.PI / 2)
  return area(turned) < CLEARLY * area(0) ? turned : 0
}
