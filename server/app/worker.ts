import { availableParallelism } from 'node:os'
import { fileURLToPath } from 'node:url'
import { required } from '../database/environment'
import { startUnitWorker } from '../jobs/queue/unitWorker'
import { lanesOfThreads } from '../jobs/threads'

// One worker of the queue: started by `npm run worker`, on any machine that reaches Redis.

const lanes = Number(process.env.SABLE_WORKER_LANES ?? availableParallelism())
const file = fileURLToPath(new URL('./unitThread.js', import.meta.url))
const end = startUnitWorker(required('SABLE_QUEUE'), lanes, lanesOfThreads(file, lanes))
console.log(`Works on what waits at ${new URL(required('SABLE_QUEUE')).host}, ${lanes} at a time. Ctrl-C ends it.`)

const stop = (): void => {
  end().then(() => process.exit(0))
}
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
