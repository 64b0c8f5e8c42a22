import type { JobKindName } from '@sable/contract/job'
import { openSearchUnits } from '../features/searches/searchUnits'

/**
 * Runs one unit of a job: a pure function of what all units of the job share and of its own input. Whatever is remembered
 * between units only saves time.
 */
type RunUnit = (unit: never) => Promise<unknown>

/** What runs the units of each kind of job, in a thread or on another machine. */
export const unitsOf: Readonly<Record<JobKindName, (shared: never) => RunUnit>> = { search: openSearchUnits }
