import { z } from 'zod'
import { type Roughness, seenParts } from '../finish/surfaceFigures'
import type { Prediction } from '../predict'
import type { Direction } from './oblique'
import { type Grip, type LoadFigure, type LoadKind, loadKinds, usualGrip } from './strengthFigures'

/** What a part is for, how it will be loaded, and what it must keep to. Lengths mm, times s, forces N. */
export const purposeSchema = z.object({
  kind: z.enum(['show', 'work', 'load']),
  /** What of its surface will be seen. */
  seen: z.enum(seenParts).default('all'),
  touchesFood: z.boolean().default(false),
  load: z.object({
    kind: z.enum(loadKinds),
    /** Along which it is loaded; the weakest when that is not known; `free`: along the direction below. */
    axis: z.enum(['x', 'y', 'z', 'weakest', 'free']),
    /** From x towards y, and up from the bed, degrees. */
    azimuthDeg: z.number().min(-180).max(360).default(0),
    elevationDeg: z.number().min(-90).max(90).default(45),
    /** Held from the low end up to here and loaded from there on, per cent of the length along the load. */
    heldTo: z
      .number()
      .min(0)
      .max(45)
      .default(100 * usualGrip.heldTo),
    loadedFrom: z
      .number()
      .min(55)
      .max(100)
      .default(100 * usualGrip.loadedFrom),
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
export const noPurpose: Purpose = purposeSchema.parse({ kind: 'work', load: { kind: 'bend', axis: 'weakest' }, limits: {} })

/** What has to be known of a load before a prediction: it cuts the part across a direction of its own only when asked to. */
export interface LoadPlace {
  readonly grip: Grip
  readonly direction?: Direction
}

/** `undefined` where every prediction tells the figure anyway. */
export function placeOf({ load }: Purpose): LoadPlace | undefined {
  const grip = { heldTo: load.heldTo / 100, loadedFrom: load.loadedFrom / 100 }
  const usual = grip.heldTo === usualGrip.heldTo && grip.loadedFrom === usualGrip.loadedFrom
  if (load.axis === 'free') return { grip, direction: { azimuthDeg: load.azimuthDeg, elevationDeg: load.elevationDeg } }
  return usual ? undefined : { grip }
}

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

/** "30°, 45° up" */
export function directionWords(azimuthDeg: number, elevationDeg: number): string {
  const shown = (degrees: number): string => `${Number(degrees.toFixed(1))}°`
  return `${shown(azimuthDeg)}, ${shown(Math.abs(elevationDeg))} ${elevationDeg < 0 ? 'down' : 'up'}`
}

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
