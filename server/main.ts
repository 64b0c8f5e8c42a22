import { createServer } from 'node:http'
import { fileURLToPath } from 'node:url'
import { addressIn } from '@sable/core/shelf/address'
import { foldersIn, openDesk } from './app/openDesk'
import { connect } from './database/connect'
import { databaseInEnvironment, required } from './database/environment'
import { NewerDatabase } from './database/migrations/migrate'
import { lendStandin } from './features/demo/lendStandin'
import { seedDemo } from './features/demo/seed'
import { readInProcess } from './features/parts/readInProcess'
import { clearUploads } from './features/parts/receiveUpload'
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
const { uploadFolder, backupFolder } = foldersIn(required('SABLE_DATA_FOLDER'))
const built = (file: string): string => fileURLToPath(new URL(file, import.meta.url))
const queueUrl = process.env.SABLE_QUEUE
const desk = await openDesk({
  sequelize,
  address,
  uploadFolder,
  backupFolder,
  read: readInProcess(built('./features/parts/readPartProcess.js')),
  lanes: queueUrl === undefined ? lanesOfThreads(built('./app/unitThread.js'), THREADS) : lanesThroughQueue(queueUrl),
  port,
  token: process.env.SABLE_TOKEN,
  instruments: {
    scale: addressIn(process.env.SABLE_SCALE ?? ''),
    caliper: addressIn(process.env.SABLE_CALIPER ?? ''),
    table: addressIn(process.env.SABLE_TABLE ?? ''),
  },
  webRoot: built('../web'),
}).catch((error: unknown) => {
  if (!(error instanceof NewerDatabase)) throw error
  return refuse(error.message)
})
await clearUploads(uploadFolder)
await seedDemo(desk, process.env.SABLE_FRESH_DEMO === '1', uploadFolder)
await lendStandin(desk.shelf, process.env.SABLE_STANDIN_PRINTER)
await desk.lineups.forgetRemoved(new Date())
await desk.parts.forgetRemoved(new Date())
await desk.jobRunner.resumeUnfinished()
const stopDaily = desk.backups.keepDaily()
const server = createServer(desk.app)
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
  desk.machines.close()
  server.close(async () => {
    await desk.jobRunner.close()
    await sequelize.close()
    process.exit(0)
  })
  server.closeAllConnections()
}
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
process.on('disconnect', stop)
