import { setTimeout as wait } from 'node:timers/promises'
import express, { type Express, type RequestHandler } from 'express'
import { QueryTypes, type Sequelize } from 'sequelize'
import { checkOrigin } from '../http/checkOrigin'
import { checkToken } from '../http/checkToken'
import { answerProblem, databaseAway, noSuchAddress } from '../http/problems'
import { securityHeaders, workerHeaders } from '../http/securityHeaders'

export interface AppParts {
  readonly sequelize: Sequelize
  readonly port: number
  /** What lets people in, on a desk that is private. */
  readonly token?: string | undefined
  /** Of the features, each beneath its address, in the order in which they are asked. */
  readonly routes: readonly (readonly [path: string, handler: RequestHandler])[]
  /** Folder of the built interface; absent in tests of the API alone. */
  readonly webRoot?: string
}

/** Puts the HTTP side together: guards, routes, the built interface, problems. */
export function createApp({ sequelize, port, token, routes, webRoot }: AppParts): Express {
  const app = express()
  app.disable('x-powered-by')
  app.use(securityHeaders)
  app.use(checkOrigin(port))
  app.use(checkToken(token, port))

  app.get('/api/health', async (_request, response) => {
    await Promise.race([sequelize.query('SELECT 1 AS alive', { type: QueryTypes.SELECT }), databaseAwayAfter(HEALTH_PATIENCE_MS)])
    response.json({ status: 'ok' })
  })
  for (const [path, handler] of routes) app.use(path, handler)
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
