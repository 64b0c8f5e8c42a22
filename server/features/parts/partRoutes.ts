import { removedSchema } from '@sable/contract/part'
import { Router } from 'express'
import PQueue from 'p-queue'
import { jsonBody, ProblemError, parseRequest, refuseOtherTypes } from '../../http/problems'
import type { PartStore } from './partStore'
import { receiveUpload } from './receiveUpload'

/** Uploads that are received, waiting or being read at once; the next one is asked to come again. */
const MOST_AT_ONCE = 16
/** Of them so many are received at once; the others wait with what they bring. */
const RECEIVED_AT_ONCE = 3
const COME_AGAIN_S = 10

/** Parts: listed, uploaded, fetched, removed and brought back. @param folder where uploads lie until they are read */
export function partRoutes(parts: PartStore, folder: string): Router {
  const routes = Router()
  let underWay = 0
  const receiving = new PQueue({ concurrency: RECEIVED_AT_ONCE })

  routes.get('/', async (_request, response) => {
    response.json(await parts.list())
  })
  routes.post('/', refuseOtherTypes('application/octet-stream', 'model/*'), async (request, response) => {
    if (underWay >= MOST_AT_ONCE)
      throw new ProblemError(
        503,
        'too-many-uploads',
        `${MOST_AT_ONCE} models are being read already.`,
        '',
        `Load this one again in ${COME_AGAIN_S} s.`,
        undefined,
        { 'Retry-After': String(COME_AGAIN_S) },
      )
    underWay++
    const left = new AbortController()
    response.on('close', () => left.abort())
    try {
      const fileName = fileNameOf(request.query.fileName)
      const upload = await receiving.add(() => receiveUpload(request, folder), { signal: left.signal })
      const name = fileName.replace(/\.(stl|3mf|obj)$/i, '').slice(0, 80) || 'part'
      const part = await parts.add({ name, fileName, ...upload, demo: false }, left.signal).finally(upload.remove)
      response.status(201).json(part)
    } finally {
      underWay--
    }
  })
  routes.get('/:id/file', async (request, response) => {
    const { bytes, contentKey } = await parts.file(request.params.id)
    response
      .set({ ETag: `"${contentKey}"`, 'Cache-Control': 'private, max-age=31536000, immutable' })
      .type('model/stl')
      .send(bytes)
  })
  routes.put('/:id/removed', jsonBody(1024), async (request, response) => {
    const { removed } = parseRequest(removedSchema, request.body)
    const id = request.params.id as string
    await (removed ? parts.remove(id) : parts.bringBack(id))
    response.json(await parts.list())
  })
  return routes
}

function fileNameOf(given: unknown): string {
  const name = typeof given === 'string' ? given.replace(/^.*[\\/]/, '').trim() : ''
  return name === '' ? 'part.stl' : name.slice(0, 255)
}
