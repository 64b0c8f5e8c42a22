/** Numbers in [0, 1) that a seed tells, each stream its own (mulberry32, public domain). */
export function seededBy(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32
  }
}

/** A standard normal deviate (Box & Muller 1958). */
export const normalBy = (random: () => number): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())

/** A number of a Poisson distribution, by inversion (Knuth 1969); means beyond 50 count as 50. */
export function poissonBy(mean: number, random: () => number): number {
  const least = Math.exp(-Math.min(50, mean))
  let count = 0
  for (let product = random(); product > least; product *= random()) count++
  return count
}
