import { type TrialKindId, trialKindIds } from './spec/trial'
import { allRound } from './table/allRound'
import { barsLying, barsStanding } from './table/bars'
import { bed } from './table/bed'
import { bridge } from './table/bridge'
import { dimensions } from './table/dimensions'
import { dryness } from './table/dryness'
import { fan } from './table/fan'
import { flowLadder } from './table/flowLadder'
import { gloss } from './table/gloss'
import type { TrialKind } from './table/kind'
import { overhang } from './table/overhang'
import { retraction } from './table/retraction'
import { ringing } from './table/ringing'
import { temperature } from './table/temperature'
import { smallTip, thinRod } from './table/tips'

/** All kinds of trial. A new one gets its id in `trial.ts`, its file in `kinds/`, and its line here. */
export const trialKinds: Readonly<Record<TrialKindId, TrialKind>> = {
  dryness,
  temperature,
  bed,
  flowLadder,
  retraction,
  fan,
  overhang,
  bridge,
  gloss,
  ringing,
  dimensions,
  barsLying,
  barsStanding,
  thinRod,
  smallTip,
  allRound,
}

/** In the order in which a spool is got to know. */
export const kindsInOrder: readonly TrialKind[] = trialKindIds.map((id) => trialKinds[id])
