/** A closed outline in the plane, mm: x, y pairs, counter-clockwise. */
export type Ring = readonly (readonly [number, number])[]

/** A circle, counter-clockwise. */
export function circle(cx: number, cy: number, radius: number, segments: number): Ring {
  return arc(cx, cy, radius, 0, 2 * Math.PI, segments).slice(0, -1)
}

/** Points along an arc from one angle to another, both included; radians. */
export function arc(cx: number, cy: number, radius: number, from: number, to: number, segments: number): [number, number][] {
  return Array.from({ length: segments + 1 }, (_, i) => {
    const angle = from + ((to - from) * i) / segments
    return [cx + radius * Math.cos(angle), cy + radius * Math.sin(angle)]
  })
}

/** A rectangle with rounded corners about a middle. */
export function roundedRectangle(cx: number, cy: number, width: number, depth: number, radius: number, segments = 6): Ring {
  const [x, y] = [width / 2 - radius, depth / 2 - radius]
  const corners = [
    [cx + x, cy + y],
    [cx - x, cy + y],
    [cx - x, cy - y],
    [cx + x, cy - y],
  ] as const
  return corners.flatMap(([px, py], k) => arc(px, py, radius, (k * Math.PI) / 2, ((k + 1) * Math.PI) / 2, segments))
}
