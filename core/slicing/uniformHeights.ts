/**
 * Layer tops for a first layer and equal layers above it, mm from the bed.
 *
 * The last layer is laid when the part reaches at least half-way into it, so the printed height is within half a layer of
 * the part's.
 */
export function uniformHeights(
  partHeight: number,
  firstLayerHeight: number,
  layerHeight: number,
): { top: Float64Array; height: Float64Array } {
  const above = Math.max(0, Math.floor((partHeight - firstLayerHeight) / layerHeight + 0.5 + 1e-9))
  const top = new Float64Array(above + 1)
  const height = new Float64Array(above + 1).fill(layerHeight)
  height[0] = firstLayerHeight
  for (let i = 0; i <= above; i++) top[i] = firstLayerHeight + i * layerHeight
  return { top, height }
}
