/** Section modulus of a rectangular bar, mm³, that is bent across its height: b·h²/6. */
export const sectionModulus = (width: number, height: number): number => (width * height ** 2) / 6

/** Stress at which a bar broke that was held at one end, MPa: load, N, at an arm, mm, over its section modulus, mm³. */
export const breakingStress = (loadN: number, arm: number, modulus: number): number => (loadN * arm) / modulus

/** Weight of a mass, N/kg. */
export const GRAVITY = 9.81

/** Scatter of bars and what those of one print have in common, as logarithms. Common for printed bars, assumed. */
export const LYING = { noise: 0.1, batch: 0.05 } as const
export const STANDING = { noise: 0.15, batch: 0.05 } as const
