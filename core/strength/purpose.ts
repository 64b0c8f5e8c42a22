import { z } from 'zod'
import { type Roughness, seenParts } from '../finish/surfaceFigures'
import type { Prediction } from '../predict'
import { type LoadCase, type LoadFigure, loadKinds } from './strengthFigures'

/** What a part is for, how it will be loaded, and what it must keep to. Lengths mm, times s, forces N. */
export const purposeSchema = z.object({
  kind: z.enum(['show', 'work', 'load']),
  /** What of its surface will be seen. */
  seen: z.enum(seenParts).default('all'),
  load: z.object({
    kind: z.enum(loadKinds),
    /** Along which it is loaded; the weakest when that is not known. */
    axis: z.enum(['x', 'y', 'z', 'weakest']),
  }),
  limits: z
    .object({
      maxTimeS: z.number().positive(),
      maxMassG: z.number().positive(),
      maxCost: z.number().positive(),
      maxRaUm: z.number().positive(),
      minLoadN: z.number().positive(),
    })
    .partial(),
})
export type Purpose = z.infer<typeof purposeSchema>
export type LimitName = keyof Purpose['limits']

/** Bent in whichever direction it is weakest, and nothing to keep to. */
export const noPurpose: Purpose = { kind: 'work', seen: 'all', load: { kind: 'bend', axis: 'weakest' }, limits: {} }

/** The load case that a purpose names for this candidate. */
export function statedCase({ strength }: Pick<Prediction, 'strength'>, { load: { kind, axis } }: Purpose): LoadCase {
  if (axis !== 'weakest') return `${kind}${axis.toUpperCase() as 'X' | 'Y' | 'Z'}`
  return (['X', 'Y', 'Z'] as const)
    .map((name): LoadCase => `${kind}${name}`)
    .reduce((low, next) => (strength[next].loadN < strength[low].loadN ? next : low))
}

export const statedLoad = (p: Pick<Prediction, 'strength'>, purpose: Purpose): LoadFigure => p.strength[statedCase(p, purpose)]

/** Roughness of what will be seen. */
export const seenSurface = ({ surface }: Pick<Prediction, 'surface'>, { seen }: Purpose): Roughness =>
  seen === 'all' ? surface : surface[seen]

export interface Judgement {
  readonly limit: LimitName
  readonly wanted: number
  readonly has: number
  readonly met: boolean
}

const values: Readonly<Record<LimitName, (p: Prediction, purpose: Purpose) => number>> = {
  maxTimeS: (p) => p.timeS,
  maxMassG: (p) => p.filament.massG,
  maxCost: (p) => p.filament.cost,
  maxRaUm: (p, purpose) => seenSurface(p, purpose).raMeanUm,
  minLoadN: (p, purpose) => statedLoad(p, purpose).loadN,
}

/** How a candidate stands to each limit that is set. */
export function judge(p: Prediction, purpose: Purpose): Judgement[] {
  return (Object.entries(purpose.limits) as [LimitName, number | undefined][]).flatMap(([limit, wanted]) => {
    if (wanted === undefined) return []
    const has = values[limit](p, purpose)
    return [{ limit, wanted, has, met: limit.startsWith('max') ? has <= wanted : has >= wanted }]
  })
}
