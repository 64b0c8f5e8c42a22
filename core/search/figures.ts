import { z } from 'zod'
import { seenSurface, statedLoad } from '../figures/judge'
import type { Purpose } from '../physics/strength/purpose'
import type { Prediction } from '../pipeline/predict'
import type { Scored } from './dominance'

/** Figures that a search may weigh against each other. */
export const figureNames = ['time', 'filament', 'cost', 'surface', 'gloss', 'strength', 'sway', 'strings'] as const
export type FigureName = (typeof figureNames)[number]

/** Of one variant, in base units, and how many risks would stop it. */
export type Figures = Readonly<Record<FigureName, number>> & { readonly stops: number }

export const figuresSchema: z.ZodType<Figures> = z.object({
  ...(Object.fromEntries(figureNames.map((name) => [name, z.number()])) as Record<FigureName, z.ZodNumber>),
  stops: z.number().int(),
})

export const figuresOf = (p: Prediction, purpose: Purpose): Figures => ({
  time: p.timeS,
  filament: p.filament.massG,
  cost: p.filament.cost,
  surface: seenSurface(p, purpose).raMeanUm,
  gloss: p.gloss.mean,
  strength: statedLoad(p, purpose).loadN,
  sway: p.sway.topMm,
  strings: p.strings.index,
  stops: p.checks.filter(({ severity }) => severity === 'stop').length,
})

export const objectiveSchema = z.object({ figure: z.enum(figureNames), better: z.enum(['less', 'more']) })
export type Objective = z.infer<typeof objectiveSchema>

/** Which way each figure is usually better; gloss is a matter of taste. */
export const usuallyBetter: Readonly<Record<FigureName, Objective['better']>> = {
  time: 'less',
  filament: 'less',
  cost: 'less',
  surface: 'less',
  gloss: 'more',
  strength: 'more',
  sway: 'less',
  strings: 'less',
}

export const figureLimitSchema = z.object({
  figure: z.enum(figureNames),
  most: z.number().optional(),
  least: z.number().optional(),
})
export type FigureLimit = z.infer<typeof figureLimitSchema>

/** Limits that a purpose sets, as limits of figures. */
export const limitsOf = ({ limits }: Purpose): FigureLimit[] => [
  ...(limits.maxTimeS === undefined ? [] : [{ figure: 'time' as const, most: limits.maxTimeS }]),
  ...(limits.maxMassG === undefined ? [] : [{ figure: 'filament' as const, most: limits.maxMassG }]),
  ...(limits.maxCost === undefined ? [] : [{ figure: 'cost' as const, most: limits.maxCost }]),
  ...(limits.maxRaUm === undefined ? [] : [{ figure: 'surface' as const, most: limits.maxRaUm }]),
  ...(limits.minLoadN === undefined ? [] : [{ figure: 'strength' as const, least: limits.minLoadN }]),
]

export const meets = (figures: Figures, limits: readonly FigureLimit[]): boolean => missesOf(figures, limits) === 0

/** By how much limits are missed, each as a share of itself; every risk that would stop the print counts as one whole. */
function missesOf(figures: Figures, limits: readonly FigureLimit[]): number {
  let misses = figures.stops
  for (const { figure, most, least } of limits) {
    const value = figures[figure]
    if (most !== undefined && value > most) misses += (value - most) / Math.max(Math.abs(most), 1e-9)
    if (least !== undefined && value < least) misses += (least - value) / Math.max(Math.abs(least), 1e-9)
  }
  return misses
}

/** What a search sees of a variant; one that cannot be printed is worse than any that can. */
export function scoreOf(figures: Figures | undefined, objectives: readonly Objective[], limits: readonly FigureLimit[]): Scored {
  if (!figures) return { costs: objectives.map(() => Infinity), misses: Infinity }
  return {
    costs: objectives.map(({ figure, better }) => (better === 'less' ? figures[figure] : -figures[figure])),
    misses: missesOf(figures, limits),
  }
}
