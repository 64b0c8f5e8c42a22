import { saysTheSame } from '@sable/contract/saysTheSame'
import {
  keyFor,
  type RecordRevisions,
  SHELF_FILE_VERSION,
  type Shelf,
  type ShelfFile,
  type ShelfKind,
  type ShelfRecords,
  shelfFileSchema,
  shelfKinds,
  type Uses,
} from '@sable/contract/shelf'
import type { Stored } from '@sable/contract/stored/storedAs'
import { storedRecords } from '@sable/contract/stored/storedShelf'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import type { Sequelize, Transaction } from 'sequelize'
import type { Models, ShelfRevisionRow, ShelfRow } from '../../database/models'
import { readEach, type Unreadable } from '../../database/readEach'
import { transact } from '../../database/transact'
import { notFound, ProblemError } from '../../http/problems'

const starters: { readonly [Kind in ShelfKind]: readonly ShelfRecords[Kind][] } = {
  printers: starterPrinters,
  nozzles: starterNozzles,
  materials: starterMaterials,
  spools: [],
  profiles: [],
}

const oneOf: Readonly<Record<ShelfKind, 'printer' | 'nozzle' | 'material' | 'spool' | 'profile'>> = {
  printers: 'printer',
  nozzles: 'nozzle',
  materials: 'material',
  spools: 'spool',
  profiles: 'profile',
}

const textOf = (kind: ShelfKind, record: ShelfRecords[ShelfKind]): string => (storedRecords[kind] as Stored<typeof record>).write(record)

/** Whether two texts hold the same record, whichever versions wrote them; one that cannot be read is like no other. */
function readsTheSame(kind: ShelfKind, a: string, b: string): boolean {
  try {
    return saysTheSame(storedRecords[kind].read(a), storedRecords[kind].read(b))
  } catch {
    return a === b
  }
}

/** Printers, nozzles, materials and spools. */
export function createShelfStore(sequelize: Sequelize, models: Models) {
  const tableOf = (kind: ShelfKind) => models[kind === 'profiles' ? 'profileLibrary' : kind]

  /** Every version that a record ever had stays. */
  const keepRevision = async (kind: ShelfKind, recordKey: string, record: string, transaction: Transaction): Promise<void> => {
    const within = { transaction }
    const [last] = await models.shelfRevisions.findAll({ where: { kind, recordKey }, order: [['revision', 'DESC']], limit: 1, ...within })
    if (last && readsTheSame(kind, last.record, record)) return
    await models.shelfRevisions.create({ kind, recordKey, revision: (last?.revision ?? 0) + 1, record, createdAt: new Date() }, within)
  }
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
    const spools = kind === 'materials' ? (await read()).spools.filter(({ material }) => material === key) : []
    return { lineups: lineups.map(({ name }) => name), spools: spools.map(({ name }) => name), columns: columns.length }
  }

  const read = async (): Promise<Shelf> => {
    const kinds = await Promise.all(shelfKinds.map(async (kind) => [kind, (await readKind(kind)).values] as const))
    return Object.fromEntries(kinds) as unknown as Shelf
  }

  const checkMaterial = async (kind: ShelfKind, record: ShelfRecords[ShelfKind], transaction: Transaction): Promise<void> => {
    if (kind !== 'spools') return
    const known = await models.materials.findAll({ attributes: ['recordKey'], transaction })
    refuseUnknownMaterial(record as ShelfRecords['spools'], new Set(known.map((row) => row.recordKey)))
  }

  /** The newest revision of each record that ever was on the shelf. */
  const lastRevisions = async (kind: ShelfKind, transaction: Transaction): Promise<ReadonlyMap<string, number>> => {
    const rows = await models.shelfRevisions.findAll({ where: { kind }, attributes: ['recordKey', 'revision'], raw: true, transaction })
    const last = new Map<string, number>()
    for (const { recordKey, revision } of rows) last.set(recordKey, Math.max(revision, last.get(recordKey) ?? 0))
    return last
  }

  return {
    read,

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
        await keepRevision(kind, own.key, textOf(kind, own), transaction)
        return own
      })
    },

    uses: async (kind: ShelfKind, key: string): Promise<Uses> => {
      await find(kind, key)
      return usesOf(kind, key)
    },

    async revisions(kind: ShelfKind, key: string): Promise<RecordRevisions> {
      const rows = await models.shelfRevisions.findAll({ where: { kind, recordKey: key }, order: [['revision', 'DESC']] })
      return readEach(rows, ({ revision, record, createdAt }) => ({
        revision,
        record: storedRecords[kind].read(record),
        createdAt: createdAt.toISOString(),
      })).values
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
        await keepRevision(kind, key, row.record, transaction)
        await row.update({ record: textOf(kind, own), revision: revision + 1 }, { transaction })
        await keepRevision(kind, key, textOf(kind, own), transaction)
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

    /** Brings a record that came with the program back to what it said then. */
    async resetStarter(kind: ShelfKind, key: string): Promise<void> {
      const starter = starters[kind].find((record) => record.key === key)
      if (!starter) throw notFound('starter record', key)
      await transact(sequelize, async (transaction) => {
        const row = await tableOf(kind).findByPk(key, { transaction, lock: transaction.LOCK.UPDATE })
        if (!row) throw notFound(oneOf[kind], key)
        await keepRevision(kind, key, row.record, transaction)
        await row.update({ record: textOf(kind, starter), archived: false, revision: row.revision + 1 }, { transaction })
        await keepRevision(kind, key, textOf(kind, starter), transaction)
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
          if (rows.length > 0) await tableOf(kind).bulkCreate(rows, { ignoreDuplicates: true, transaction })
      })
    },

    async export(): Promise<ShelfFile> {
      return shelfFileSchema.parse({ format: 'sable-lantern/shelf', version: SHELF_FILE_VERSION, ...(await read()) })
    },

    /** Takes the records of a file; those with a key that is there replace what is there. All or nothing. */
    async import(file: ShelfFile): Promise<{ readonly added: number; readonly replaced: number }> {
      return transact(sequelize, async (transaction) => {
        let [added, replaced] = [0, 0]
        // Spools come after their materials, which may be in the same file.
        for (const kind of shelfKinds) {
          const known = new Map((await tableOf(kind).findAll({ transaction })).map((row) => [row.recordKey, row]))
          const last = await lastRevisions(kind, transaction)
          const materials = new Set(
            (await models.materials.findAll({ attributes: ['recordKey'], transaction })).map((row) => row.recordKey),
          )
          const seen = new Set<string>()
          let position = Math.max(-1, ...[...known.values()].map((row) => row.position))
          const [rows, revisions]: [ShelfRow[], ShelfRevisionRow[]] = [[], []]
          for (const { starter, archived, revision: _, ...given } of file[kind]) {
            const record = given as ShelfRecords[ShelfKind]
            if (kind === 'spools') refuseUnknownMaterial(record as ShelfRecords['spools'], materials)
            const [recordKey, text] = [record.key, textOf(kind, record)]
            if (seen.has(recordKey))
              throw new ProblemError(
                422,
                'key-twice',
                `The key "${recordKey}" stands twice among the ${kind}.`,
                record.name,
                'Give one of them another key.',
              )
            seen.add(recordKey)
            const row = known.get(recordKey)
            if (row) await row.update({ record: text, archived, revision: row.revision + 1 }, { transaction })
            else rows.push({ recordKey, position: ++position, record: text, starter, archived, revision: 1 })
            revisions.push({ kind, recordKey, revision: (last.get(recordKey) ?? 0) + 1, record: text, createdAt: new Date() })
          }
          await tableOf(kind).bulkCreate(rows, { transaction })
          await models.shelfRevisions.bulkCreate(revisions, { transaction })
          added += rows.length
          replaced += file[kind].length - rows.length
        }
        return { added, replaced }
      })
    },
  }
}

function refuseUnknownMaterial({ name, material }: ShelfRecords['spools'], known: ReadonlySet<string>): void {
  if (!known.has(material))
    throw new ProblemError(422, 'record-unknown', `The shelf has no material "${material}".`, name, 'Choose one that is there.')
}

export type ShelfStore = ReturnType<typeof createShelfStore>
