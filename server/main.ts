import { createServer } from 'node:http'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { createApp } from './app/createApp'
import { connect } from './database/connect'
import { databaseInEnvironment, required } from './database/environment'
import { marksIn } from './database/marks'
import { migrate, NewerDatabase } from './database/migrations/migrate'
import { defineModels } from './database/models'
import { createBackups } from './features/backup/backupDesk'
import { seedDemo } from './features/demo/seed'
import { createLineupStore } from './features/lineups/lineupStore'
import { createPartStore } from './features/parts/partStore'
import { readInProcess } from './features/parts/readInProcess'
import { clearUploads } from './features/parts/receiveUpload'
import { searchJob } from './features/searches/searchJob'
import { createSearchStore } from './features/searches/searchStore'
import { createShelfStore } from './features/shelf/shelfStore'
import { JobRunner } from './jobs/jobRunner'
import { createJobStore } from './jobs/jobStore'
import { lanesThroughQueue } from './jobs/queue/lanesThroughQueue'
import { lanesOfThreads } from './jobs/threads'

// Starts the server with what `scripts/start.mjs` hands over in the environment; says "ready" to its parent.

/** Ends for a reason that starting again does not mend. */
function refuse(sentence: string): Promise<never> {
  const end = (): never => process.exit(1)
  if (process.send) process.send({ refused: sentence }, end)
  else {
    console.error(sentence)
    end()
  }
  return new Promise(() => {})
}

/** Units of a job that are computed at once: the page computes beside them. */
const THREADS = 2

const port = Number(required('SABLE_PORT'))
const address = databaseInEnvironment()
const sequelize = connect(address)
try {
  await migrate(sequelize)
} catch (error) {
  if (!(error instanceof NewerDatabase)) throw error
  await refuse(error.message)
}
const models = defineModels(sequelize)
const uploadFolder = join(required('SABLE_DATA_FOLDER'), 'uploads')
await clearUploads(uploadFolder)
const marks = marksIn(models)
const parts = createPartStore(
  sequelize,
  models,
  readInProcess(fileURLToPath(new URL('./features/parts/readPartProcess.js', import.meta.url))),
)
const shelf = createShelfStore(sequelize, models)
const lineups = createLineupStore(sequelize, models)
const jobs = createJobStore(models)
const searches = createSearchStore(sequelize, models, shelf, jobs)
const queueUrl = process.env.SABLE_QUEUE
const lanes =
  queueUrl === undefined
    ? lanesOfThreads(fileURLToPath(new URL('./app/unitThread.js', import.meta.url)), THREADS)
    : lanesThroughQueue(queueUrl)
const jobRunner = new JobRunner(jobs, { search: searchJob(searches, parts, lanes) })
await seedDemo({ parts, shelf, lineups, marks }, process.env.SABLE_FRESH_DEMO === '1', uploadFolder)
await parts.forgetRemoved(new Date())

await jobRunner.resumeUnfinished()

const backups = createBackups(sequelize, address, join(required('SABLE_DATA_FOLDER'), 'backups'))
const stopDaily = backups.keepDaily()
const app = createApp({
  sequelize,
  parts,
  shelf,
  lineups,
  searches,
  jobs,
  jobRunner,
  backups,
  port,
  uploadFolder,
  token: process.env.SABLE_TOKEN,
  webRoot: fileURLToPath(new URL('../web', import.meta.url)),
})
const server = createServer(app)
server.on('error', (error: NodeJS.ErrnoException) =>
  refuse(
    error.code === 'EADDRINUSE'
      ? `Port ${port} was taken by another program meanwhile. Choose another one: npm start -- --port ${port + 10}`
      : `The page cannot be served on port ${port} (${error.message}).`,
  ),
)
server.listen(port, '127.0.0.1', () => process.send?.('ready'))

// A mistake in one request must not take the desk away from every window.
process.on('unhandledRejection', (error) => console.error(error))

const stop = (): void => {
  stopDaily()
  server.close(async () => {
    await jobRunner.close()
    await sequelize.close()
    process.exit(0)
  })
  server.closeAllConnections()
}
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
process.on('disconnect', stop)
