import { LARGEST_PROGRAM } from '@sable/contract/machines'
import { frozenPrintSchema, outcomeWriteSchema, printFilterSchema, startSchema } from '@sable/contract/prints'
import { leftOutSchema } from '@sable/contract/trials'
import { Router } from 'express'
import { z } from 'zod'
import { jsonBody, parseRequest, refuseOtherTypes } from '../../http/problems'
import { receiveUpload } from '../parts/receiveUpload'
import { addPhotoRoutes } from '../photos/photoRoutes'
import type { PhotoStore } from '../photos/photoStore'
import type { PrintStore } from './printStore'
import type { ProgramStore } from './programStore'

const json = jsonBody(4 * 2 ** 20)
const trailAskSchema = z.object({ name: z.string().min(1).max(120) })
const dateOf = (text: string | undefined): Date | undefined => (text === undefined ? undefined : new Date(text))

/**
 * The day book: prints that are planned, run and ended, and what became of them.
 *
 * @param folder where photographs lie until they are made small
 */
export function printRoutes(prints: PrintStore, photos: PhotoStore, programs: ProgramStore, folder: string): Router {
  const routes = Router()
  routes.get('/', async (request, response) => {
    response.json(await prints.list(parseRequest(printFilterSchema, request.query)))
  })
  routes.post('/', json, async (request, response) => {
    response.status(201).json(await prints.plan(parseRequest(frozenPrintSchema, request.body)))
  })
  routes.get('/trail', async (request, response) => {
    response.json(await prints.trail(parseRequest(trailAskSchema, request.query).name))
  })
  routes.get('/:id', async (request, response) => {
    response.json(await prints.get(request.params.id))
  })
  routes.delete('/:id', async (request, response) => {
    await prints.remove(request.params.id)
    response.status(204).end()
  })
  routes.post('/:id/start', json, async (request, response) => {
    const { at } = parseRequest(startSchema, request.body)
    response.json(await prints.start(request.params.id as string, dateOf(at)))
  })
  routes.put('/:id/outcome', json, async (request, response) => {
    const { outcome, endedAt } = parseRequest(outcomeWriteSchema, request.body)
    response.json(await prints.end(request.params.id as string, outcome, dateOf(endedAt)))
  })
  routes.put('/:id/left-out', json, async (request, response) => {
    response.json(await prints.leaveOut(request.params.id as string, parseRequest(leftOutSchema, request.body).leftOut))
  })
  routes.post('/:id/program', refuseOtherTypes('text/*', 'application/octet-stream'), async (request, response) => {
    const { line } = await prints.get(request.params.id as string)
    const upload = await receiveUpload(request, folder, { most: LARGEST_PROGRAM, what: 'The program' })
    await programs.keepProgram(line.id, upload.path, upload.contentKey).finally(upload.remove)
    response.status(201).json({ sha256: upload.contentKey, bytes: upload.size })
  })
  addPhotoRoutes(routes, { photos, folder, told: ({ id, owner }) => ({ id, print: owner }), afterwards: async () => ({}) })
  return routes
}
