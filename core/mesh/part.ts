import type { Edges } from './edges'
import type { Mesh } from './mesh'
import type { MeshReport } from './repair'

/** A part as it was read: its clean mesh and its edges, what is known about it, and a key that names its content. */
export interface Part {
  readonly key: string
  readonly mesh: Mesh
  readonly edges: Edges
  readonly report: MeshReport
}
