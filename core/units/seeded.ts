/** Numbers in [0, 1) that are the same for the same seed wherever they are drawn (Park & Miller's minimal generator, 1988). */
export function seeded(seed: number): () => number {
  let state = (Math.abs(Math.trunc(seed)) % 2147483646) + 1
  return () => {
    state = (state * 48271) % 2147483647
    return (state - 1) / 2147483646
  }
}
