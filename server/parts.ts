import { createHash, randomUUID } from 'node:crypto'
import { partSchema, type StoredPart } from '@sable/contract/part'
import type { MeshReport } from '@sable/core/mesh/repair'
import type { Sequelize } from 'sequelize'
import type { Models, PartRow } from './database/models'
import { notFound } from './problems'

/** Reads a model file away from the event loop. */
export type PartReader = (bytes: Uint8Array, fileName: string) => Promise<MeshReport>

export interface NewPart {
  readonly name: string
  readonly fileName: string
  readonly bytes: Buffer
  readonly demo: boolean
}

/** Parts and their files. A file is stored once, under the hash of its content. */
export function createPartStore(sequelize: Sequelize, models: Models, read: PartReader) {
  return {
    async list(): Promise<StoredPart[]> {
      const rows = await models.parts.findAll({ order: [['createdAt', 'ASC']] })
      const sizes = await models.blobs.findAll({ attributes: ['contentKey', 'size'] })
      const sizeOf = new Map(sizes.map((blob) => [blob.contentKey, blob.size]))
      return rows.map((row) => asPart(row, sizeOf.get(row.contentKey) ?? 0))
    },

    /** Stores a part; a file that is here already gives the part it belongs to. @throws InputError for a bad file */
    async add(part: NewPart): Promise<StoredPart> {
      const key = createHash('sha256').update(part.bytes).digest('hex')
      const known = await models.parts.findOne({ where: { contentKey: key } })
      if (known) return asPart(known, part.bytes.length)
      const report = await read(part.bytes, part.fileName)
      const row: PartRow = {
        id: randomUUID(),
        name: part.name,
        fileName: part.fileName,
        contentKey: key,
        report: JSON.stringify(report),
        demo: part.demo,
        createdAt: new Date(),
      }
      await sequelize.transaction(async (transaction) => {
        await models.blobs.create({ contentKey: key, bytes: part.bytes, size: part.bytes.length }, { transaction, ignoreDuplicates: true })
        await models.parts.create(row, { transaction })
      })
      return asPart(row, part.bytes.length)
    },

    async file(id: string): Promise<{ bytes: Buffer; contentKey: string; fileName: string }> {
      const part = await models.parts.findByPk(id)
      const blob = part && (await models.blobs.findByPk(part.contentKey))
      if (!part || !blob) throw notFound('part', id)
      return { bytes: blob.bytes, contentKey: part.contentKey, fileName: part.fileName }
    },
  }
}

export type PartStore = ReturnType<typeof createPartStore>

const asPart = (row: PartRow, bytes: number): StoredPart =>
  partSchema.parse({
    id: row.id,
    name: row.name,
    fileName: row.fileName,
    contentKey: row.contentKey,
    bytes,
    report: JSON.parse(row.report),
    demo: Boolean(row.demo),
    createdAt: row.createdAt.toISOString(),
  })
