/** The volume that has to be over the limit before a part fails, mm³: a handful of lines. */
export const HANDFUL = 1.8 ** 3

/**
 * The load at which a handful of the part is over its limit, over the load that was solved for. The highest single stress says nothing: it grows
 * without end at a sharp corner as cells get smaller, while this stays.
 *
 * @param ratios of each point, how far it is to its limit under the load: it grows with the square of the load
 * @param volumes of each, mm³; nothing of what is not judged
 * @returns also the point that is the last of the handful; not a number and −1 where nothing is judged
 */
export function failsAt(
  ratios: Float64Array,
  volumes: Float64Array,
  handful = HANDFUL,
): { readonly factor: number; readonly point: number } {
  // Only the worst matter: those that reach a share of the highest, of fewer and fewer until they are a handful.
  const order = worst(ratios, volumes, handful)
  let over = 0
  for (const point of order) {
    over += volumes[point]!
    if (over >= handful) return { factor: 1 / Math.sqrt(ratios[point]!), point }
  }
  const point = order.at(-1)
  return point === undefined ? { factor: Number.NaN, point: -1 } : { factor: 1 / Math.sqrt(ratios[point]!), point }
}

/** Points from the highest ratio down, as many as hold the volume; all of them where all together do not. */
function worst(ratios: Float64Array, volumes: Float64Array, handful: number): Int32Array {
  let highest = 0
  for (let i = 0; i < ratios.length; i++) if (volumes[i]! > 0 && ratios[i]! > highest) highest = ratios[i]!
  for (let least = highest > 0 ? highest / 2 : -1; ; least = least < 1e-9 * highest ? -1 : least / 4) {
    let [count, volume] = [0, 0]
    for (let i = 0; i < ratios.length; i++)
      if (volumes[i]! > 0 && ratios[i]! >= least) {
        count++
        volume += volumes[i]!
      }
    if (volume < handful && least >= 0) continue
    const order = new Int32Array(count)
    count = 0
    for (let i = 0; i < ratios.length; i++) if (volumes[i]! > 0 && ratios[i]! >= least) order[count++] = i
    return order.sort((a, b) => ratios[b]! - ratios[a]! || a - b)
  }
}
