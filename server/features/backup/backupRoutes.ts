import { type RequestHandler, Router } from 'express'
import { ProblemError, refuseOtherTypes } from '../../http/problems'
import type { JobRunner } from '../../jobs/jobRunner'
import { receiveUpload } from '../parts/receiveUpload'
import type { Backups } from './backupDesk'

/** Largest backup that is taken, bytes. */
const LARGEST_BACKUP = 8 * 2 ** 30

/**
 * The whole desk as one file, and back. While a backup is put back nothing else is written: `refuseWrites` goes before all other
 * routes.
 */
export function backupRoutes(
  backups: Backups,
  jobs: JobRunner,
  folder: string,
): { readonly routes: Router; readonly refuseWrites: RequestHandler } {
  let isRestoring = false
  const routes = Router()

  routes.get('/', async (_request, response) => {
    const day = new Date().toISOString().slice(0, 10)
    response.set({ 'Content-Type': 'application/zip', 'Content-Disposition': `attachment; filename="sable-lantern-${day}.zip"` })
    await backups.write(response)
  })
  routes.post('/restored', refuseOtherTypes('application/zip', 'application/octet-stream'), async (request, response) => {
    const upload = await receiveUpload(request, folder, { most: LARGEST_BACKUP, what: 'The backup' })
    try {
      if (isRestoring) throw restoring()
      isRestoring = true
      try {
        await jobs.close()
        await backups.restore(upload.path, request.query.over === '1')
      } finally {
        isRestoring = false
        await jobs.resumeUnfinished()
      }
    } finally {
      await upload.remove()
    }
    response.json(await backups.counts())
  })

  const refuseWrites: RequestHandler = (request, _response, next) => {
    if (isRestoring && request.method !== 'GET') throw restoring()
    next()
  }
  return { routes, refuseWrites }
}

const restoring = (): ProblemError =>
  new ProblemError(503, 'restoring', 'A backup is being put back.', '', 'Wait until it is done.', undefined, { 'Retry-After': '2' })
