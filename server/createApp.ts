import { setTimeout as wait } from 'node:timers/promises'
import { lineupContentSchema, lineupWriteSchema } from '@sable/contract/lineup'
import { LARGEST_UPLOAD } from '@sable/contract/part'
import express, { type Express } from 'express'
import { QueryTypes, type Sequelize } from 'sequelize'
import { checkOrigin } from './guard/checkOrigin'
import { securityHeaders, workerHeaders } from './guard/securityHeaders'
import type { LineupStore } from './lineups'
import type { PartStore } from './parts'
import { answerProblem, databaseAway, ProblemError, parseRequest } from './problems'
import { searchRoutes } from './search/searchRoutes'
import type { SearchRunner } from './search/searchRunner'
import type { SearchStore } from './search/searchStore'
import type { ShelfStore } from './shelf'
import { shelfRoutes } from './shelfRoutes'

export interface AppParts {
  readonly sequelize: Sequelize
  readonly parts: PartStore
  readonly shelf: ShelfStore
  readonly lineups: LineupStore
  readonly searches: SearchStore
  readonly searchRunner: SearchRunner
  readonly port: number
  /** Folder of the built interface; absent in tests of the API alone. */
  readonly webRoot?: string
}

/** Puts the HTTP side together: guards, routes, the built interface, problems. */
export function createApp({ sequelize, parts, shelf, lineups, searches, searchRunner, port, webRoot }: AppParts): Express {
  const app = express()
  app.disable('x-powered-by')
  app.use(securityHeaders)
  app.use(checkOrigin(port))

  app.get('/api/health', async (_request, response) => {
    await Promise.race([sequelize.query('SELECT 1 AS alive', { type: QueryTypes.SELECT }), databaseAwayAfter(HEALTH_PATIENCE_MS)])
    response.json({ status: 'ok' })
  })

  app.use('/api/shelf', shelfRoutes(shelf))
  app.use('/api/searches', searchRoutes(searches, searchRunner))

  app.get('/api/parts', async (_request, response) => {
    response.json(await parts.list())
  })
  app.post('/api/parts', express.raw({ type: () => true, limit: LARGEST_UPLOAD }), async (request, response) => {
    const fileName = fileNameOf(request.query.fileName)
    const bytes: Buffer = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0)
    const name = fileName.replace(/\.stl$/i, '').slice(0, 80) || 'part'
    response.status(201).json(await parts.add({ name, fileName, bytes, demo: false }))
  })
  app.get('/api/parts/:id/file', async (request, response) => {
    const { bytes, contentKey } = await parts.file(request.params.id)
    response
      .set({ ETag: `"${contentKey}"`, 'Cache-Control': 'private, max-age=31536000, immutable' })
      .type('model/stl')
      .send(bytes)
  })

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
    response.json(await lineups.write(request.params.id, parseRequest(lineupWriteSchema, request.body)))
  })
  app.delete('/api/lineups/:id', async (request, response) => {
    await lineups.remove(request.params.id)
    response.status(204).end()
  })
  app.get('/api/profiles/:id/revisions', async (request, response) => {
    response.json(await lineups.profileRevisions(request.params.id))
  })

  app.use('/api', (request) => {
    throw new ProblemError(
      404,
      'no-such-address',
      'There is nothing at this address.',
      `${request.method} ${request.originalUrl}`,
      'Check the address.',
    )
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

const json = express.json({ limit: '2mb' })

function fileNameOf(given: unknown): string {
  const name = typeof given === 'string' ? given.replace(/^.*[\\/]/, '').trim() : ''
  return name === '' ? 'part.stl' : name.slice(0, 255)
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
