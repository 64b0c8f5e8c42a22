import { type Buckling, bucklingWork } from '../../elements/buckling'
import type { Elasticity } from '../../elements/elasticity'
import { joinedTo, type Mesh, meshOf } from '../../elements/mesh'
import { readyWork } from '../../elements/ready'
import { POINTS, stressTeller } from '../../elements/stress'
import { InputError } from '../../units/errors'
import { type Steps, within } from '../../units/steps'
import { bodyOf } from './body'
import { type Borne, borneWork } from './borne'
import { heldMovements, isLoose } from './held'
import { elasticities, type Plastic } from './limits'
import type { SetUps } from './setUps'
import type { Three, Voxels } from './voxels'
import { Places, type Region } from './where'

/** A support: where, and along which axes it does not give way. What slides is held along some only. */
export interface Hold {
  readonly where: readonly Region[]
  readonly along: readonly [x: boolean, y: boolean, z: boolean]
}

/** What acts on some of a part. */
export interface Load {
  readonly where: readonly Region[]
  /** In all, N. */
  readonly force?: Three
  /** About the middle of where it acts, N·mm. */
  readonly moment?: Three
  /** Into the surface, MPa; on patches only. */
  readonly pressure?: number
  /** On each mm³ of plastic, N: its weight. */
  readonly onVolume?: Three
  /** How far it is moved on the mean, mm, by whatever force along the same way it takes. */
  readonly slip?: Three
}

/** How a part is held and loaded. */
export interface Case {
  readonly holds: readonly Hold[]
  /** Loads that act together; of two such the weakest direction between them is looked for. */
  readonly loads: readonly [readonly Load[], (readonly Load[])?]
  /** Whether it is also sought under how many times its first loads it buckles, where that may come before it breaks: it takes some times as long. */
  readonly buckles?: true
}

/** A part as it gives way under a case. */
export interface Structure {
  readonly voxels: Voxels
  /** Cells of the voxels that hang together with what is held: those of the mesh. */
  readonly kept: Int32Array
  readonly mesh: Mesh
  /** Forces on nodes, N, and how these move, mm: three numbers a node, for each of the case's loads. */
  readonly forces: readonly Float64Array[]
  readonly moved: readonly Float64Array[]
  /** How it buckles under the first of the loads, where that was asked for; more than some times beyond where it breaks, its factor is a bound. */
  readonly buckling?: Buckling
  /** Cells of the mesh that are too near to a hold or a load to be judged. */
  readonly isGripped: Uint8Array
  readonly iterations: number
  /** What is left of the forces, as a share. */
  readonly residual: number
  /** Share of the plastic that hangs on nothing that is held. */
  readonly dropped: number
}

/** This near to where it is held or loaded nothing is judged, mm: real grips spread what a grid does not. */
export const NEAR_GRIP = 2.5
/** Share of the work that setting up is, about. */
const SETTING_UP = 0.4

/**
 * Several cases of one part, each with its loads; those that are held alike share a set-up. Yields the share that is done.
 *
 * @throws InputError where nothing is held or loaded, where what is loaded does not hang together with what is held, or where forces find no balance
 */
export function* structuresWork(voxels: Voxels, plastic: Plastic, cases: readonly Case[], knowing: Knowing = {}): Steps<Structure[]> {
  const places = new Places(voxels)
  const groups = new Map<Case['holds'], Case[]>()
  for (const one of cases) groups.set(one.holds, [...(groups.get(one.holds) ?? []), one])
  const found = new Map<Case, Structure>()
  for (const [holds, own] of groups) {
    const work = alikeWork(places, plastic, holds, own, knowing)
    const structures = yield* within(work, found.size / cases.length, (found.size + own.length) / cases.length)
    for (const [i, one] of own.entries()) found.set(one, structures[i]!)
  }
  return cases.map((one) => found.get(one)!)
}

/** What is known beside a part and its cases. */
export interface Knowing {
  /** How many times its loads a structure bears as long as it does not buckle; far beyond that it is not sought how it buckles. */
  readonly breaksAt?: (structure: Structure) => number
  /** What was set up before. */
  readonly setUps?: SetUps | undefined
}

function* alikeWork(
  places: Places,
  plastic: Plastic,
  holds: readonly Hold[],
  cases: readonly Case[],
  { breaksAt, setUps }: Knowing,
): Steps<Structure[]> {
  const { voxels } = places
  const { cells, dropped, kept } = joinedTo(voxels, places.marked(holds.flatMap(({ where }) => where)))
  const materials = elasticities(plastic)
  const body = bodyOf(places, meshOf(cells), kept)
  const held = heldMovements(body, holds)
  if (isLoose(body.mesh, held)) throw loose()
  const setUp = setUps?.take({ voxels, plastic, kept, held }) ?? {
    ...{ voxels, plastic, kept, held },
    ready: yield* within(readyWork(body.mesh, materials, held), 0, SETTING_UP),
  }
  const { ready } = setUp
  const count = cases.reduce((sum, { loads, buckles }) => sum + loads.length + (buckles ? 1 : 0), 0)
  const all: Structure[] = []
  let done = 0
  const next = <T>(work: Steps<T>): Steps<T> => {
    const from = SETTING_UP + ((1 - SETTING_UP) * done++) / count
    return within(work, from, from + (1 - SETTING_UP) / count)
  }
  for (const { loads, buckles } of cases) {
    const borne: Borne[] = []
    for (const together of loads) borne.push(yield* next(borneWork(ready, body, together ?? [])))
    const gripped = places.near(
      [...holds, ...loads.flatMap((one) => one ?? [])].flatMap(({ where }) => where),
      NEAR_GRIP,
    )
    const structure: Structure = {
      voxels,
      kept,
      mesh: ready.mesh,
      forces: borne.map(({ forces }) => forces),
      moved: borne.map(({ moved }) => moved),
      isGripped: Uint8Array.from(kept, (cell) => gripped[cell]!),
      iterations: Math.max(...borne.map(({ iterations }) => iterations)),
      residual: Math.max(...borne.map(({ residual }) => residual)),
      dropped,
    }
    if (!buckles) {
      all.push(structure)
      continue
    }
    const stress = meanStress(ready.mesh, materials, structure.moved[0]!)
    all.push({ ...structure, buckling: yield* next(bucklingWork(ready, stress, breaksAt?.(structure))) })
  }
  setUps?.put(setUp)
  return all
}

const loose = (): InputError =>
  new InputError(
    'held-loosely',
    'The part can still slide away or turn as a whole.',
    '',
    'Hold it along more directions: of a face that slides only the way that it faces is held.',
  )

/** Of each cell, six numbers, MPa. */
function meanStress(mesh: Mesh, materials: readonly Elasticity[], moved: Float64Array): Float64Array {
  const tell = stressTeller(mesh, materials)
  const [stress, own] = [new Float64Array(6 * mesh.share.length), new Float64Array(6 * POINTS)]
  for (let c = 0; c < mesh.share.length; c++) {
    tell(moved, c, own)
    for (let k = 0; k < 6 * POINTS; k++) stress[6 * c + (k % 6)]! += own[k]! / POINTS
  }
  return stress
}
