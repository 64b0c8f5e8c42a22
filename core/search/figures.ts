import { z } from 'zod'
import { figureOf, figures, valuesOf } from '../figures/figures'
import { type Figure, type FigureId, figureIds } from '../figures/table/figure'
import type { Purpose } from '../physics/strength/purpose'
import type { Prediction } from '../pipeline/predict'
import type { Scored } from './dominance'

/**
 * Of one variant, in base units, and how many risks would stop it. One that was kept before a figure was thought of lacks it. Of some the load is solved
 * as well, N; nothing where that was refused.
 */
export type Figures = Readonly<Partial<Record<FigureId, number>>> & { readonly stops: number; readonly solvedN?: number | null }

/** The same with every figure: not a number where it is not known. */
export type AllFigures = Readonly<Record<FigureId, number>> & { readonly stops: number }
export const withAll = (known: Figures): AllFigures => ({
  ...(Object.fromEntries(figureIds.map((id) => [id, known[id] ?? Number.NaN])) as Record<FigureId, number>),
  stops: known.stops,
})

export const figuresSchema: z.ZodType<Figures> = z.object({
  ...(Object.fromEntries(figureIds.map((id) => [id, z.number().optional()])) as Record<FigureId, z.ZodOptional<z.ZodNumber>>),
  stops: z.number().int(),
  solvedN: z.number().nullable().optional(),
})

/** What a model has no number for is left out. */
export const figuresOf = (p: Prediction, purpose: Purpose): Figures => ({
  ...Object.fromEntries(Object.entries(valuesOf(p, purpose)).filter(([, value]) => Number.isFinite(value))),
  stops: p.checks.filter(({ severity }) => severity === 'stop').length,
})

const figureSchema = z.enum(figureIds)
export const objectiveSchema = z.object({ figure: figureSchema, better: z.enum(['less', 'more']) })
export type Objective = z.infer<typeof objectiveSchema>

/** A figure with the way that is usually better. */
export const usually = (figure: FigureId): Objective => ({ figure, better: figureOf[figure].better })

export const figureLimitSchema = z.object({
  figure: figureSchema,
  most: z.number().optional(),
  least: z.number().optional(),
})
export type FigureLimit = z.infer<typeof figureLimitSchema>

/** Limits that a purpose sets, as limits of figures. */
export const limitsOf = ({ limits }: Purpose): FigureLimit[] =>
  figures.flatMap(({ id: figure, limit, better }: Figure): FigureLimit[] => {
    const wanted = limit && limits[limit.name]
    if (wanted === undefined) return []
    return [better === 'less' ? { figure, most: wanted } : { figure, least: wanted }]
  })

export const meets = (figures: Figures, limits: readonly FigureLimit[]): boolean => missesOf(figures, limits) === 0

/** By how much limits are missed, each as a share of itself; every risk that would stop the print counts as one whole. */
function missesOf(figures: Figures, limits: readonly FigureLimit[]): number {
  let misses = figures.stops
  for (const { figure, most, least } of limits) {
    const value = figures[figure]
    if (value === undefined) misses += 1
    else if (most !== undefined && value > most) misses += (value - most) / Math.max(Math.abs(most), 1e-9)
    else if (least !== undefined && value < least) misses += (least - value) / Math.max(Math.abs(least), 1e-9)
  }
  return misses
}

/** What a search sees of a variant; one that cannot be printed, or whose figure is not known, is worse than any that can. */
export function scoreOf(figures: Figures | undefined, objectives: readonly Objective[], limits: readonly FigureLimit[]): Scored {
  if (!figures) return { costs: objectives.map(() => Infinity), misses: Infinity }
  return {
    costs: objectives.map(({ figure, better }) => {
      const value = figures[figure]
      return value === undefined ? Infinity : better === 'less' ? value : -value
    }),
    misses: missesOf(figures, limits),
  }
}
