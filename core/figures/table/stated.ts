import type { Roughness } from '../../physics/finish/surfaceFigures'
import { directionWords, type Purpose } from '../../physics/strength/purpose'
import type { LoadFigure, LoadKind } from '../../physics/strength/strengthFigures'
import type { Prediction } from '../../pipeline/predict'

export interface StatedLoad extends LoadFigure {
  readonly kind: LoadKind
  /** "X", or "30°, 45° up" */
  readonly along: string
  /** Whether the bond between layers has a say. */
  readonly acrossLayers: boolean
}

type Loaded = Pick<Prediction, 'strength' | 'oblique'>

/** The figure of the load that a purpose names; of the weakest axis until an asked direction has been computed. */
export function statedLoad({ strength, oblique }: Loaded, { load }: Purpose): StatedLoad {
  const { kind, axis, azimuthDeg, elevationDeg } = load
  if (axis === 'free' && oblique) {
    return { ...oblique[kind], kind, along: directionWords(azimuthDeg, elevationDeg), acrossLayers: elevationDeg !== 0 && kind !== 'crush' }
  }
  const all = (['X', 'Y', 'Z'] as const).map((name) => ({ ...strength[`${kind}${name}`], along: name }))
  const own = all.find(({ along }) => along.toLowerCase() === axis) ?? all.reduce((low, next) => (next.loadN < low.loadN ? next : low))
  return { ...own, kind, acrossLayers: own.along === 'Z' && kind !== 'crush' }
}

/** Roughness of what will be seen. */
export const seenSurface = ({ surface }: Pick<Prediction, 'surface'>, { seen }: Purpose): Roughness =>
  seen === 'all' ? surface : surface[seen]
