import { LARGEST_PHOTO, leftOutSchema, readingWriteSchema, trialWriteSchema } from '@sable/contract/trials'
import { Router } from 'express'
import { jsonBody, parseRequest, refuseOtherTypes } from '../../http/problems'
import { receiveUpload } from '../parts/receiveUpload'
import type { PhotoStore } from './photoStore'
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
  routes.post('/:id/photos', refuseOtherTypes('image/*', 'application/octet-stream'), async (request, response) => {
    const upload = await receiveUpload(request, folder, { most: LARGEST_PHOTO, what: 'The photograph' })
    const photo = await photos.add(request.params.id as string, upload.path).finally(upload.remove)
    response.status(201).json(photo)
  })
  routes.get('/photos/:id', async (request, response) => {
    const bytes = await photos.file(request.params.id)
    response.set('Cache-Control', 'private, max-age=31536000, immutable').type('image/jpeg').send(bytes)
  })
  routes.delete('/photos/:id', async (request, response) => {
    await photos.remove(request.params.id)
    response.json(await trials.list())
  })
  return routes
}
