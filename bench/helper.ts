import { parentPort } from 'node:worker_threads'
import { openKernel } from '@sable/cli/openKernel'
import { Crew } from '@sable/core/pipeline/crew/crew'
import { lineOf } from './lineOf'

// The second of the two threads on which predictions are measured.
const kernel = openKernel()
new Crew(() => kernel, [lineOf(parentPort!)])
