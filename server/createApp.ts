import { setTimeout as wait } from 'node:timers/promises'
import { lineupContentSchema, lineupWriteSchema } from '@sable/contract/lineup'
import express, { type Express } from 'express'
import { QueryTypes, type Sequelize } from 'sequelize'
import type { Backups } from './backup/backupDesk'
import { backupRoutes } from './backup/backupRoutes'
import { checkOrigin } from './guard/checkOrigin'
import { checkToken } from './guard/checkToken'
import { securityHeaders, workerHeaders } from './guard/securityHeaders'
import type { LineupStore } from './lineups'
import { partRoutes } from './parts/partRoutes'
import type { PartStore } from './parts/partStore'
import { answerProblem, databaseAway, jsonBody, noSuchAddress, parseRequest } from './problems'
import { searchRoutes } from './search/searchRoutes'
import type { SearchRunner } from './search/searchRunner'
import type { SearchStore } from './search/searchStore'
import { setAsideRoutes } from './setAsideRoutes'
import type { ShelfStore } from './shelf'
import { shelfRoutes } from './shelfRoutes'

export interface AppParts {
  readonly sequelize: Sequelize
  readonly parts: PartStore
  readonly shelf: ShelfStore
  readonly lineups: LineupStore
  readonly searches: SearchStore
  readonly searchRunner: SearchRunner
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
  searchRunner,
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

  const { routes: backupsRoutes, refuseWrites } = backupRoutes(backups, searchRunner, uploadFolder)
  app.use('/api/backup', backupsRoutes)
  app.use(refuseWrites)
  app.use('/api/shelf', shelfRoutes(shelf))
  app.use('/api/set-aside', setAsideRoutes({ parts, shelf, lineups, searches }))
  app.use('/api/searches', searchRoutes(searches, searchRunner))
  app.use('/api/parts', partRoutes(parts, uploadFolder))

  app.get('/api/lineups', async (_request, response) => {
    response.json(await lineups.list())
  })
  app.post('/api/lineups', json, async (request, response) => {
    response.status(201).json(await lineups.create(parseRequest(lineupContentSchema, request.body)))
  })
  app.get('/api/lineups/:id', async (request, response) => {
    response.json(await lineups.get(request.params.id))
  })
  app.put('/api/lineups/:id', json, async (request, response) => {
    response.json(await lineups.write(request.params.id as string, parseRequest(lineupWriteSchema, request.body)))
  })
  app.delete('/api/lineups/:id', async (request, response) => {
    await lineups.remove(request.params.id)
    response.status(204).end()
  })
  app.get('/api/profiles/:id/revisions', async (request, response) => {
    response.json(await lineups.profileRevisions(request.params.id))
  })

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

const json = jsonBody(2 * 2 ** 20)

/** Built files carry a hash in their names and never change; every other address is the app itself, which routes within. */
function serveInterface(app: Express, webRoot: string): void {
  app.use(/^\/assets\/predictWorker-[\w-]+\.js$/, workerHeaders)
  app.use('/assets', express.static(`${webRoot}/assets`, { immutable: true, maxAge: '1y', fallthrough: false }))
  app.use(express.static(webRoot, { index: false }))
  app.get('/{*path}', (_request, response) => {
    response.set('Cache-Control', 'no-cache').sendFile('index.html', { root: webRoot })
  })
}
