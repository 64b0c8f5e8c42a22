import { InputError } from '../units/errors'
import { shared } from '../units/shared'
import { dropCollapsed, keepTriangles } from './dropCollapsed'
import type { Edges } from './edges'
import { fillFlatHoles } from './fillHoles'
import { count, type Linked, linkEdges } from './linked'
import { measureArea, measureSize, measureVolume } from './measure'
import { type Mesh, type TriangleSoup, triangleCount } from './mesh'
import { findNesting } from './nesting'
import { findShells, type Shells } from './shells'
import { weld } from './weld'
import { weldBorder } from './weldBorder'

/** What is known about a mesh, and what was done to it. Lengths mm. */
export interface MeshReport {
  readonly triangles: number
  readonly volumeMm3: number
  readonly areaMm2: number
  readonly sizeMm: readonly [number, number, number]
  /** Every edge is shared by exactly two triangles that agree on which side is outside. */
  readonly watertight: boolean
  readonly shells: number
  readonly openEdges: number
  /** Edges shared by more than two triangles. */
  readonly crowdedEdges: number
  /** Plain sentences: what was mended, and what could not be. */
  readonly notes: readonly string[]
}

/** A whole part smaller than this, mm, is most likely in another unit. */
const SUSPICIOUSLY_SMALL = 2

/**
 * Makes a clean mesh from a file's triangles. Mends what can be mended without guessing (corners a hair apart, repeated
 * and collapsed triangles, triangles turned inside out, loose specks, flat holes) and lists the rest.
 *
 * @throws InputError when it falls into more than `mostShells` bodies
 */
export function repair(
  soup: TriangleSoup,
  { name = 'model', mostShells = Infinity }: { readonly name?: string; readonly mostShells?: number } = {},
): { mesh: Mesh; edges: Edges; report: MeshReport } {
  const notes = [...soup.notes]
  let linked = dropCollapsed(weld(soup.corners), notes)
  if (hasOpenEdge(linked.edges)) {
    const joined = weldBorder(linked.mesh, linked.edges)
    if (joined.joined > 0) {
      notes.push(`${count(joined.joined, 'corner')} on open edges lay a hair apart and were joined.`)
      linked = dropCollapsed(joined.mesh, notes)
    }
  }
  let shells = findShells(linked.mesh, linked.edges)
  const specks = dropSpecks(linked.mesh, linked.edges, shells)
  if (specks.dropped > 0) {
    notes.push(`${count(specks.dropped, 'loose triangle')} that enclosed nothing ${specks.dropped === 1 ? 'was' : 'were'} left out.`)
    linked = linkEdges(specks.mesh)
    shells = findShells(linked.mesh, linked.edges)
  }
  if (shells.count > mostShells)
    throw new InputError(
      'model-in-pieces',
      `The model falls into ${count(shells.count, 'piece')} that do not hang together; ${mostShells.toLocaleString('en')} is the most that can be worked on.`,
      name,
      'Its triangles share no corners, or it is no surface: export the solid again.',
    )
  const { mesh: outward, volumeMm3 } = turnOutward(linked, shells, notes)
  if (outward !== linked.mesh) linked = linkEdges(outward)
  if (hasOpenEdge(linked.edges)) {
    const filled = fillFlatHoles(linked.mesh, linked.edges)
    if (filled.holes > 0) {
      notes.push(`${count(filled.holes, 'flat hole')} ${filled.holes === 1 ? 'was' : 'were'} closed.`)
      linked = linkEdges(filled.mesh)
    }
  }
  const { mesh, edges } = linked
  const size = measureSize(mesh)
  if (Math.max(...size) < SUSPICIOUSLY_SMALL)
    notes.push(`The part is only ${Math.max(...size).toPrecision(2)} mm across; it may have been saved in metres or inches. Set its scale.`)
  const openEdges = countEdges(edges, (uses) => uses === 1)
  const crowdedEdges = countEdges(edges, (uses) => uses > 2)
  if (openEdges > 0) {
    notes.push(
      `The surface is open along ${count(openEdges, 'edge')} (${placeOfOpenEdges(mesh, edges)}). Slices are closed with straight lines there; mend the model if that is not what you mean.`,
    )
  }
  if (crowdedEdges > 0)
    notes.push(
      `${count(crowdedEdges, 'edge')} ${crowdedEdges === 1 ? 'is' : 'are'} shared by more than two triangles; bodies that touch there are united.`,
    )
  return {
    // Placed or turned, a part keeps these, and other threads see them.
    mesh: { positions: mesh.positions, triangles: shared(mesh.triangles) },
    edges: { ...edges, ofTriangle: shared(edges.ofTriangle) },
    report: {
      triangles: triangleCount(mesh),
      // Closing holes adds what nesting knows nothing of.
      volumeMm3: mesh === outward ? volumeMm3 : volumeMm3 + measureVolume(mesh) - measureVolume(outward),
      areaMm2: measureArea(mesh),
      sizeMm: size,
      watertight: openEdges === 0 && crowdedEdges === 0 && countDisagreeing(mesh, edges) === 0,
      shells: shells.count,
      openEdges,
      crowdedEdges,
      notes,
    },
  }
}

function countEdges(edges: Edges, matches: (uses: number) => boolean): number {
  let n = 0
  for (let e = 0; e < edges.count; e++) if (matches(edges.uses[e]!)) n++
  return n
}

const hasOpenEdge = (edges: Edges): boolean => edges.uses.some((uses) => uses === 1)

/** Leaves out shells of one or two triangles: they enclose nothing and would only draw stray lines. */
function dropSpecks(mesh: Mesh, edges: Edges, shells: Shells): { mesh: Mesh; dropped: number } {
  const sizes = new Uint32Array(shells.count)
  const joinsOthers = new Uint8Array(shells.count)
  for (let t = 0; t < triangleCount(mesh); t++) {
    const shell = shells.ofTriangle[t]!
    sizes[shell]!++
    for (let c = 3 * t; c < 3 * t + 3; c++) if (edges.uses[edges.ofTriangle[c]!]! > 2) joinsOthers[shell] = 1
  }
  const largest = sizes.reduce((most, size) => Math.max(most, size), 0)
  if (largest <= 2) return { mesh, dropped: 0 }
  return keepTriangles(mesh, (_a, _b, _c, t) => sizes[shells.ofTriangle[t]!]! > 2 || joinsOthers[shells.ofTriangle[t]!] === 1)
}

/** Turns triangles so that each shell agrees with itself and faces outward; a hollow inside another shell faces inward. Gives back the same mesh when nothing was wrong. Volume in mm³. */
function turnOutward({ mesh, edges }: Linked, shells: Shells, notes: string[]): { readonly mesh: Mesh; readonly volumeMm3: number } {
  const triangles = mesh.triangles.slice()
  const turn = (t: number): void => {
    const kept = triangles[3 * t + 1]!
    triangles[3 * t + 1] = triangles[3 * t + 2]!
    triangles[3 * t + 2] = kept
  }
  const turnedIn = new Uint32Array(shells.count)
  const sizes = new Uint32Array(shells.count)
  for (let t = 0; t < triangleCount(mesh); t++) {
    sizes[shells.ofTriangle[t]!]!++
    if (shells.turned[t] === 1) turnedIn[shells.ofTriangle[t]!]!++
  }
  let flipped = 0
  for (let t = 0; t < triangleCount(mesh); t++) {
    const shell = shells.ofTriangle[t]!
    // The majority of a shell is believed; which triangle the search began with is chance.
    const turnedAreFew = turnedIn[shell]! * 2 <= sizes[shell]!
    if ((shells.turned[t] === 1) === turnedAreFew) {
      turn(t)
      flipped++
    }
  }
  const { isInverted, volumeMm3 } = findNesting({ positions: mesh.positions, triangles }, shells, edges)
  let inverted = 0
  for (let t = 0; t < triangleCount(mesh); t++) {
    if (!isInverted[shells.ofTriangle[t]!]) continue
    turn(t)
    inverted++
  }
  if (flipped > 0) notes.push(`${count(flipped, 'triangle')} faced the wrong way and ${flipped === 1 ? 'was' : 'were'} turned.`)
  if (inverted > 0) notes.push(`A body of ${count(inverted, 'triangle')} was inside out and was turned.`)
  return { mesh: flipped + inverted === 0 ? mesh : { positions: mesh.positions, triangles }, volumeMm3 }
}

function countDisagreeing(mesh: Mesh, edges: Edges): number {
  const balance = new Int32Array(edges.count)
  for (let c = 0; c < mesh.triangles.length; c++) balance[edges.ofTriangle[c]!]! += edges.forward[c] === 1 ? 1 : -1
  return balance.reduce((n, sum, e) => n + (edges.uses[e] === 2 && sum !== 0 ? 1 : 0), 0)
}

function placeOfOpenEdges(mesh: Mesh, edges: Edges): string {
  let low = Infinity
  let high = -Infinity
  for (let c = 0; c < mesh.triangles.length; c++) {
    if (edges.uses[edges.ofTriangle[c]!] !== 1) continue
    const z = mesh.positions[3 * mesh.triangles[c]! + 2]!
    low = Math.min(low, z)
    high = Math.max(high, z)
  }
  return `between z = ${low.toFixed(1)} and ${high.toFixed(1)} mm of the file`
}
