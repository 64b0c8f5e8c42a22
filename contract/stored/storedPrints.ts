import { experimentSchema } from '@sable/core/log/experiment'
import { frozenPrintSchema, keptOutcomeSchema } from '../prints'
import { storedAs } from './storedAs'

export const storedPrint = storedAs('print', frozenPrintSchema)
export const storedOutcome = storedAs('outcome', keptOutcomeSchema)
export const storedExperiment = storedAs('experiment', experimentSchema)
