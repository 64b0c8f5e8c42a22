import { randomUUID } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import type { TrialPhoto } from '@sable/contract/trials'
import sharp from 'sharp'
import type { Models } from '../../database/models'
import { notFound, ProblemError } from '../../http/problems'

/** Longer sides than this are made smaller, px: enough to see a string by. */
const LONGEST = 1600
/** Pixels of a picture that is opened at all: more than any camera's, fewer than a bomb's. */
const MOST_PIXELS = 120e6
/** Photographs of one print. */
const MOST_PHOTOS = 24

/** Photographs of prints, kept small, turned as they were taken, without what a camera says beside them. */
export function createPhotoStore(models: Models) {
  return {
    /** @throws ProblemError for what is no picture */
    async add(trialId: string, path: string): Promise<TrialPhoto> {
      if (!(await models.trials.findByPk(trialId))) throw notFound('trial', trialId)
      if ((await models.trialPhotos.count({ where: { trialId } })) >= MOST_PHOTOS)
        throw new ProblemError(422, 'too-many-photos', `This print has ${MOST_PHOTOS} photographs already.`, trialId, 'Remove one first.')
      const bytes = await small(await readFile(path))
      const row = { id: randomUUID(), trialId, photo: bytes.toString('base64'), takenAt: new Date() }
      await models.trialPhotos.create(row)
      return { id: row.id, trial: trialId }
    },

    async list(): Promise<TrialPhoto[]> {
      const rows = await models.trialPhotos.findAll({ attributes: ['id', 'trialId'], order: [['takenAt', 'ASC']] })
      return rows.map(({ id, trialId }) => ({ id, trial: trialId }))
    },

    async file(id: string): Promise<Buffer> {
      const row = await models.trialPhotos.findByPk(id)
      if (!row) throw notFound('photograph', id)
      return Buffer.from(row.photo, 'base64')
    },

    async remove(id: string): Promise<void> {
      if ((await models.trialPhotos.destroy({ where: { id } })) === 0) throw notFound('photograph', id)
    },
  }
}

export type PhotoStore = ReturnType<typeof createPhotoStore>

async function small(bytes: Buffer): Promise<Buffer> {
  try {
    return await sharp(bytes, { limitInputPixels: MOST_PIXELS })
      .rotate()
      .resize({ width: LONGEST, height: LONGEST, fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 80 })
      .toBuffer()
  } catch (error) {
    throw new ProblemError(
      422,
      'no-picture',
      `The file is no picture that can be opened (${error instanceof Error ? error.message.split('\n')[0] : error}).`,
      '',
      'Take a JPEG, PNG or WebP of at most 120 megapixels.',
    )
  }
}
