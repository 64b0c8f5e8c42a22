import { type Contours, emptyContours, groupArea } from '../geometry/contours'
import { fillLines } from '../geometry/fillLines'
import { NearIndex } from '../geometry/nearIndex'
import { oneGroup } from '../geometry/oneGroup'
import type { PolygonKernel } from '../geometry/polygon'
import { stackGroups } from '../geometry/stackGroups'
import { type Layers, layerCount } from '../slicing/layers'
import type { SupportSettings, Supports } from './supports'

/** A branch in one layer. */
interface Branch {
  x: number
  y: number
  radius: number
  /** Height of plastic above it, mm: what it has grown from. */
  length: number
}

/** Tips stand this far apart, mm; an overhang between them bridges. Semi-empirical. */
const TIP_SPACING = 3
/** Corners of a branch's section. */
const CORNERS = 12

/**
 * Branches from tips under the overhangs down to the bed or, where allowed, to the part: every branch leans towards its
 * nearest neighbour and away from the part, never by more than the largest lean, thickens from tip to trunk, and merges
 * with what it meets.
 */
export function growBranches(
  layers: Layers,
  over: readonly Contours[],
  settings: SupportSettings,
  kernel: PolygonKernel,
  onLayer: (done: number) => void = () => {},
): Supports {
  const count = layerCount(layers)
  const lean = Math.tan((settings.branchLean * Math.PI) / 180)
  const tip = settings.tipDiameter / 2
  const trunk = Math.max(tip, settings.trunkDiameter / 2)
  const height = layers.top[count - 1]!
  const sections: Contours[] = new Array(count)
  let branches: Branch[] = []
  let unheldMm2 = 0
  for (let layer = count - 1; layer >= 0; layer--) {
    const hanging = over[layer + 1 + settings.supportGapLayers]
    if (hanging) {
      for (const [x, y] of tipsUnder(hanging, settings.lineWidth)) branches.push({ x, y, radius: tip, length: 0 })
    }
    if (branches.length > 0) {
      const part = new NearIndex(layers.outlines, layer, 2 * settings.trunkDiameter + settings.supportGap + 2)
      const step = layers.height[layer]! * lean
      branches = branches.flatMap((branch) => {
        const clear = steerClear(branch, part, settings.supportGap, step)
        if (clear) return [clear]
        // Down on the part: it ends here, and where that is not allowed what it held stays unheld.
        if (settings.supportFrom === 'bed') unheldMm2 += Math.PI * branch.radius * branch.radius
        return []
      })
      branches = merge(attract(branches, step, part, settings.supportGap), trunk, step)
    }
    sections[layer] = sectionOf(branches, kernel)
    for (const branch of branches) {
      branch.length += layers.height[layer]!
      branch.radius = Math.max(branch.radius, Math.min(trunk, tip + ((trunk - tip) * branch.length) / height))
    }
    onLayer(count - layer)
  }
  return {
    body: stackGroups(settings.supportFrom === 'bed' ? standingOnBed(sections, kernel) : sections),
    top: emptyContours(count),
    unheldMm2,
  }
}

/** Evenly spread points under an overhang, at least one for each of its pieces that is worth one. */
function tipsUnder(hanging: Contours, lineWidth: number): [number, number][] {
  if (groupArea(hanging, 0) < lineWidth * lineWidth) return []
  const lines = fillLines(hanging, 0, TIP_SPACING, 0, lineWidth)
  const tips: [number, number][] = []
  for (let i = 0; i < lines.count; i++) {
    const length = lines.end[i]! - lines.start[i]!
    const pieces = Math.max(1, Math.round(length / TIP_SPACING))
    for (let k = 0; k < pieces; k++) tips.push([lines.start[i]! + ((k + 0.5) * length) / pieces, (lines.row[i]! + 0.5) * TIP_SPACING])
  }
  return tips
}

/** Moves a branch away from the part by no more than `step`; undefined where there is no way out. */
function steerClear(branch: Branch, part: NearIndex, gap: number, step: number): Branch | undefined {
  const near = part.nearest(branch.x, branch.y)
  if (!near) return part.holds(branch.x, branch.y) ? undefined : branch
  const needed = branch.radius + gap - near.distance
  if (needed <= 0) return branch
  const length = Math.hypot(near.awayX, near.awayY)
  if (length === 0) return undefined
  const move = Math.min(step, needed)
  // Not yet clear after this step is fine as long as it stands outside: it goes on moving away below.
  if (near.distance + move < branch.radius * 0.5) return undefined
  return { ...branch, x: branch.x + (near.awayX / length) * move, y: branch.y + (near.awayY / length) * move }
}

/** Every branch leans towards its nearest neighbour as far as the part lets it. */
function attract(branches: readonly Branch[], step: number, part: NearIndex, gap: number): Branch[] {
  return branches.map((branch) => {
    let nearest: Branch | undefined
    let least = Infinity
    for (const other of branches) {
      if (other === branch) continue
      const squared = (other.x - branch.x) ** 2 + (other.y - branch.y) ** 2
      if (squared < least) {
        least = squared
        nearest = other
      }
    }
    if (!nearest || least === 0) return branch
    const distance = Math.sqrt(least)
    const move = Math.min(step, distance / 2)
    const x = branch.x + ((nearest.x - branch.x) / distance) * move
    const y = branch.y + ((nearest.y - branch.y) / distance) * move
    const near = part.nearest(x, y)
    const free = near ? near.distance >= branch.radius + gap : !part.holds(x, y)
    return free ? { ...branch, x, y } : branch
  })
}

/**
 * Two branches become one with the area of both, not thicker than a trunk, once that one bears both: neither may stand out
 * over it by more than `step`.
 */
function merge(branches: readonly Branch[], trunk: number, step: number): Branch[] {
  const merged: Branch[] = []
  for (const branch of branches) {
    const home = merged.findIndex((other) => union(other, branch, trunk, step) !== undefined)
    if (home < 0) merged.push(branch)
    else merged[home] = union(merged[home]!, branch, trunk, step) as Branch
  }
  return merged
}

function union(one: Branch, other: Branch, trunk: number, step: number): Branch | undefined {
  const distance = Math.hypot(one.x - other.x, one.y - other.y)
  const largest = Math.max(one.radius, other.radius)
  if (distance > 2 * largest) return undefined
  const [a, b] = [one.radius ** 2, other.radius ** 2]
  const radius = Math.max(largest, Math.min(trunk, Math.sqrt(a + b)))
  // The middle of both, weighted by their areas, is nearer to the thicker one.
  const farthest = Math.max((distance * b) / (a + b) + one.radius, (distance * a) / (a + b) + other.radius)
  if (farthest > radius + step) return undefined
  return {
    x: (one.x * a + other.x * b) / (a + b),
    y: (one.y * a + other.y * b) / (a + b),
    radius,
    length: Math.max(one.length, other.length),
  }
}

const sectionOf = (branches: readonly Branch[], kernel: PolygonKernel): Contours =>
  oneGroup(kernel, (ops) =>
    branches.length === 0
      ? ops.empty()
      : ops.unite(
          ops.gather(
            branches.map(({ x, y, radius }) =>
              ops.polygon(
                Array.from({ length: 2 * CORNERS }, (_, i) => {
                  const turn = (2 * Math.PI * (i >> 1)) / CORNERS
                  return i % 2 === 0 ? x + radius * Math.cos(turn) : y + radius * Math.sin(turn)
                }),
              ),
            ),
          ),
        ),
  )

/** Drops every piece that no piece of the layer below bears. */
function standingOnBed(sections: readonly Contours[], kernel: PolygonKernel): Contours[] {
  const kept: Contours[] = []
  for (const [layer, section] of sections.entries()) {
    const below = kept[layer - 1]
    kept.push(below ? oneGroup(kernel, (ops) => piecesTouching(ops, section, below)) : section)
  }
  return kept

  function piecesTouching(ops: Parameters<Parameters<PolygonKernel['run']>[0]>[0], section: Contours, below: Contours) {
    const base = ops.read(below, 0)
    const pieces = Array.from({ length: section.polygonStart.length - 1 }, (_, p) =>
      ops.polygon(section.xy.subarray(2 * section.polygonStart[p]!, 2 * section.polygonStart[p + 1]!)),
    )
    return ops.gather(pieces.filter((piece) => !ops.isEmpty(ops.intersect(piece, base))))
  }
}
