import { randomUUID } from 'node:crypto'
import {
  type Lineup,
  type LineupContent,
  type LineupList,
  type LineupWrite,
  lineupListSchema,
  type RemovedLineups,
} from '@sable/contract/lineup'
import { storedPlacement, storedPurpose } from '@sable/contract/stored/storedLineups'
import { Op, type Sequelize, type Transaction } from 'sequelize'
import type { LineupRow, Models } from '../../database/models'
import type { Unreadable } from '../../database/readEach'
import { transact } from '../../database/transact'
import { notFound, ProblemError, unreadableRecord } from '../../http/problems'
import { readLineup, StoredWrong } from './readLineup'
import { createLineupWriter } from './writeLineup'

/** A lineup that was removed can be brought back for so long, ms. */
const KEPT_MS = 30 * 24 * 3600 * 1000

/** Lineups, and the profiles that their candidates are. Whatever belongs together is written in one transaction. */
export function createLineupStore(sequelize: Sequelize, models: Models) {
  const { checkReferences, writeContent, removeLineup } = createLineupWriter(models)
  const read = (row: LineupRow, transaction?: Transaction): Promise<Lineup> => readLineup(models, row, transaction)

  return {
    async list(): Promise<LineupList> {
      const rows = await models.lineups.findAll({ where: { removedAt: null }, order: [['updatedAt', 'DESC']] })
      return lineupListSchema.parse(
        rows.map(({ id, name, partId, demo, updatedAt }) => ({
          id,
          name,
          partId,
          demo: Boolean(demo),
          updatedAt: updatedAt.toISOString(),
        })),
      )
    },

    /** Lineups that cannot be opened, with all that is stored of them. */
    async unreadable(): Promise<Unreadable[]> {
      const found: Unreadable[] = []
      for (const row of await models.lineups.findAll({ where: { removedAt: null }, order: [['updatedAt', 'DESC']] })) {
        try {
          await read(row)
        } catch (error) {
          if (!(error instanceof StoredWrong)) throw error
          found.push({ kind: 'lineup', id: row.id, name: row.name, why: error.message, stored: JSON.stringify(error.stored, null, 2) })
        }
      }
      return found
    },

    async get(id: string): Promise<Lineup> {
      const row = await models.lineups.findOne({ where: { id, removedAt: null } })
      if (!row) throw notFound('lineup', id)
      try {
        return await read(row)
      } catch (error) {
        throw error instanceof StoredWrong ? unreadableRecord('lineup', row.name, error.message) : error
      }
    },

    async create(content: LineupContent, demo = false): Promise<Lineup> {
      return transact(sequelize, async (transaction) => {
        await checkReferences(content, transaction)
        const row: LineupRow = {
          id: randomUUID(),
          name: content.name,
          partId: content.partId,
          placement: storedPlacement.write(content.placement),
          purpose: storedPurpose.write(content.purpose),
          revision: 1,
          demo,
          updatedAt: new Date(),
          removedAt: null,
        }
        await models.lineups.create(row, { transaction })
        await writeContent(row, content, transaction)
        return read(row, transaction)
      })
    },

    /** @throws ProblemError 409 with what the server holds, when the write started from an older revision */
    async write(id: string, { revision, ...content }: LineupWrite): Promise<Lineup> {
      return transact(sequelize, async (transaction) => {
        const row = await models.lineups.findOne({ where: { id, removedAt: null }, transaction, lock: transaction.LOCK.UPDATE })
        if (!row) throw notFound('lineup', id)
        if (row.revision !== revision) {
          throw new ProblemError(
            409,
            'stale-write',
            'The lineup was changed in another window since this page read it.',
            row.name,
            'Choose which of the two versions to keep.',
            await read(row, transaction),
          )
        }
        await checkReferences(content, transaction)
        await row.update(
          {
            name: content.name,
            partId: content.partId,
            placement: storedPlacement.write(content.placement),
            purpose: storedPurpose.write(content.purpose),
            revision: revision + 1,
            updatedAt: new Date(),
          },
          { transaction },
        )
        await writeContent(row, content, transaction)
        return read(row, transaction)
      })
    },

    /** Takes a lineup out of the list; it is kept for a while. */
    async takeAway(id: string): Promise<void> {
      const [changed] = await models.lineups.update({ removedAt: new Date() }, { where: { id, removedAt: null } })
      if (changed === 0) throw notFound('lineup', id)
    },

    async bringBack(id: string): Promise<void> {
      const row = await models.lineups.findByPk(id)
      if (!row) throw notFound('lineup', id)
      await row.update({ removedAt: null })
    },

    /** What was removed and can still be brought back, the latest first. */
    async removed(): Promise<RemovedLineups> {
      const rows = await models.lineups.findAll({ where: { removedAt: { [Op.not]: null } }, order: [['removedAt', 'DESC']] })
      return rows.map(({ id, name, removedAt }) => ({ id, name, removedAt: (removedAt as Date).toISOString() }))
    },

    /** Lets go of lineups that were removed long ago. */
    async forgetRemoved(now: Date): Promise<void> {
      const old = await models.lineups.findAll({ where: { removedAt: { [Op.lt]: new Date(now.getTime() - KEPT_MS) } }, attributes: ['id'] })
      for (const { id } of old) await transact(sequelize, (transaction) => removeLineup(id, transaction))
    },

    /** Removes a lineup for good, with its profiles. */
    remove: (id: string): Promise<void> => transact(sequelize, (transaction) => removeLineup(id, transaction)),

    removeDemo: (): Promise<void> =>
      transact(sequelize, async (transaction) => {
        const rows = await models.lineups.findAll({ where: { demo: true }, attributes: ['id'], transaction })
        for (const { id } of rows) await removeLineup(id, transaction)
      }),
  }
}

export type LineupStore = ReturnType<typeof createLineupStore>
