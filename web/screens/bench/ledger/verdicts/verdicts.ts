import { coolingVerdict, swayVerdict } from './makingVerdicts'
import { costVerdict, filamentVerdict, timeVerdict } from './spendVerdicts'
import { strengthVerdict } from './strengthVerdict'
import { glossVerdict, stringsVerdict, surfaceVerdict } from './surfaceVerdicts'
import type { Verdict } from './verdict'

/** The figures of the ledger in their order. */
export const verdicts: readonly Verdict[] = [
  timeVerdict,
  filamentVerdict,
  costVerdict,
  surfaceVerdict,
  glossVerdict,
  strengthVerdict,
  coolingVerdict,
  swayVerdict,
  stringsVerdict,
]
