/** Frequency of a frame, Hz, from the waves behind a corner: how fast it was passed, mm/s, and the length of `waves` of them, mm. */
export const frequencyOf = (speed: number, waves: number, length: number): number => (speed * waves) / length

/** Damping as a share of the critical, from the first wave's height over that of the wave `n` later (logarithmic decrement). */
export const dampingOf = (first: number, later: number, n: number): number => Math.log(first / later) / (2 * Math.PI * n)
