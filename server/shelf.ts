import { type Shelf, shelfSchema } from '@sable/contract/shelf'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import type { Models } from './database/models'

const tables = ['printers', 'nozzles', 'materials'] as const

export function createShelfStore(models: Models) {
  return {
    async read(): Promise<Shelf> {
      const [printers, nozzles, materials] = await Promise.all(
        tables.map(async (table) => {
          const rows = await models[table].findAll({ order: [['position', 'ASC']] })
          return rows.map((row) => JSON.parse(row.record) as unknown)
        }),
      )
      return shelfSchema.parse({ printers, nozzles, materials })
    },

    /** Puts starter records on the shelf; what is there already stays as it is. */
    async addStarters(): Promise<void> {
      const starters = { printers: starterPrinters, nozzles: starterNozzles, materials: starterMaterials }
      for (const table of tables) {
        const rows = starters[table].map((record, position) => ({
          recordKey: record.key,
          position,
          record: JSON.stringify(record),
          starter: true,
        }))
        await models[table].bulkCreate(rows, { ignoreDuplicates: true })
      }
    },
  }
}

export type ShelfStore = ReturnType<typeof createShelfStore>
