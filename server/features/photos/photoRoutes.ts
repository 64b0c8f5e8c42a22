import { LARGEST_PHOTO } from '@sable/contract/trials'
import type { Router } from 'express'
import { refuseOtherTypes } from '../../http/problems'
import { receiveUpload } from '../parts/receiveUpload'
import type { KeptPhoto, PhotoStore } from './photoStore'

interface Of {
  readonly photos: PhotoStore
  /** Where photographs lie until they are made small. */
  readonly folder: string
  readonly told: (photo: KeptPhoto) => unknown
  /** What is answered when one was taken away. */
  readonly afterwards: () => Promise<unknown>
}

/** Photographs of the things of a feature: taken in, shown, and taken away. */
export function addPhotoRoutes(routes: Router, { photos, folder, told, afterwards }: Of): void {
  routes.post('/:id/photos', refuseOtherTypes('image/*', 'application/octet-stream'), async (request, response) => {
    const upload = await receiveUpload(request, folder, { most: LARGEST_PHOTO, what: 'The photograph' })
    response
      .status(201)
      .json(told(await photos.add(request.params.id as string, upload.path, request.query.original === 'kept').finally(upload.remove)))
  })
  routes.get('/photos/:id', async (request, response) => {
    const bytes = await photos.file(request.params.id)
    response.set('Cache-Control', 'private, max-age=31536000, immutable').type('image/jpeg').send(bytes)
  })
  routes.get('/photos/:id/original', async (request, response) => {
    // Whatever it is, it is carried away and not run.
    response
      .attachment(`${request.params.id}.image`)
      .type('application/octet-stream')
      .send(await photos.original(request.params.id))
  })
  routes.delete('/photos/:id', async (request, response) => {
    await photos.remove(request.params.id)
    response.json(await afterwards())
  })
}
