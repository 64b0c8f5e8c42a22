import { type Edges, findEdges } from './edges'
import type { Mesh } from './mesh'

/** A mesh and its edges, found once and passed along. */
export interface Linked {
  readonly mesh: Mesh
  readonly edges: Edges
}

export const linkEdges = (mesh: Mesh): Linked => ({ mesh, edges: findEdges(mesh) })

/** "1 triangle", "2 triangles" */
export const count = (n: number, noun: string): string => `${n.toLocaleString('en')} ${noun}${n === 1 ? '' : 's'}`
