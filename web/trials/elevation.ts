import type { Mesh } from '@sable/core/mesh/mesh'

/** From where a thing is looked at: from the front, as it stands, or from above. */
export type Looked = 'front' | 'above'

/** A face of the drawing: its corners, x to the right and y upward, mm; its shade 0 to 1; and which of its sides are edges of the body. */
export interface DrawnFace {
  readonly xy: readonly [number, number, number, number, number, number]
  readonly shade: number
  readonly edges: readonly [boolean, boolean, boolean]
}

export interface Elevation {
  /** Faces that lie equally far, the farthest first: each hides what is behind it. */
  readonly sheets: readonly (readonly DrawnFace[])[]
  readonly box: { readonly left: number; readonly right: number; readonly bottom: number; readonly top: number }
}

/** Neighbouring faces that turn by less than this show no edge between them. */
const SMOOTH = Math.cos((25 * Math.PI) / 180)

/** Faces no further apart than this lie in one plane, mm. */
const SAME = 1e-4

/** A thing drawn to scale without perspective: faces that are turned to the eye, painted from back to front, with its edges. */
export function elevationOf({ positions, triangles }: Mesh, looked: Looked): Elevation {
  const count = triangles.length / 3
  const normals = new Float64Array(3 * count)
  for (let t = 0; t < count; t++) setNormal(positions, triangles, t, normals)
  const sharp = sharpEdges(triangles, normals)
  const toward = (t: number): number => (looked === 'front' ? -normals[3 * t + 1]! : normals[3 * t + 2]!)
  const depthOf = (v: number): number => (looked === 'front' ? -positions[3 * v + 1]! : positions[3 * v + 2]!)
  const [up, across] = looked === 'front' ? [2, 0] : [1, 0]
  const seen: { face: DrawnFace; depth: number }[] = []
  const box = { left: Infinity, right: -Infinity, bottom: Infinity, top: -Infinity }
  for (let t = 0; t < count; t++) {
    const facing = toward(t)
    if (facing < 1e-3) continue
    const corners = [triangles[3 * t]!, triangles[3 * t + 1]!, triangles[3 * t + 2]!]
    const xy = corners.flatMap((v) => [positions[3 * v + across]!, positions[3 * v + up]!]) as unknown as DrawnFace['xy']
    for (let k = 0; k < 6; k += 2) {
      box.left = Math.min(box.left, xy[k]!)
      box.right = Math.max(box.right, xy[k]!)
      box.bottom = Math.min(box.bottom, xy[k + 1]!)
      box.top = Math.max(box.top, xy[k + 1]!)
    }
    const depth = corners.reduce((sum, v) => sum + depthOf(v), 0) / 3
    const edges = [0, 1, 2].map((k) => sharp.has(edgeKey(corners[k]!, corners[(k + 1) % 3]!))) as unknown as DrawnFace['edges']
    seen.push({ face: { xy, shade: facing, edges }, depth })
  }
  seen.sort((a, b) => a.depth - b.depth)
  const sheets: DrawnFace[][] = []
  let last = Number.NaN
  for (const { face, depth } of seen) {
    if (Math.abs(depth - last) < SAME) sheets.at(-1)!.push(face)
    else sheets.push([face])
    last = depth
  }
  return { sheets, box }
}

function setNormal(p: Float64Array, triangles: Uint32Array, t: number, out: Float64Array): void {
  const [a, b, c] = [0, 1, 2].map((k) => 3 * triangles[3 * t + k]!) as [number, number, number]
  const u = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!] as const
  const v = [p[c]! - p[a]!, p[c + 1]! - p[a + 1]!, p[c + 2]! - p[a + 2]!] as const
  const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]] as const
  const length = Math.hypot(...n) || 1
  for (let k = 0; k < 3; k++) out[3 * t + k] = n[k]! / length
}

const edgeKey = (a: number, b: number): number => Math.min(a, b) * 2 ** 26 + Math.max(a, b)

/** Edges at which the surface turns. */
function sharpEdges(triangles: Uint32Array, normals: Float64Array): Set<number> {
  const first = new Map<number, number>()
  const sharp = new Set<number>()
  for (let t = 0; t < triangles.length / 3; t++)
    for (let k = 0; k < 3; k++) {
      const key = edgeKey(triangles[3 * t + k]!, triangles[3 * t + ((k + 1) % 3)]!)
      const other = first.get(key)
      if (other === undefined) {
        first.set(key, t)
        sharp.add(key)
        continue
      }
      const turn =
        normals[3 * t]! * normals[3 * other]! +
        normals[3 * t + 1]! * normals[3 * other + 1]! +
        normals[3 * t + 2]! * normals[3 * other + 2]!
      if (turn > SMOOTH) sharp.delete(key)
    }
  return sharp
}
