import { readingSchema, trialWriteSchema } from '../trials'
import { storedAs } from './storedAs'

export const storedTrial = storedAs('trial', trialWriteSchema)
/** What is said of a reading beside the columns that it has. */
export const storedReading = storedAs('reading', readingSchema.omit({ id: true, trial: true, readAt: true, leftOut: true }))
