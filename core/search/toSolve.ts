import type { Purpose } from '../physics/strength/purpose'
import { notSolved } from '../pipeline/solvedWork'
import { crowdingDistances, frontOf } from './dominance'
import { type FigureLimit, type Figures, type Objective, scoreOf, usually } from './figures'

/** So many variants of a search are solved at most. */
export const MOST_SOLVED = 16

/**
 * Which variants of a search are worth solving in the end, by their places: the front by everything that matters and by strength, whatever load is
 * wanted, for by sections a part may seem to bear it that does not, and the other way round. Of a long front those that stand farthest apart. None
 * where strength matters nothing, or is not solved.
 */
export function toSolve(
  figures: readonly (Figures | undefined)[],
  {
    objectives,
    limits,
    purpose,
  }: { readonly objectives: readonly Objective[]; readonly limits: readonly FigureLimit[]; readonly purpose: Purpose },
): number[] {
  const matters = [...objectives, ...limits].some(({ figure }) => figure === 'strength')
  if (!matters || purpose.kind === 'show' || notSolved(purpose) !== undefined) return []
  const also = objectives.some(({ figure }) => figure === 'strength') ? objectives : [...objectives, usually('strength')]
  const others = limits.filter(({ figure }) => figure !== 'strength')
  const scores = figures.map((own) => scoreOf(own, also, others))
  const front = frontOf(scores).filter((i) => figures[i] !== undefined)
  if (front.length <= MOST_SOLVED) return front
  const apart = crowdingDistances(scores, front)
  return [...front]
    .sort((a, b) => apart.get(b)! - apart.get(a)! || a - b)
    .slice(0, MOST_SOLVED)
    .sort((a, b) => a - b)
}
