import { leftOutSchema, readingWriteSchema, trialWriteSchema } from '@sable/contract/trials'
import { Router } from 'express'
import { jsonBody, parseRequest } from '../../http/problems'
import { addPhotoRoutes } from '../photos/photoRoutes'
import type { PhotoStore } from '../photos/photoStore'
import type { TrialStore } from './trialStore'

const json = jsonBody(2 ** 20)

/**
 * Test prints: decided on, read, photographed, readings left out and taken in. Every change answers with all of them, which are small.
 *
 * @param folder where photographs lie until they are made small
 */
export function trialRoutes(trials: TrialStore, photos: PhotoStore, folder: string): Router {
  const routes = Router()
  routes.get('/', async (_request, response) => {
    response.json(await trials.list())
  })
  routes.post('/', json, async (request, response) => {
    response.status(201).json(await trials.add(parseRequest(trialWriteSchema, request.body)))
  })
  routes.delete('/:id', async (request, response) => {
    await trials.remove(request.params.id)
    response.json(await trials.list())
  })
  routes.post('/readings', json, async (request, response) => {
    response.status(201).json(await trials.read(parseRequest(readingWriteSchema, request.body)))
  })
  routes.put('/readings/:id/left-out', json, async (request, response) => {
    await trials.leaveOut(request.params.id as string, parseRequest(leftOutSchema, request.body).leftOut)
    response.json(await trials.list())
  })
  addPhotoRoutes(routes, { photos, folder, told: ({ id, owner }) => ({ id, trial: owner }), afterwards: trials.list })
  return routes
}
