import { doubt, doubtsOf } from '../doubt/doubt'
import { figureOf } from '../figures/figures'
import type { FigureId, Reason } from '../figures/table/figure'
import type { Purpose } from '../physics/strength/purpose'
import type { Prediction } from '../pipeline/predict'
import type { Setup } from '../setup/resolve'

/** Why a figure is what it is, and how sure that is. */
export interface Explanation extends Reason {
  /** Share by which it may be off, both ways, and what that rests on. */
  readonly doubt: number
  readonly doubts: readonly { readonly label: string; readonly share: number }[]
}

export const explain = (figure: FigureId, p: Prediction, setup: Setup, purpose: Purpose): Explanation => ({
  ...figureOf[figure].explain(p, setup, purpose),
  doubt: doubt(figure, p, purpose),
  doubts: doubtsOf(figure, p, purpose),
})
