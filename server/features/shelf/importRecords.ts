import { type ShelfFile, type ShelfKind, type ShelfRecords, shelfKinds } from '@sable/contract/shelf'
import type { Sequelize, Transaction } from 'sequelize'
import type { Models, ShelfRevisionRow, ShelfRow } from '../../database/models'
import { transact } from '../../database/transact'
import { ProblemError } from '../../http/problems'
import { createShelfHistory } from './shelfHistory'
import { refuseUnknownMaterial, tableOf, textOf } from './shelfRows'

export interface ImportCount {
  readonly added: number
  readonly replaced: number
}

/**
 * Takes the records of a file; those with a key that is there replace what is there. All or nothing.
 *
 * @throws ProblemError 422 where a key stands twice or a spool's material is not there
 */
export const importRecords = (sequelize: Sequelize, models: Models, file: ShelfFile): Promise<ImportCount> =>
  transact(sequelize, async (transaction) => {
    let [added, replaced] = [0, 0]
    // Spools come after their materials, which may be in the same file.
    for (const kind of shelfKinds) {
      const count = await importKind(models, kind, file[kind], transaction)
      added += count.added
      replaced += count.replaced
    }
    return { added, replaced }
  })

async function importKind(models: Models, kind: ShelfKind, given: ShelfFile[ShelfKind], transaction: Transaction): Promise<ImportCount> {
  const known = new Map((await tableOf(models, kind).findAll({ transaction })).map((row) => [row.recordKey, row]))
  const newest = await createShelfHistory(models).newest(kind, transaction)
  const materials = new Set((await models.materials.findAll({ attributes: ['recordKey'], transaction })).map((row) => row.recordKey))
  const seen = new Set<string>()
  let position = Math.max(-1, ...[...known.values()].map((row) => row.position))
  const [rows, revisions]: [ShelfRow[], ShelfRevisionRow[]] = [[], []]
  for (const { starter, archived, revision: _, ...said } of given) {
    const record = said as ShelfRecords[ShelfKind]
    if (kind === 'spools') refuseUnknownMaterial(record as ShelfRecords['spools'], materials)
    const [recordKey, text] = [record.key, textOf(kind, record)]
    if (seen.has(recordKey)) throw keyTwice(kind, record)
    seen.add(recordKey)
    const row = known.get(recordKey)
    if (row) await row.update({ record: text, archived, revision: row.revision + 1 }, { transaction })
    else rows.push({ recordKey, position: ++position, record: text, starter, archived, revision: 1 })
    revisions.push({ kind, recordKey, revision: (newest.get(recordKey) ?? 0) + 1, record: text, createdAt: new Date() })
  }
  await tableOf(models, kind).bulkCreate(rows, { transaction })
  await models.shelfRevisions.bulkCreate(revisions, { transaction })
  return { added: rows.length, replaced: given.length - rows.length }
}

const keyTwice = (kind: ShelfKind, { key, name }: ShelfRecords[ShelfKind]): ProblemError =>
  new ProblemError(422, 'key-twice', `The key "${key}" stands twice among the ${kind}.`, name, 'Give one of them another key.')
