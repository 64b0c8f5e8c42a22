import { type ConstantId, type Constants, constantIds, constantOf, moved, valueIn, withValue } from '../constants/constants'
import { type FigureId, figureIds } from '../figures/table/figure'

/**
 * By how much the logarithm of each figure moves for one unit of a constant: of its logarithm, or in its own unit. What moves
 * nothing is left out, and so is a figure that is nought.
 */
export type Slopes = Readonly<Partial<Record<ConstantId, Readonly<Partial<Record<FigureId, number>>>>>>

export type Values = Readonly<Record<FigureId, number>>

/** Constants are moved by so many of their standard deviations. */
const STEP = 0.5

/**
 * Slopes of all figures by finite differences: each constant is moved up and, where that moves anything, down, and the figures
 * are really computed. Yields the share that is done before each.
 *
 * @param valuesWith figures of the candidate with these constants
 */
export function* findSlopes(valuesWith: (constants: Constants) => Values, base: Constants): Generator<number, Slopes> {
  const slopes: Partial<Record<ConstantId, Partial<Record<FigureId, number>>>> = {}
  const now = valuesWith(base)
  for (const [i, id] of constantIds.entries()) {
    yield i / constantIds.length
    const at = (steps: number): Values => valuesWith(withValue(base, id, moved(id, valueIn(base, id), steps)))
    const up = at(STEP)
    if (figureIds.every((figure) => Object.is(up[figure], now[figure]))) continue
    const down = at(-STEP)
    const apart = 2 * STEP * constantOf(id).spread
    const own: Partial<Record<FigureId, number>> = {}
    for (const figure of figureIds) {
      const slope = Math.log(up[figure] / down[figure]) / apart
      if (Number.isFinite(slope) && slope !== 0) own[figure] = slope
    }
    slopes[id] = own
  }
  return slopes
}

/** The same at once, where nobody waits. */
export function slopesOf(valuesWith: (constants: Constants) => Values, base: Constants): Slopes {
  const work = findSlopes(valuesWith, base)
  for (;;) {
    const { done, value } = work.next()
    if (done) return value
  }
}
