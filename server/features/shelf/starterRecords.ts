import { type ShelfKind, type ShelfRecords, shelfKinds } from '@sable/contract/shelf'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import type { Sequelize } from 'sequelize'
import type { Models, ShelfRow } from '../../database/models'
import { transact } from '../../database/transact'
import { notFound } from '../../http/problems'
import { createShelfHistory } from './shelfHistory'
import { oneOf, tableOf, textOf } from './shelfRows'

const starters: { readonly [Kind in ShelfKind]: readonly ShelfRecords[Kind][] } = {
  printers: starterPrinters,
  nozzles: starterNozzles,
  materials: starterMaterials,
  spools: [],
  profiles: [],
}

/** Records that came with the program. */
export function createStarters(sequelize: Sequelize, models: Models) {
  const history = createShelfHistory(models)
  return {
    /** Brings a record that came with the program back to what it said then. */
    async resetStarter(kind: ShelfKind, key: string): Promise<void> {
      const starter = starters[kind].find((record) => record.key === key)
      if (!starter) throw notFound('starter record', key)
      await transact(sequelize, async (transaction) => {
        const row = await tableOf(models, kind).findByPk(key, { transaction, lock: transaction.LOCK.UPDATE })
        if (!row) throw notFound(oneOf[kind], key)
        await history.keep(kind, key, row.record, transaction)
        await row.update({ record: textOf(kind, starter), archived: false, revision: row.revision + 1 }, { transaction })
        await history.keep(kind, key, textOf(kind, starter), transaction)
      })
    },

    /** Puts starter records on the shelf that are not there; what is there stays as it is. */
    async addStarters(): Promise<void> {
      const every = shelfKinds.map((kind) => {
        const rows: ShelfRow[] = starters[kind].map((record, position) => ({
          recordKey: record.key,
          position,
          record: textOf(kind, record),
          starter: true,
          archived: false,
          revision: 1,
        }))
        return { kind, rows }
      })
      await transact(sequelize, async (transaction) => {
        for (const { kind, rows } of every)
          if (rows.length > 0) await tableOf(models, kind).bulkCreate(rows, { ignoreDuplicates: true, transaction })
      })
    },
  }
}
