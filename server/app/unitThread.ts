import type { JobKindName } from '@sable/contract/job'
import { workerData } from 'piscina'
import { unitsOf } from './units'

const { kind, shared } = workerData as { readonly kind: JobKindName; readonly shared: never }
const run = unitsOf[kind](shared)

/** A thread that runs the units of one job, one after another. */
export default (unit: never): Promise<unknown> => run(unit)
