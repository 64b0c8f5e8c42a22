import { setTimeout as wait } from 'node:timers/promises'
import express, { type Express } from 'express'
import { QueryTypes, type Sequelize } from 'sequelize'
import type { Backups } from '../features/backup/backupDesk'
import { backupRoutes } from '../features/backup/backupRoutes'
import { lineupRoutes } from '../features/lineups/lineupRoutes'
import type { LineupStore } from '../features/lineups/lineupStore'
import { partRoutes } from '../features/parts/partRoutes'
import type { PartStore } from '../features/parts/partStore'
import { searchRoutes } from '../features/searches/searchRoutes'
import type { SearchStore } from '../features/searches/searchStore'
import { setAsideRoutes } from '../features/setAside/setAsideRoutes'
import { shelfRoutes } from '../features/shelf/shelfRoutes'
import type { ShelfStore } from '../features/shelf/shelfStore'
import { checkOrigin } from '../http/checkOrigin'
import { checkToken } from '../http/checkToken'
import { answerProblem, databaseAway, noSuchAddress } from '../http/problems'
import { securityHeaders, workerHeaders } from '../http/securityHeaders'
import { jobRoutes } from '../jobs/jobRoutes'
import type { JobRunner } from '../jobs/jobRunner'
import type { JobStore } from '../jobs/jobStore'

export interface AppParts {
  readonly sequelize: Sequelize
  readonly parts: PartStore
  readonly shelf: ShelfStore
  readonly lineups: LineupStore
  readonly searches: SearchStore
  readonly jobs: JobStore
  readonly jobRunner: JobRunner
  readonly backups: Backups
  readonly port: number
  /** Where uploads lie until they are read. */
  readonly uploadFolder: string
  /** What lets people in, on a desk that is private. */
  readonly token?: string | undefined
  /** Folder of the built interface; absent in tests of the API alone. */
  readonly webRoot?: string
}

/** Puts the HTTP side together: guards, routes, the built interface, problems. */
export function createApp({
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
  token,
  webRoot,
}: AppParts): Express {
  const app = express()
  app.disable('x-powered-by')
  app.use(securityHeaders)
  app.use(checkOrigin(port))
  app.use(checkToken(token, port))

  app.get('/api/health', async (_request, response) => {
    await Promise.race([sequelize.query('SELECT 1 AS alive', { type: QueryTypes.SELECT }), databaseAwayAfter(HEALTH_PATIENCE_MS)])
    response.json({ status: 'ok' })
  })

  const { routes: backupsRoutes, refuseWrites } = backupRoutes(backups, jobRunner, uploadFolder)
  app.use('/api/backup', backupsRoutes)
  app.use(refuseWrites)
  app.use('/api/shelf', shelfRoutes(shelf))
  app.use('/api/set-aside', setAsideRoutes({ parts, shelf, lineups, searches }))
  app.use('/api/searches', searchRoutes(searches, jobRunner))
  app.use('/api/jobs', jobRoutes(jobs))
  app.use('/api/parts', partRoutes(parts, uploadFolder))
  app.use('/api/lineups', lineupRoutes(lineups))

  app.use('/api', (request) => {
    throw noSuchAddress(`${request.method} ${request.originalUrl}`)
  })
  if (webRoot !== undefined) serveInterface(app, webRoot)
  app.use(answerProblem)
  return app
}

/** A database that is there but does not answer within this is as good as away. */
const HEALTH_PATIENCE_MS = 2000

async function databaseAwayAfter(patience: number): Promise<never> {
  await wait(patience, undefined, { ref: false })
  throw databaseAway()
}

/** Built files carry a hash in their names and never change; every other address is the app itself, which routes within. */
function serveInterface(app: Express, webRoot: string): void {
  app.use(/^\/assets\/predictWorker-[\w-]+\.js$/, workerHeaders)
  app.use('/assets', express.static(`${webRoot}/assets`, { immutable: true, maxAge: '1y', fallthrough: false }))
  app.use(express.static(webRoot, { index: false }))
  app.get('/{*path}', (_request, response) => {
    response.set('Cache-Control', 'no-cache').sendFile('index.html', { root: webRoot })
  })
}
