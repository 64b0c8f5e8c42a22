/** What holds a move back. The position in this list is the code stored per move. */
export const limiters = ['asked', 'firstLayer', 'exception', 'flow', 'axis', 'extruder', 'acceleration', 'corner', 'layerTime'] as const
export type Limiter = (typeof limiters)[number]

export const limiterCode = Object.fromEntries(limiters.map((limiter, i) => [limiter, i])) as { readonly [L in Limiter]: number }
