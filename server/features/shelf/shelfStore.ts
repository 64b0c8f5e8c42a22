import {
  keyFor,
  type PrintUse,
  SHELF_FILE_VERSION,
  type Shelf,
  type ShelfFile,
  type ShelfKind,
  type ShelfRecords,
  shelfFileSchema,
  shelfKinds,
  type Uses,
} from '@sable/contract/shelf'
import { storedRecords } from '@sable/contract/stored/storedShelf'
import type { PlacedReading } from '@sable/contract/trials'
import type { Sequelize, Transaction } from 'sequelize'
import type { Models } from '../../database/models'
import { readEach, type Unreadable } from '../../database/readEach'
import { transact } from '../../database/transact'
import { notFound, ProblemError } from '../../http/problems'
import { importRecords } from './importRecords'
import { createShelfHistory } from './shelfHistory'
import { oneOf, refuseUnknownMaterial, tableOf as tableOfKind, textOf } from './shelfRows'
import { createStarters } from './starterRecords'

/** Printers, nozzles, materials and spools. */
export function createShelfStore(
  sequelize: Sequelize,
  models: Models,
  evidence: () => Promise<PlacedReading[]>,
  uses: () => Promise<PrintUse[]>,
) {
  const tableOf = (kind: ShelfKind) => tableOfKind(models, kind)
  const history = createShelfHistory(models)

  const readKind = async (kind: ShelfKind) => {
    const rows = await tableOf(kind).findAll({ order: [['position', 'ASC']], raw: true })
    return readEach(rows, (row) => ({
      ...storedRecords[kind].read(row.record),
      starter: Boolean(row.starter),
      archived: Boolean(row.archived),
      revision: row.revision,
    }))
  }
  const find = async (kind: ShelfKind, key: string, transaction?: Transaction) => {
    const row = await tableOf(kind).findByPk(key, transaction ? { transaction } : {})
    if (!row) throw notFound(oneOf[kind], key)
    return row
  }
  const nextPosition = async (kind: ShelfKind, transaction: Transaction): Promise<number> => {
    const last = await tableOf(kind).findOne({ order: [['position', 'DESC']], attributes: ['position'], transaction })
    return (last?.position ?? -1) + 1
  }

  const usesOf = async (kind: ShelfKind, key: string): Promise<Uses> => {
    // A profile of the library is copied into a column; nothing hangs on it.
    const columns = kind === 'profiles' ? [] : await models.candidates.findAll({ where: { [oneOf[kind]]: key }, attributes: ['lineupId'] })
    const lineups = await models.lineups.findAll({ where: { id: columns.map(({ lineupId }) => lineupId) } })
    const spools = kind === 'materials' ? (await records()).spools.filter(({ material }) => material === key) : []
    return {
      lineups: lineups.map(({ name, removedAt }) => (removedAt === null ? name : `${name} (removed)`)),
      spools: spools.map(({ name }) => name),
      columns: columns.length,
    }
  }

  /** What stands on the shelf, without what prints and trials say of it: that is much, where much was printed. */
  const records = async (): Promise<Shelf> => {
    const kinds = await Promise.all(shelfKinds.map(async (kind) => [kind, (await readKind(kind)).values] as const))
    return { ...(Object.fromEntries(kinds) as unknown as Omit<Shelf, 'evidence' | 'uses'>), evidence: [], uses: [] }
  }

  const read = async (): Promise<Shelf> => {
    const shelf = await records()
    const makers = new Map(shelf.spools.map(({ key, maker }) => [key, maker]))
    const told = (await evidence()).map((one) => {
      const maker = one.spool === undefined ? undefined : makers.get(one.spool)
      return maker === undefined ? one : { ...one, maker }
    })
    return { ...shelf, evidence: told, uses: await uses() }
  }

  const checkMaterial = async (kind: ShelfKind, record: ShelfRecords[ShelfKind], transaction: Transaction): Promise<void> => {
    if (kind !== 'spools') return
    const known = await models.materials.findAll({ attributes: ['recordKey'], transaction })
    refuseUnknownMaterial(record as ShelfRecords['spools'], new Set(known.map((row) => row.recordKey)))
  }

  return {
    read,
    records,

    /** Adds a record; its key is made from its name. */
    async add<Kind extends ShelfKind>(kind: Kind, record: ShelfRecords[Kind]): Promise<ShelfRecords[Kind]> {
      return transact(sequelize, async (transaction) => {
        await checkMaterial(kind, record, transaction)
        const taken = (await tableOf(kind).findAll({ attributes: ['recordKey'], transaction })).map((row) => row.recordKey)
        const own = { ...record, key: keyFor(record.name, taken) }
        const position = await nextPosition(kind, transaction)
        await tableOf(kind).create(
          { recordKey: own.key, position, record: textOf(kind, own), starter: false, archived: false, revision: 1 },
          { transaction },
        )
        await history.keep(kind, own.key, textOf(kind, own), transaction)
        return own
      })
    },

    revisions: history.of,

    uses: async (kind: ShelfKind, key: string): Promise<Uses> => {
      await find(kind, key)
      return usesOf(kind, key)
    },

    /** Records that cannot be read, as they are stored. */
    async unreadable(): Promise<Unreadable[]> {
      const kinds = await Promise.all(
        shelfKinds.map(async (kind) =>
          (await readKind(kind)).unreadable.map(({ row, why }) => ({
            kind: oneOf[kind],
            id: row.recordKey,
            name: row.recordKey,
            why,
            stored: row.record,
          })),
        ),
      )
      return kinds.flat()
    },

    /** @throws ProblemError 409 with what the shelf holds, when the change started from an older revision */
    async write<Kind extends ShelfKind>(
      kind: Kind,
      key: string,
      record: ShelfRecords[Kind],
      revision: number,
    ): Promise<ShelfRecords[Kind]> {
      return transact(sequelize, async (transaction) => {
        const row = await tableOf(kind).findByPk(key, { transaction, lock: transaction.LOCK.UPDATE })
        if (!row) throw notFound(oneOf[kind], key)
        if (row.revision !== revision)
          throw new ProblemError(
            409,
            'stale-write',
            `This ${oneOf[kind]} was changed in another window since this page read it.`,
            record.name,
            'Choose which of the two versions to keep.',
            { ...storedRecords[kind].read(row.record), revision: row.revision },
          )
        await checkMaterial(kind, record, transaction)
        const own = { ...record, key }
        // What it said before is kept too, for records that were never written since they came.
        await history.keep(kind, key, row.record, transaction)
        await row.update({ record: textOf(kind, own), revision: revision + 1 }, { transaction })
        await history.keep(kind, key, textOf(kind, own), transaction)
        return own
      })
    },

    async archive(kind: ShelfKind, key: string, archived: boolean): Promise<void> {
      await (await find(kind, key)).update({ archived })
    },

    /** @throws ProblemError 409 naming where the record is in use */
    async remove(kind: ShelfKind, key: string): Promise<void> {
      const row = await find(kind, key)
      const { lineups, spools } = await usesOf(kind, key)
      const uses = [...lineups.map((name) => `lineup "${name}"`), ...spools.map((name) => `spool "${name}"`)]
      if (uses.length > 0)
        throw new ProblemError(
          409,
          'record-in-use',
          `This ${oneOf[kind]} is in use: ${uses.join(', ')}.`,
          row.recordKey,
          'Choose another one there first, or archive it: it then stays where it is and is offered no more.',
        )
      await row.destroy()
    },

    ...createStarters(sequelize, models),

    import: (file: ShelfFile) => importRecords(sequelize, models, file),

    async export(): Promise<ShelfFile> {
      return shelfFileSchema.parse({ format: 'sable-lantern/shelf', version: SHELF_FILE_VERSION, ...(await read()) })
    },
  }
}

export type ShelfStore = ReturnType<typeof createShelfStore>
