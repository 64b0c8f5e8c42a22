import type { LimitName, Purpose } from '../physics/strength/purpose'
import type { Prediction } from '../pipeline/predict'
import { cooling } from './table/cooling'
import { cost } from './table/cost'
import { type Figure, type FigureId, figureIds } from './table/figure'
import { filament } from './table/filament'
import { fit } from './table/fit'
import { gloss } from './table/gloss'
import { strength } from './table/strength'
import { strings } from './table/strings'
import { surface } from './table/surface'
import { sway } from './table/sway'
import { time } from './table/time'
import { unslowed } from './table/unslowed'
import { warp } from './table/warp'

/** The one table of figures. */
export const figureOf: Readonly<Record<FigureId, Figure>> = {
  time,
  unslowed,
  filament,
  cost,
  surface,
  gloss,
  strength,
  cooling,
  sway,
  strings,
  fit,
  warp,
}

/** In their order. */
export const figures: readonly Figure[] = figureIds.map((id) => figureOf[id])

/** Those that have a row of their own where candidates are read side by side. */
export const figureRows: readonly Figure[] = figures.filter(({ beside }) => beside === undefined)

export const isFigureId = (id: string): id is FigureId => Object.hasOwn(figureOf, id)

/** All figures of a candidate in base units. */
export const valuesOf = (p: Prediction, purpose: Purpose): Readonly<Record<FigureId, number>> =>
  Object.fromEntries(figures.map(({ id, value }) => [id, value(p, purpose)])) as Record<FigureId, number>

/** The figure that a limit of a purpose is set on. */
export const limitedBy = (limit: LimitName): Figure => figures.find((figure) => figure.limit?.name === limit)!

/** Limits that a purpose can set, in the order of their figures. */
export const limitNames: readonly LimitName[] = figures.flatMap(({ limit }) => (limit ? [limit.name] : []))
