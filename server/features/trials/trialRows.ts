import { storedReading, storedTrial } from '@sable/contract/stored/storedTrials'
import type { Reading, Trial } from '@sable/contract/trials'
import type { ReadingRow, TrialRow } from '../../database/models'

export const asTrial = ({ id, trial, madeAt }: TrialRow): Trial => ({ ...storedTrial.read(trial), id, madeAt: madeAt.toISOString() })

export const asReading = ({ id, trialId, reading, leftOut, readAt }: ReadingRow): Reading => ({
  ...storedReading.read(reading),
  id,
  trial: trialId,
  leftOut: Boolean(leftOut),
  readAt: readAt.toISOString(),
})
