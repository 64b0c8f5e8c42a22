/** Round numbers from `low` up to `high`, about `wanted` of them. */
export function ticksBetween(low: number, high: number, wanted: number): number[] {
  const raw = (high - low) / Math.max(1, wanted)
  if (!(raw > 0)) return [low]
  const decade = 10 ** Math.floor(Math.log10(raw))
  const step = decade * ([1, 2, 5].find((factor) => factor * decade >= raw * 0.999) ?? 10)
  const first = Math.ceil(low / step - 1e-9)
  const last = Math.floor(high / step + 1e-9)
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => Number(((first + i) * step).toPrecision(12)))
}

/** Round numbers from 0 up to `end`, about `wanted` of them. */
export const roundTicks = (end: number, wanted: number): number[] => ticksBetween(0, end, wanted)
