import { Router } from 'express'
import type { z } from 'zod'
import { jsonBody, parseRequest } from '../../http/problems'

/** A store of few things that are kept whole; see `keptStore.ts`. */
interface KeptStore<T> {
  readonly list: () => Promise<unknown>
  readonly add: (one: T) => Promise<unknown>
  readonly write: (id: string, one: T, revision: number) => Promise<unknown>
  readonly remove: (id: string) => Promise<unknown>
}

/**
 * Routes of things that are few: every change answers with all of them.
 *
 * @param written takes the thing out of what a change carries
 * @param most bytes of one
 */
export function keptRoutes<T, W extends { readonly revision: number }>(
  store: KeptStore<T>,
  schemas: { readonly one: z.ZodType<T>; readonly write: z.ZodType<W> },
  written: (change: W) => T,
  most: number,
): Router {
  const json = jsonBody(most)
  const routes = Router()
  routes.get('/', async (_request, response) => {
    response.json(await store.list())
  })
  routes.post('/', json, async (request, response) => {
    response.status(201).json(await store.add(parseRequest(schemas.one, request.body)))
  })
  routes.put('/:id', json, async (request, response) => {
    const change = parseRequest(schemas.write, request.body)
    response.json(await store.write(request.params.id as string, written(change), change.revision))
  })
  routes.delete('/:id', async (request, response) => {
    response.json(await store.remove(request.params.id))
  })
  return routes
}
