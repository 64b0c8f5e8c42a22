/** Round numbers from 0 up to `end`, about `wanted` of them. */
export function roundTicks(end: number, wanted: number): number[] {
  const raw = end / Math.max(1, wanted)
  const decade = 10 ** Math.floor(Math.log10(raw))
  const step = decade * ([1, 2, 5].find((factor) => factor * decade >= raw * 0.999) ?? 10)
  return Array.from({ length: Math.floor(end / step + 1e-9) + 1 }, (_, i) => Number((i * step).toPrecision(12)))
}
