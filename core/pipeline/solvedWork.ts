import { constantOf } from '../constants/constants'
import { cornersOf } from '../mesh/cornersOf'
import type { Mesh } from '../mesh/mesh'
import type { Part } from '../mesh/part'
import type { Placement } from '../mesh/place'
import { caseAlong } from '../physics/solved/casesAlong'
import type { Plastic } from '../physics/solved/limits'
import { type SolvedPicture, solvedPicture } from '../physics/solved/picture'
import { SetUps } from '../physics/solved/setUps'
import { type SolvedCase, type SolvedLoad, solvedCasesWork, solvedLoadWork } from '../physics/solved/solvedLoad'
import type { Case } from '../physics/solved/structure'
import { bearableVoxel, type Extent, extentOf, type Voxels, voxelsOf } from '../physics/solved/voxels'
import { wholeCases } from '../physics/strength/pickedCases'
import type { Purpose } from '../physics/strength/purpose'
import { type Axis, axes } from '../physics/strength/sections'
import { knownSetup } from '../setup/knownSetup'
import type { Setup } from '../setup/resolve'
import { layerAt } from '../slicing/layers'
import { layerTop, type Toolpath } from '../toolpath/toolpath'
import { InputError } from '../units/errors'
import { type Steps, within } from '../units/steps'
import type { LaidDown } from './layDown'
import { caseOf } from './pickedCases'
import type { Prediction } from './predict'
import { StageCache, stageKey } from './stageCache'

/** How wide a cell is where nothing else is asked for, mm: good for stiffness and place; ranking infill against walls wants one line. */
export const PREVIEW_MM = 0.9
/**
 * How wide a cell is where infill is ranked against walls, mm: no wider than a line, for wider ones turn the ranks about.
 */
export const rankingVoxel = ({ lineWidth }: { readonly lineWidth: number }): number => Math.min(PREVIEW_MM, lineWidth)
/** So many cells are solved at most; of larger parts they are wider. */
const MOST_CELLS = 120_000

/** What a prediction's plastic bears: with what is missing of it, and the bond of each of its layers. */
export function plasticOf(setup: Setup, path: Toolpath, { tracks, melt }: Pick<Prediction, 'tracks' | 'melt'>): Plastic {
  const { material, constants } = knownSetup(setup)
  const { modulus, inLayer } = material.strength
  const left = 1 - melt.missing
  const tops = Float64Array.from({ length: path.layerStart.length - 1 }, (_, layer) => layerTop(path, layer))
  return {
    modulus: left * modulus,
    inLayer: left * inLayer,
    acrossLines: constants.strength.acrossLines,
    shear: constants.strength.shear,
    spreads: spreadsOf(setup),
    // What is missing in a layer is in its bond already.
    bondAt: (z) => (tracks.bond[layerAt(tops, z)] ?? material.strength.bondFactor) / left,
  }
}

/** What is doubted of a strength, as long as nothing was measured. */
function spreadsOf({ known = {} }: Setup): Plastic['spreads'] {
  const own = (id: 'strength.inLayer' | 'strength.bond'): number => known[id]?.spread ?? constantOf(id).spread
  return { lines: own('strength.inLayer'), layers: Math.hypot(own('strength.inLayer'), own('strength.bond')) }
}

type Predicted = Pick<Prediction, 'tracks' | 'melt'>

/** The load at which a predicted part fails, from the lines that are laid. Yields the share that is done. */
export function* solvedWork(
  { single }: Pick<LaidDown, 'single'>,
  prediction: Predicted,
  setup: Setup,
  caseOf: (extent: Extent) => Case,
  voxelMm = PREVIEW_MM,
): Steps<SolvedLoad> {
  const voxels = voxelsOf(single, bearableVoxel(single, voxelMm, MOST_CELLS))
  return yield* solvedLoadWork(voxels, plasticOf(setup, single, prediction), caseOf(extentOf(single)))
}

/** A purpose's load, solved. */
export interface SolvedPurpose extends SolvedLoad {
  /** What was solved (see `solvedKey`). */
  readonly of: string
  /** Of several axes or cases the one that it bears least along or in. */
  readonly axis?: Axis
  readonly name?: string
}

/** Says all of a purpose that decides on what is solved. */
export function solvedKey(purpose: Pick<Purpose, 'load' | 'cases'>): string {
  const cases = wholeCases(purpose)
  return JSON.stringify(cases.length > 0 ? cases.map(({ holds, loads, weight }) => [holds, loads, weight]) : purpose.load)
}

/** Why a load of a purpose is not solved, in a sentence; nothing where it is. */
export function notSolved(purpose: Pick<Purpose, 'load' | 'cases'>): string | undefined {
  return purpose.load.axis === 'free' && wholeCases(purpose).length === 0
    ? 'Along a direction of its own a load is not solved: point at the faces where it acts instead, or take an axis.'
    : undefined
}

type Laid = Pick<LaidDown, 'single' | 'mesh' | 'pathKey'>

export interface SolvedOptions {
  /** Also how the part looks then. */
  readonly isDrawn?: boolean
  /** How wide a cell is, unless there were too many. */
  readonly voxelMm?: number | undefined
  /** What is remembered of those before: cells of the same lines, and how what is held alike was set up. */
  readonly before?: { readonly cache: StageCache; readonly setUps: SetUps }
}
const freshStages = (): NonNullable<SolvedOptions['before']> => ({ cache: new StageCache(), setUps: new SetUps() })

/**
 * The load of a purpose, solved: of its cases, or along its axis, or along each, the one that it bears least. Yields the share that is done.
 *
 * @throws RangeError where it is not solved
 * @throws InputError as `structuresWork` and `caseOf` do
 */
export function* solvedForPurpose(
  {
    part,
    placement,
    laid,
    prediction,
    setup,
  }: {
    readonly part: Part
    readonly placement: Placement
    readonly laid: Laid
    readonly prediction: Predicted
    readonly setup: Setup
  },
  purpose: Pick<Purpose, 'load' | 'cases'>,
  { isDrawn = false, voxelMm = PREVIEW_MM, before = freshStages() }: SolvedOptions = {},
): Steps<{ readonly solved: SolvedPurpose; readonly picture?: SolvedPicture }> {
  if (notSolved(purpose) !== undefined) throw new RangeError('no such load is solved')
  const { single, mesh, pathKey } = laid
  const named = casesOf(purpose, { part, placed: mesh, placement, extent: extentOf(single), density: setup.material.density })
  const voxels = before.cache.get('voxels', stageKey('voxels', pathKey, voxelMm), () =>
    voxelsOf(single, bearableVoxel(single, voxelMm, MOST_CELLS)),
  )
  const plastic = plasticOf(setup, single, prediction)
  const cases = yield* solvedOnes(voxels, plastic, named, before.setUps)
  const worst = cases.reduce((least, one) => (one.found.load.factor < least.found.load.factor ? one : least))
  const { one: _, ...which } = worst.of
  const solved = { ...worst.found.load, of: solvedKey(purpose), ...which }
  return isDrawn ? { solved, picture: solvedPicture(worst.found, plastic, cornersOf(mesh)) } : { solved }
}

/** Of loads along several axes those that can be solved: along one a part may be too short to be judged between its grips. */
function* solvedOnes(
  voxels: Voxels,
  plastic: Plastic,
  named: readonly Named[],
  setUps: SetUps,
): Steps<readonly { readonly found: SolvedCase; readonly of: Named }[]> {
  const isAnyOf = named.length > 1 && named.every(({ axis }) => axis !== undefined)
  if (!isAnyOf) {
    const all = yield* solvedCasesWork(
      voxels,
      plastic,
      named.map(({ one }) => one),
      setUps,
    )
    return all.map((found, i) => ({ found, of: named[i]! }))
  }
  const solved: { readonly found: SolvedCase; readonly of: Named }[] = []
  let refused: unknown
  for (const [i, of] of named.entries()) {
    try {
      const [found] = yield* within(solvedCasesWork(voxels, plastic, [of.one], setUps), i / named.length, (i + 1) / named.length)
      solved.push({ found: found!, of })
    } catch (error) {
      if (!(error instanceof InputError)) throw error
      refused = error
    }
  }
  if (solved.length === 0) throw refused
  return solved
}

interface Named {
  readonly one: Case
  readonly axis?: Axis
  readonly name?: string
}

function casesOf(
  purpose: Pick<Purpose, 'load' | 'cases'>,
  of: { readonly part: Part; readonly placed: Mesh; readonly placement: Placement; readonly extent: Extent; readonly density: number },
): Named[] {
  const cases = wholeCases(purpose)
  if (cases.length > 0) {
    // What is held alike is set up once.
    const holds = new Map<string, Case['holds']>()
    return cases.map((picked) => {
      const one = caseOf(picked, of.part, of.placed, of.placement, of.density)
      const key = JSON.stringify(picked.holds)
      if (!holds.has(key)) holds.set(key, one.holds)
      return { one: { ...one, holds: holds.get(key)! }, name: picked.name }
    })
  }
  const { kind, axis, heldTo, loadedFrom } = purpose.load
  const grip = { heldTo: heldTo / 100, loadedFrom: loadedFrom / 100 }
  const along: readonly Axis[] = axis === 'weakest' || axis === 'free' ? axes : [axis]
  return along.map((own) => ({ one: caseAlong(of.extent, own, kind, grip), axis: own }))
}
