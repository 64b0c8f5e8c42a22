import type { Roughness } from '../../physics/finish/surfaceFigures'
import { directionWords, type Purpose } from '../../physics/strength/purpose'
import type { LoadKind } from '../../physics/strength/sectionLoads'
import type { LoadFigure } from '../../physics/strength/strengthFigures'
import type { Prediction } from '../../pipeline/predict'
import { type SolvedPurpose, solvedKey } from '../../pipeline/solvedWork'

export interface StatedLoad extends LoadFigure {
  readonly kind: LoadKind
  /** "X", or "30°, 45° up" */
  readonly along: string
  /** Of a level direction that is the part's own. */
  readonly azimuthDeg?: number
  /** Whether the bond between layers has a say. */
  readonly acrossLayers: boolean
}

type Loaded = Pick<Prediction, 'strength' | 'oblique' | 'own'>

/**
 * The figure of the load that a purpose names; of the weakest axis until an asked direction has been computed. The axes of a
 * part that lies turned on the bed are its own and not the bed's.
 */
export function statedLoad({ strength, oblique, own = [] }: Loaded, { load }: Purpose): StatedLoad {
  const { kind, axis, azimuthDeg, elevationDeg } = load
  if (axis === 'free' && oblique) {
    return { ...oblique[kind], kind, along: directionWords(azimuthDeg, elevationDeg), acrossLayers: elevationDeg !== 0 && kind !== 'crush' }
  }
  const all = (['X', 'Y', 'Z'] as const).map((name) => ({ ...strength[`${kind}${name}`], along: name as string }))
  const asked = all.find(({ along }) => along.toLowerCase() === axis)
  const turned = own.map(({ azimuthDeg, figures }) => ({ ...figures[kind], along: directionWords(azimuthDeg, 0), azimuthDeg }))
  const candidates = turned.length > 0 ? [...turned, all[2]!] : all
  const found = asked ?? candidates.reduce((low, next) => (next.loadN < low.loadN || Number.isNaN(low.loadN) ? next : low))
  return { ...found, kind, acrossLayers: found.along === 'Z' && kind !== 'crush' }
}

/** Roughness of what will be seen. */
export const seenSurface = ({ surface }: Pick<Prediction, 'surface'>, { seen }: Purpose): Roughness =>
  seen === 'all' ? surface : surface[seen]

/** A purpose's load as finite elements have it, where they have solved that very one. */
export const solvedLoad = ({ solved }: Pick<Prediction, 'solved'>, purpose: Purpose): SolvedPurpose | undefined =>
  solved?.of === solvedKey(purpose) ? solved : undefined

/** A prediction as far as sections go: what is compared with others that were not solved must not be. */
export function bySections<P extends Pick<Prediction, 'solved' | 'solvedSway'>>(prediction: P): Omit<P, 'solved' | 'solvedSway'> {
  const { solved: _, solvedSway: __, ...rest } = prediction
  return rest
}
