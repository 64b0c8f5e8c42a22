import { type Contours, ContoursBuilder, groupArea, joinContours } from '../geometry/contours'
import type { PolygonKernel } from '../geometry/polygon'
import { RimCheck } from '../geometry/rimCheck'
import { Rims, thin } from '../geometry/rims'
import { type Edges, findEdges } from '../mesh/edges'
import type { Mesh } from '../mesh/mesh'
import { doAlone } from '../work/doAlone'
import { onEach, type Task, type Work } from '../work/work'
import { blocksOf } from './blocks'
import { cutTriangles } from './cutTriangles'
import { type HeightSettings, layerHeights } from './layerHeights'
import type { Layers } from './layers'
import { linkSegments, SegmentIndex } from './linkSegments'

/** Contours are thinned to this, mm: dense meshes carry several times more points than a nozzle can draw. */
export const CONTOUR_TOLERANCE = 0.0125
/** Gaps wider than this, mm, are closed with a straight line and reported. */
const REPORTED_GAP = 0.05
/** A layer whose bodies overlap by more than this share of its area is reported as crossing itself. */
const REPORTED_OVERLAP = 1e-3

/**
 * Cuts a mesh that stands on z = 0 into layers, each at its middle. Bodies that touch or overlap are
 * united; open places are closed with straight lines and reported.
 *
 * @param edges of the mesh as it was read: placing it moves them along
 */
export function* sliceWork(mesh: Mesh, edges: Edges, settingsAt: (z: number) => HeightSettings): Work<Layers> {
  const { top, height } = layerHeights(mesh, settingsAt)
  const middles = top.map((z, i) => z - height[i]! / 2)
  const { count, ofTriangle } = edges
  const input = { mesh, edges: { count, ofTriangle } }
  const slices = yield* onEach(
    sliceBlock,
    blocksOf(middles.length).map(({ from, to }) => ({ ...input, middles: middles.slice(from, to) })),
    { stage: 'layers' },
  )
  const gaps = slices.flatMap((slice) => slice.gaps)
  const overlaps = slices.flatMap((slice) => slice.overlaps)
  const notes: string[] = []
  if (gaps.length > 0) notes.push(`Open contours were closed with straight lines ${onLayers(gaps)}.`)
  if (overlaps.length > 0) notes.push(`The surface crosses or overlaps itself ${onLayers(overlaps)}; what overlaps was united.`)
  return { top, height, outlines: joinContours(slices.map(({ outlines }) => outlines)), notes }
}

/** Slices in this thread alone. */
export const slice = (mesh: Mesh, settingsAt: (z: number) => HeightSettings, kernel: PolygonKernel): Layers =>
  doAlone(sliceWork(mesh, findEdges(mesh), settingsAt), kernel)

interface SliceInput {
  readonly mesh: Mesh
  readonly edges: Pick<Edges, 'count' | 'ofTriangle'>
  /** Ascending heights at which to cut, mm. */
  readonly middles: Float64Array
}

interface Slices {
  readonly outlines: Contours
  /** Heights at which contours were open, and at which bodies overlap, mm. */
  readonly gaps: readonly number[]
  readonly overlaps: readonly number[]
}

/** Cuts a block of layers. */
export const sliceBlock: Task<SliceInput, Slices> = {
  name: 'sliceBlock',
  run: ({ mesh, edges, middles }, { kernel, tick }) => {
    const segments = cutTriangles(mesh, edges, middles)
    const index = new SegmentIndex(segments)
    const used = new Uint8Array(segments.fromEdge.length)
    const out = new ContoursBuilder()
    const scratch = { raw: new Rims(), thinned: new Rims(), check: new RimCheck() }
    const gaps: number[] = []
    const overlaps: number[] = []
    for (let layer = 0; layer < middles.length; layer++) {
      const raw = new ContoursBuilder()
      const gap = linkSegments(segments, layer, index, used, raw)
      raw.endGroup()
      const overlap = uniteLayer(raw.finish(), kernel, scratch, out)
      if (gap > REPORTED_GAP) gaps.push(middles[layer]!)
      if (overlap > REPORTED_OVERLAP) overlaps.push(middles[layer]!)
      tick((layer + 1) / middles.length)
    }
    return { outlines: out.finish(), gaps, overlaps }
  },
}

/** Thins and unites the contours of one layer. Returns the share of its area that was there more than once. */
function uniteLayer(contours: Contours, kernel: PolygonKernel, { raw, thinned, check }: Scratch, out: ContoursBuilder): number {
  thin(raw.read(contours, 0), CONTOUR_TOLERANCE, thinned)
  const isUnited = check.boundSolid(thinned)
  if (isUnited) thinned.write(out)
  const united = isUnited
    ? 0
    : kernel.run((ops) => {
        const region = ops.unite(ops.simplify(ops.read(contours, 0), CONTOUR_TOLERANCE))
        ops.write(region, out)
        return ops.area(region)
      })
  out.endGroup()
  // Overlapping bodies are counted twice in the signed sum; thinning moves it too, but by less than is allowed for.
  return united > 0 ? Math.abs(groupArea(contours, 0) - united) / united - thinningAllowance(contours.xy.length / 2, united) : 0
}

interface Scratch {
  readonly raw: Rims
  readonly thinned: Rims
  readonly check: RimCheck
}

const thinningAllowance = (points: number, area: number): number =>
  Math.min(0.05, (points * CONTOUR_TOLERANCE * CONTOUR_TOLERANCE) / area + (4 * CONTOUR_TOLERANCE) / Math.sqrt(area))

function onLayers(heights: readonly number[]): string {
  const low = Math.min(...heights).toFixed(2)
  const high = Math.max(...heights).toFixed(2)
  return heights.length === 1 ? `on one layer, at z = ${low} mm` : `on ${heights.length} layers between z = ${low} and ${high} mm`
}
