import { experimentSchema } from '@sable/core/log/experiment'
import { frozenPrintSchema, keptOutcomeSchema } from '../prints'
import { storedAs } from './storedAs'
import { resolvedByNamesOfToday } from './upgrades'

export const storedPrint = storedAs('print', frozenPrintSchema, [resolvedByNamesOfToday])
export const storedOutcome = storedAs('outcome', keptOutcomeSchema)
export const storedExperiment = storedAs('experiment', experimentSchema)
