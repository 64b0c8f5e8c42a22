/** What holds a move back. The position in this list is the code stored per move. */
export const limiters = ['asked', 'firstLayer', 'override', 'flow', 'axis', 'extruder', 'acceleration', 'corner', 'layerTime'] as const
export type Limiter = (typeof limiters)[number]

export const limiterCode = Object.fromEntries(limiters.map((limiter, i) => [limiter, i])) as { readonly [L in Limiter]: number }

/** What each says of a move, to be read after it: "a move runs as asked". */
export const limiterReasons: Readonly<Record<Limiter, string>> = {
  asked: 'runs as asked',
  firstLayer: 'slowed because it is among the first layers',
  override: 'runs as asked by an override',
  flow: 'held by what the hot end can melt',
  axis: 'held by the speed limit of an axis',
  extruder: 'held by how fast the extruder can feed',
  acceleration: 'too short to reach its speed at this acceleration',
  corner: 'held by the corners at its ends',
  layerTime: 'slowed so that the layer takes its least time',
}
