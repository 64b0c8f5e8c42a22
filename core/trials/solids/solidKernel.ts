import createKernel, { type Manifold, type ManifoldToplevel } from 'manifold-3d'
import type { Mesh } from '../../mesh/mesh'

/** A closed body, mm, while it is made. Every operation gives a new one. */
export interface Solid {
  at(x: number, y: number, z: number): Solid
  /** Turned about the axes in turn, degrees. */
  turned(x: number, y: number, z: number): Solid
  plus(...others: readonly Solid[]): Solid
  minus(...others: readonly Solid[]): Solid
}

/** Bodies to begin with. All stand on z = 0 with their middle over the origin. */
export interface SolidKit {
  box(width: number, depth: number, height: number): Solid
  /** The same, reaching a little below z = 0: what stands on another body must be one with it, not only touch it. */
  post(width: number, depth: number, height: number): Solid
  /** A round body, narrower or wider at its top. */
  cone(radius: number, topRadius: number, height: number): Solid
  /** An outline, x and y in turn, counter-clockwise, of this height. It stands where the outline does. */
  prism(outline: readonly (readonly [number, number])[], height: number): Solid
  /** The least convex body that holds all. */
  hull(...bodies: readonly Solid[]): Solid
}

/** Makes bodies as meshes. This module alone knows that the kernel has a memory of its own. */
export interface SolidKernel {
  make(work: (kit: SolidKit) => Solid): Mesh
}

/** Sides of a round body: no side longer than this, mm, so that it is round to the nozzle. */
const SIDE = 0.8

/** How far a post reaches into what it stands on, mm. */
const INTO = 0.05

/** Manifold (E. Lalish), as WebAssembly. `wasm` is the content of `manifold.wasm`: only the host knows where that file is. */
export async function loadSolidKernel(wasm: ArrayBuffer | Uint8Array<ArrayBuffer>): Promise<SolidKernel> {
  // The package's types do not name what its loader takes beside `locateFile`.
  const kernel = await (createKernel as (options: object) => Promise<ManifoldToplevel>)({ wasmBinary: wasm })
  kernel.setup()
  return {
    make(work) {
      const made = new Set<Manifold>()
      try {
        return meshOf((work(kitOf(kernel, made)) as Body).own)
      } finally {
        for (const body of made) body.delete()
      }
    },
  }
}

class Body implements Solid {
  constructor(
    readonly own: Manifold,
    private readonly made: Set<Manifold>,
  ) {
    made.add(own)
  }

  private readonly next = (own: Manifold): Solid => new Body(own, this.made)
  at = (x: number, y: number, z: number): Solid => this.next(this.own.translate([x, y, z]))
  turned = (x: number, y: number, z: number): Solid => this.next(this.own.rotate([x, y, z]))
  plus = (...others: readonly Solid[]): Solid => this.next(others.reduce((sum, other) => this.keep(sum.add((other as Body).own)), this.own))
  minus = (...others: readonly Solid[]): Solid =>
    this.next(others.reduce((rest, other) => this.keep(rest.subtract((other as Body).own)), this.own))

  private keep(own: Manifold): Manifold {
    this.made.add(own)
    return own
  }
}

function kitOf({ Manifold, CrossSection }: ManifoldToplevel, made: Set<Manifold>): SolidKit {
  const body = (own: Manifold): Solid => new Body(own, made)
  const upright = (width: number, depth: number, height: number, below: number): Solid => {
    const centred = Manifold.cube([width, depth, height + below], true)
    made.add(centred)
    return body(centred.translate([0, 0, (height - below) / 2]))
  }
  return {
    box: (width, depth, height) => upright(width, depth, height, 0),
    post: (width, depth, height) => upright(width, depth, height, INTO),
    cone: (radius, topRadius, height) =>
      body(Manifold.cylinder(height, radius, topRadius, Math.max(12, Math.ceil((2 * Math.PI * Math.max(radius, topRadius)) / SIDE)))),
    prism: (outline, height) => {
      const section = new CrossSection([outline.map(([x, y]): [number, number] => [x, y])])
      const own = section.extrude(height)
      section.delete()
      return body(own)
    },
    hull: (...bodies) => body(Manifold.hull(bodies.map((one) => (one as Body).own))),
  }
}

/** The body as one of our meshes. */
export function meshOf(body: Manifold): Mesh {
  const { vertProperties, triVerts, numProp } = body.getMesh()
  const positions = new Float64Array((vertProperties.length / numProp) * 3)
  for (let v = 0; v < positions.length / 3; v++) for (let k = 0; k < 3; k++) positions[3 * v + k] = vertProperties[v * numProp + k]!
  return { positions, triangles: Uint32Array.from(triVerts) }
}
