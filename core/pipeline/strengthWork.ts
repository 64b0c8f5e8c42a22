import type { Direction } from '../physics/strength/direction'
import type { Grip } from '../physics/strength/grip'
import type { LoadPathByAxis } from '../physics/strength/loadPathByAxis'
import { type ObliqueSections, obliqueFigures, standingAcross } from '../physics/strength/oblique'
import type { LoadKind } from '../physics/strength/sectionLoads'
import type { SectionReads } from '../physics/strength/sectionReads'
import { type Axis, boxOf, type Sections } from '../physics/strength/sections'
import { type Bulk, type LoadCase, type LoadFigure, type SectionsByAxis, strengthFigures } from '../physics/strength/strengthFigures'
import { standingShares } from '../physics/strength/thinWalls'
import type { Scopes } from '../profile/overrides'
import type { Settings } from '../profile/settings'
import { atOnce, justOne, type Work } from '../work/work'
import { obliqueTask, sectionsTask } from './figureTasks'
import type { LaidDown } from './layDown'
import { type StageCache, stageKey } from './stageCache'

/** What a part bears. */
export interface StrengthOf {
  readonly strength: Readonly<Record<LoadCase, LoadFigure>>
  /** Of a part that lies turned on the bed, along the two level directions that are its own. */
  readonly own?: readonly OwnStrength[]
  /** Along the direction that was asked for. */
  readonly oblique?: Readonly<Record<LoadKind, LoadFigure>>
}

/** How a part bears loads along a level direction of its own. */
export interface OwnStrength {
  readonly azimuthDeg: number
  readonly figures: Readonly<Record<LoadKind, LoadFigure>>
}

interface Cut {
  readonly direction: Direction
  readonly sections: ObliqueSections
}

/** A part cut through along its axes and, where that is wanted, along other directions. */
export interface CutThrough {
  readonly axes: SectionsByAxis
  readonly own: readonly Cut[]
  readonly asked: Cut | undefined
  readonly flats: Float64Array
}

interface SectionsInput {
  readonly laidDown: LaidDown
  readonly cache: StageCache
  readonly scopes: Scopes
  readonly reads: SectionReads
  readonly loadPath: LoadPathByAxis
  /** By how much the plan of the part is turned, radians: for sections across z, and where its own level directions are asked for. */
  readonly upright: number
  readonly turned: number
  /** How wide its walls are flat, layer by layer, mm. */
  readonly flats: Float64Array
  readonly grip: Grip
  readonly direction: Direction | undefined
}

export function* sectionsWork(of: SectionsInput): Work<CutThrough> {
  const { laidDown, cache, scopes, reads, loadPath, turned, upright, flats, grip, direction } = of
  const { single: path, pathKey, layers } = laidDown
  const box = cache.get('box', pathKey, () => boxOf(path))
  const shared = { path, settings: scopes.settings, overrides: scopes.overrides, reads }
  const across = (axis: Axis): Work<Sections> =>
    cache.getFrom(`sections ${axis}`, stageKey('sections', pathKey, [grip, axis, reads]), () =>
      justOne(sectionsTask, { ...shared, axis, box, loadPath: loadPath[axis], turned: upright }),
    )
  const along = (direction: Direction): Work<ObliqueSections> =>
    cache.getFrom(obliqueTask.name, stageKey(obliqueTask.name, pathKey, [direction, grip, reads]), () =>
      justOne(obliqueTask, { ...shared, layers, direction, grip }),
    )
  const own = ownDirectionsOf(turned)
  const directions = direction ? [...own, direction] : own
  const [axes, cuts] = yield* atOnce(atOnce(across('x'), across('y'), across('z')), atOnce(...directions.map(along)))
  const [x, y, z] = axes
  const found = cuts.map((sections, k): Cut => ({ direction: directions[k]!, sections }))
  return { axes: { x, y, z }, own: found.slice(0, own.length), asked: found[own.length], flats }
}

export function strengthOf(
  cut: CutThrough,
  settings: Settings,
  bulk: Omit<Bulk, 'standing'> & { readonly bonds: Float64Array },
  grip: Grip,
): StrengthOf {
  const { axes, own, asked, flats } = cut
  const standing = (axis: Axis): Float64Array =>
    standingShares(axes[axis], axis === 'z' ? 'upright' : 'level', settings, bulk.material.strength, flats)
  const figuresOf = ({ sections, direction }: Cut) =>
    obliqueFigures(sections, direction, { ...bulk, ...standingAcross(sections, direction, settings, bulk.material) }, grip)
  return {
    strength: strengthFigures(axes, { ...bulk, standing: { x: standing('x'), y: standing('y'), z: standing('z') } }, grip),
    ...(own.length > 0 ? { own: own.map((one) => ({ azimuthDeg: one.direction.azimuthDeg, figures: figuresOf(one) })) } : {}),
    ...(asked ? { oblique: figuresOf(asked) } : {}),
  }
}

/** A part that is turned by less than this lies along the axes, rad. */
const TURNED = 0.035

/** The level directions of a part that lies turned; none of one that lies along the axes. */
function ownDirectionsOf(turned: number): readonly Direction[] {
  if (turned < TURNED || turned > Math.PI / 2 - TURNED) return []
  const azimuthDeg = Number(((turned * 180) / Math.PI).toFixed(1))
  return [
    { azimuthDeg, elevationDeg: 0 },
    { azimuthDeg: azimuthDeg + 90, elevationDeg: 0 },
  ]
}
