import { InputError } from '../units/errors'
import { Growing } from '../units/growing'
import { shared } from '../units/shared'
import { type Edges, findEdges } from './edges'
import { fillFlatHoles } from './fillHoles'
import { measureArea, measureSize, measureVolume, sixfoldVolume } from './measure'
import { type Box, type Mesh, type TriangleSoup, triangleCount } from './mesh'
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
  const outward = turnOutward(linked.mesh, shells, notes)
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
      volumeMm3: measureVolume(mesh),
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

/** A mesh and its edges, found once and passed along. */
interface Linked {
  readonly mesh: Mesh
  readonly edges: Edges
}

const linkEdges = (mesh: Mesh): Linked => ({ mesh, edges: findEdges(mesh) })

function countEdges(edges: Edges, matches: (uses: number) => boolean): number {
  let n = 0
  for (let e = 0; e < edges.count; e++) if (matches(edges.uses[e]!)) n++
  return n
}

const hasOpenEdge = (edges: Edges): boolean => edges.uses.some((uses) => uses === 1)

const count = (n: number, noun: string): string => `${n.toLocaleString('en')} ${noun}${n === 1 ? '' : 's'}`

/** Leaves out triangles that use a vertex twice, and exact repeats of another triangle. */
function dropCollapsed(mesh: Mesh, notes: string[]): Linked {
  const collapsed = keepTriangles(mesh, (a, b, c) => a !== b && b !== c && c !== a)
  if (collapsed.dropped > 0)
    notes.push(`${count(collapsed.dropped, 'triangle')} without area ${collapsed.dropped === 1 ? 'was' : 'were'} left out.`)
  // A repeat makes all three of its edges crowded; few triangles are, so the rest need no look.
  const { edges } = linkEdges(collapsed.mesh)
  if (!edges.uses.some((uses) => uses > 2)) return { mesh: collapsed.mesh, edges }
  const isNew = rememberTriples(collapsed.mesh.triangles.length / 3)
  const repeated = keepTriangles(collapsed.mesh, (a, b, c, t) => {
    const { uses, ofTriangle } = edges
    if (uses[ofTriangle[3 * t]!]! <= 2 || uses[ofTriangle[3 * t + 1]!]! <= 2 || uses[ofTriangle[3 * t + 2]!]! <= 2) return true
    return isNew(a, b, c)
  })
  if (repeated.dropped > 0)
    notes.push(`${count(repeated.dropped, 'repeated triangle')} ${repeated.dropped === 1 ? 'was' : 'were'} left out.`)
  return repeated.dropped === 0 ? { mesh: collapsed.mesh, edges } : linkEdges(repeated.mesh)
}

/** Tells of each triple of vertices, in whatever order, whether it comes for the first time. @param most triples that come at most */
function rememberTriples(most: number): (a: number, b: number, c: number) => boolean {
  let size = 16
  while (size < 2 * most) size *= 2
  /** Number of the triple + 1; 0 where there is none. */
  const slots = new Uint32Array(size)
  const triples = Growing.ofIndices()
  return (a, b, c) => {
    const low = Math.min(a, b, c)
    const high = Math.max(a, b, c)
    const middle = a + b + c - low - high
    const mixed = Math.imul(low, 0x9e3779b1) ^ Math.imul(middle, 0x85ebca6b) ^ Math.imul(high, 0xc2b2ae35)
    let slot = (mixed ^ (mixed >>> 15)) & (size - 1)
    for (let known = slots[slot]!; known > 0; known = slots[slot]!) {
      const at = 3 * (known - 1)
      if (triples.at(at) === low && triples.at(at + 1) === middle && triples.at(at + 2) === high) return false
      slot = (slot + 1) & (size - 1)
    }
    for (const vertex of [low, middle, high]) triples.push(vertex)
    slots[slot] = triples.length / 3
    return true
  }
}

function keepTriangles(mesh: Mesh, keep: (a: number, b: number, c: number, t: number) => boolean): { mesh: Mesh; dropped: number } {
  const kept = new Uint32Array(mesh.triangles.length)
  let length = 0
  for (let i = 0; i < mesh.triangles.length; i += 3) {
    const a = mesh.triangles[i]!
    const b = mesh.triangles[i + 1]!
    const c = mesh.triangles[i + 2]!
    if (!keep(a, b, c, i / 3)) continue
    kept[length++] = a
    kept[length++] = b
    kept[length++] = c
  }
  const dropped = (mesh.triangles.length - length) / 3
  return dropped === 0 ? { mesh, dropped } : { mesh: { positions: mesh.positions, triangles: kept.slice(0, length) }, dropped }
}

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

/** Turns triangles so that each shell agrees with itself and faces outward; a hollow inside another shell faces inward. Gives back the same mesh when nothing was wrong. */
function turnOutward(mesh: Mesh, shells: Shells, notes: string[]): Mesh {
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
  const isInverted = findInverted({ positions: mesh.positions, triangles }, shells)
  let inverted = 0
  for (let t = 0; isInverted.length > 0 && t < triangleCount(mesh); t++) {
    if (!isInverted[shells.ofTriangle[t]!]) continue
    turn(t)
    inverted++
  }
  if (flipped > 0) notes.push(`${count(flipped, 'triangle')} faced the wrong way and ${flipped === 1 ? 'was' : 'were'} turned.`)
  if (inverted > 0) notes.push(`A body of ${count(inverted, 'triangle')} was inside out and was turned.`)
  return flipped + inverted === 0 ? mesh : { positions: mesh.positions, triangles }
}

/** Whether each shell is inside out: it encloses less than nothing and is no hollow of another. An empty list where none is. */
function findInverted(mesh: Mesh, shells: Shells): boolean[] {
  const volumes = new Float64Array(shells.count)
  for (let t = 0; t < triangleCount(mesh); t++) volumes[shells.ofTriangle[t]!]! += sixfoldVolume(mesh, t) / 6
  if (volumes.every((volume) => volume >= 0)) return []
  const boxes = boxesOf(mesh, shells)
  // A hollow lies in a body; without a body there is none, and nothing to look through.
  const bodies = boxes.filter((_, i) => volumes[i]! > 0)
  return boxes.map((own, i) => volumes[i]! < 0 && !bodies.some((body) => boxContains(body, own)))
}

function boxesOf({ positions, triangles }: Mesh, { count, ofTriangle }: Shells): Box[] {
  const low = new Float64Array(3 * count).fill(Infinity)
  const high = new Float64Array(3 * count).fill(-Infinity)
  for (let c = 0; c < triangles.length; c++) {
    const shell = ofTriangle[Math.floor(c / 3)]!
    for (let k = 0; k < 3; k++) {
      const value = positions[3 * triangles[c]! + k]!
      if (value < low[3 * shell + k]!) low[3 * shell + k] = value
      if (value > high[3 * shell + k]!) high[3 * shell + k] = value
    }
  }
  const corner = (values: Float64Array, shell: number) => [...values.subarray(3 * shell, 3 * shell + 3)] as [number, number, number]
  return Array.from({ length: count }, (_, shell) => ({ min: corner(low, shell), max: corner(high, shell) }))
}

function boxContains(outer: Box, inner: Box): boolean {
  return [0, 1, 2].every((k) => outer.min[k]! <= inner.min[k]! && outer.max[k]! >= inner.max[k]!)
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
