import { randomUUID } from 'node:crypto'
import { partSchema, type StoredPart } from '@sable/contract/part'
import { storedReport } from '@sable/contract/stored/storedParts'
import type { MeshReport } from '@sable/core/mesh/repair'
import { InputError } from '@sable/core/units/errors'
import PQueue from 'p-queue'
import { Op, QueryTypes, type Sequelize, type Transaction } from 'sequelize'
import type { Models, PartRow } from '../../database/models'
import { readEach, type Unreadable } from '../../database/readEach'
import { transact } from '../../database/transact'
import { notFound, ProblemError } from '../../http/problems'
import type { PartReader } from './readInProcess'
import type { Upload } from './receiveUpload'

export interface NewPart extends Omit<Upload, 'remove'> {
  readonly name: string
  readonly fileName: string
  readonly demo: boolean
}

/** A part that was removed can be brought back for so long, ms. */
const KEPT_MS = 7 * 24 * 3600 * 1000

/** Parts and their files. A file is stored once, under the hash of its content. */
export function createPartStore(sequelize: Sequelize, models: Models, read: PartReader) {
  /** Files are read and stored one after another: each may take as much memory as a file may. */
  const turns = new PQueue({ concurrency: 1 })

  const sizes = async (): Promise<Map<string, number>> => {
    const blobs = await models.blobs.findAll({ attributes: ['contentKey', 'size'] })
    return new Map(blobs.map(({ contentKey, size }) => [contentKey, size]))
  }
  const readRows = async () => {
    const rows = await models.parts.findAll({ where: { removedAt: null }, order: [['createdAt', 'ASC']] })
    const sizeOf = await sizes()
    return readEach(rows, (row) => asPart(row, sizeOf.get(row.contentKey) ?? 0))
  }

  const store = async (part: NewPart, signal?: AbortSignal): Promise<StoredPart> => {
    const known = await models.parts.findOne({ where: { contentKey: part.contentKey } })
    const [stillGood] = known ? readEach([known], (row) => asPart(row, part.size)).values : []
    if (known && stillGood) {
      if (known.removedAt !== null) await known.update({ removedAt: null })
      return stillGood
    }
    const report = await read(part.path, part.fileName, signal)
    if (known) {
      // It was set aside: what is known of its file is found anew.
      const mended = checked({ ...known.get(), report: storedReport.write(report) }, part.size, report)
      await known.update({ report: storedReport.write(report), removedAt: null })
      return mended
    }
    const row: PartRow = {
      id: randomUUID(),
      name: part.name,
      fileName: part.fileName,
      contentKey: part.contentKey,
      report: storedReport.write(report),
      demo: part.demo,
      createdAt: new Date(),
      removedAt: null,
    }
    // What could not be read again is refused before it is there.
    const stored = checked(row, part.size, report)
    await transact(sequelize, async (transaction) => {
      await storeFile(sequelize, part, transaction)
      await models.parts.create(row, { transaction })
    })
    return stored
  }

  return {
    async list(): Promise<StoredPart[]> {
      return (await readRows()).values
    },

    /** Stores a part; a file that is here already gives the part it belongs to. @throws InputError for a bad file */
    add: (part: NewPart, signal?: AbortSignal): Promise<StoredPart> => turns.add(() => store(part, signal), signal ? { signal } : {}),

    async file(id: string): Promise<{ bytes: Buffer; contentKey: string; fileName: string }> {
      const part = await models.parts.findByPk(id)
      const blob = part && (await models.blobs.findByPk(part.contentKey))
      if (!part || !blob) throw notFound('part', id)
      return { bytes: blob.bytes, contentKey: part.contentKey, fileName: part.fileName }
    },

    /** Takes a part away; it can be brought back for a week. @throws ProblemError 409 naming the lineups that use it */
    remove: (id: string): Promise<void> =>
      transact(sequelize, async (transaction) => {
        const row = await models.parts.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE })
        if (!row || row.removedAt !== null) throw notFound('part', id)
        const uses = await models.lineups.findAll({ where: { partId: id }, attributes: ['name', 'removedAt'], transaction })
        if (uses.length > 0)
          throw new ProblemError(
            409,
            'part-in-use',
            `This part is in use: ${uses.map(({ name, removedAt }) => `lineup "${name}"${removedAt === null ? '' : ' (removed, and kept for a while)'}`).join(', ')}.`,
            row.name,
            'Remove those lineups first (for good, where they are only kept), or choose another part there.',
          )
        await row.update({ removedAt: new Date() }, { transaction })
      }),

    async bringBack(id: string): Promise<void> {
      const row = await models.parts.findByPk(id)
      if (!row) throw notFound('part', id)
      await row.update({ removedAt: null })
    },

    /** Lets go of parts that were removed long ago, with their files. */
    async forgetRemoved(now: Date): Promise<void> {
      const old = await models.parts.findAll({ where: { removedAt: { [Op.lt]: new Date(now.getTime() - KEPT_MS) } } })
      for (const row of old)
        await transact(sequelize, async (transaction) => {
          await row.destroy({ transaction })
          await models.blobs.destroy({ where: { contentKey: row.contentKey }, transaction })
        })
    },

    async unreadable(): Promise<Unreadable[]> {
      return (await readRows()).unreadable.map(({ row, why }) => ({ kind: 'part', id: row.id, name: row.name, why, stored: row.report }))
    },
  }
}

export type PartStore = ReturnType<typeof createPartStore>

/**
 * Stores a model's file. The database fetches it from the disk by itself: sent through a connection it would hold up every
 * other request for a second, and take three times its size.
 */
async function storeFile(sequelize: Sequelize, { path, contentKey, size }: NewPart, transaction: Transaction): Promise<void> {
  await sequelize.query('INSERT INTO blobs (content_key, bytes, size) VALUES (?, LOAD_FILE(?), ?) ON DUPLICATE KEY UPDATE size = size', {
    replacements: [contentKey, path, size],
    transaction,
  })
  const [kept] = await sequelize.query<{ length: number }>('SELECT LENGTH(bytes) AS length FROM blobs WHERE content_key = ?', {
    type: QueryTypes.SELECT,
    replacements: [contentKey],
    transaction,
  })
  if (kept?.length !== size) throw new Error(`The file of a model was not stored whole: ${kept?.length} of ${size} bytes.`)
}

const asPart = (row: PartRow, bytes: number): StoredPart =>
  partSchema.parse({
    id: row.id,
    name: row.name,
    fileName: row.fileName,
    contentKey: row.contentKey,
    bytes,
    report: storedReport.read(row.report),
    demo: Boolean(row.demo),
    createdAt: row.createdAt.toISOString(),
  })

function checked(row: PartRow, bytes: number, report: MeshReport): StoredPart {
  const numbers = [report.volumeMm3, report.areaMm2, ...report.sizeMm]
  try {
    if (numbers.every(Number.isFinite)) return asPart(row, bytes)
  } catch {
    // Told below.
  }
  throw new InputError(
    'model-unmeasurable',
    'Size, surface or volume of the model cannot be told.',
    row.fileName,
    'Export the part as a solid body, in millimetres and near its origin.',
  )
}
