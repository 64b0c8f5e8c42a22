import { randomUUID } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { LARGEST_ORIGINAL } from '@sable/contract/trials'
import sharp from 'sharp'
import type { Models } from '../../database/models'
import { notFound, ProblemError } from '../../http/problems'

/** Longer sides than this are made smaller, px: enough to see a string by. */
const LONGEST = 1600
/** Pixels of a picture that is opened at all: more than any camera's, fewer than a bomb's. */
const MOST_PIXELS = 120e6
/** Photographs of one print. */
const MOST_PHOTOS = 24

export interface KeptPhoto {
  readonly id: string
  /** Of the trial or the print. */
  readonly owner: string
}

/**
 * Photographs of prints, kept small, turned as they were taken, without what a camera says beside them; as the camera took them only where
 * that is wished for.
 *
 * @param what they are of, for what is told
 * @param isThere whether there is such a thing to be photographed
 */
export function createPhotoStore(table: Models['trialPhotos'], what: string, isThere: (id: string) => Promise<boolean>) {
  return {
    /** @throws ProblemError for what is no picture */
    async add(ownerId: string, path: string, withOriginal = false): Promise<KeptPhoto> {
      if (!(await isThere(ownerId))) throw notFound(what, ownerId)
      if ((await table.count({ where: { ownerId } })) >= MOST_PHOTOS)
        throw new ProblemError(422, 'too-many-photos', `This print has ${MOST_PHOTOS} photographs already.`, ownerId, 'Remove one first.')
      const taken = await readFile(path)
      if (withOriginal && taken.length > LARGEST_ORIGINAL)
        throw new ProblemError(
          413,
          'original-too-large',
          `The photograph is larger than ${LARGEST_ORIGINAL / 2 ** 20} MB as the camera took it.`,
          ownerId,
          'Take it in without its original: it is made smaller.',
        )
      const photo = (await small(taken)).toString('base64')
      const original = withOriginal ? taken.toString('base64') : null
      const row = { id: randomUUID(), ownerId, photo, original, takenAt: new Date() }
      await table.create(row)
      return { id: row.id, owner: ownerId }
    },

    /** Of one thing, or of all of them. */
    async list(ownerId?: string): Promise<KeptPhoto[]> {
      const rows = await table.findAll({
        attributes: ['id', 'ownerId'],
        order: [['takenAt', 'ASC']],
        ...(ownerId === undefined ? {} : { where: { ownerId } }),
      })
      return rows.map(({ id, ownerId: owner }) => ({ id, owner }))
    },

    async file(id: string): Promise<Buffer> {
      const row = await table.findByPk(id, { attributes: ['photo'] })
      if (!row) throw notFound('photograph', id)
      return Buffer.from(row.photo, 'base64')
    },

    /** As the camera took it; where that was not kept, as it is shown. */
    async original(id: string): Promise<Buffer> {
      const row = await table.findByPk(id)
      if (!row) throw notFound('photograph', id)
      return Buffer.from(row.original ?? row.photo, 'base64')
    },

    async remove(id: string): Promise<void> {
      if ((await table.destroy({ where: { id } })) === 0) throw notFound('photograph', id)
    },

    /** With the thing go its photographs. */
    async removeOf(ownerId: string): Promise<void> {
      await table.destroy({ where: { ownerId } })
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
