import { applyRules, type Check, type Evidence, type Rule } from './check'
import { fitChecks } from './fitChecks'
import { flowChecks } from './flowChecks'
import { heatChecks } from './heatChecks'
import { nozzleChecks } from './nozzleChecks'
import { ownTextChecks } from './ownTextChecks'
import { paceChecks } from './paceChecks'
import { placeChecks } from './placeChecks'
import { propChecks } from './propChecks'
import { pullChecks } from './pullChecks'
import { safetyChecks } from './safetyChecks'
import { spiralChecks } from './spiralChecks'
import { spoolChecks } from './spoolChecks'
import { strengthChecks } from './strengthChecks'
import { swayChecks } from './swayChecks'
import { warpChecks } from './warpChecks'

export const allRules: readonly Rule[] = [
  ...fitChecks,
  ...nozzleChecks,
  ...flowChecks,
  ...paceChecks,
  ...heatChecks,
  ...pullChecks,
  ...propChecks,
  ...strengthChecks,
  ...swayChecks,
  ...spiralChecks,
  ...placeChecks,
  ...warpChecks,
  ...spoolChecks,
  ...ownTextChecks,
  ...safetyChecks,
]

/** Runs every check; the gravest come first. */
export const runChecks = (evidence: Evidence): Check[] => applyRules(allRules, evidence)
