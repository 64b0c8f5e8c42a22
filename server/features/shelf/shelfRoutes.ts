import {
  archiveSchema,
  recordSchemas,
  recordWriteSchema,
  type ShelfKind,
  type ShelfRecords,
  shelfFileSchema,
  shelfKindSchema,
} from '@sable/contract/shelf'
import { Router } from 'express'
import { jsonBody, parseRequest } from '../../http/problems'
import type { ShelfStore } from './shelfStore'

const json = jsonBody(4 * 2 ** 20)

/** What can be done to the shelf. Every change answers with the whole shelf, which is small. */
export function shelfRoutes(shelf: ShelfStore): Router {
  const routes = Router()
  const kindOf = (value: unknown): ShelfKind => parseRequest(shelfKindSchema, value)
  const recordOf = (kind: ShelfKind, body: unknown) => parseRequest<ShelfRecords[ShelfKind]>(recordSchemas[kind], body)

  routes.get('/', async (_request, response) => {
    response.json(await shelf.read())
  })
  routes.get('/file', async (_request, response) => {
    response.json(await shelf.export())
  })
  routes.post('/file', json, async (request, response) => {
    const counts = await shelf.import(parseRequest(shelfFileSchema, request.body))
    response.json({ ...counts, shelf: await shelf.read() })
  })
  routes.post('/starters', async (_request, response) => {
    await shelf.addStarters()
    response.json(await shelf.read())
  })
  routes.post('/:kind', json, async (request, response) => {
    const kind = kindOf(request.params.kind)
    const { key } = await shelf.add(kind, recordOf(kind, request.body))
    response.status(201).json({ key, shelf: await shelf.read() })
  })
  routes.put('/:kind/:key', json, async (request, response) => {
    const kind = kindOf(request.params.kind)
    const { revision, record } = parseRequest(recordWriteSchema, request.body)
    await shelf.write(kind, request.params.key as string, recordOf(kind, record), revision)
    response.json(await shelf.read())
  })
  routes.put('/:kind/:key/archived', json, async (request, response) => {
    const { archived } = parseRequest(archiveSchema, request.body)
    await shelf.archive(kindOf(request.params.kind), request.params.key as string, archived)
    response.json(await shelf.read())
  })
  routes.post('/:kind/:key/starter', async (request, response) => {
    await shelf.resetStarter(kindOf(request.params.kind), request.params.key)
    response.json(await shelf.read())
  })
  routes.get('/:kind/:key/uses', async (request, response) => {
    response.json(await shelf.uses(kindOf(request.params.kind), request.params.key))
  })
  routes.get('/:kind/:key/revisions', async (request, response) => {
    response.json(await shelf.revisions(kindOf(request.params.kind), request.params.key))
  })
  routes.delete('/:kind/:key', async (request, response) => {
    await shelf.remove(kindOf(request.params.kind), request.params.key)
    response.json(await shelf.read())
  })
  return routes
}
