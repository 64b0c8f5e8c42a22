import { randomUUID } from 'node:crypto'
import {
  type Candidate,
  type Lineup,
  type LineupContent,
  type LineupList,
  type LineupWrite,
  lineupListSchema,
  lineupSchema,
  type ProfileRevisionList,
  profileRevisionListSchema,
} from '@sable/contract/lineup'
import { Op, type Sequelize, type Transaction } from 'sequelize'
import type { LineupRow, Models } from '../../database/models'
import { readEach, reasonOf, type Unreadable } from '../../database/readEach'
import { transact } from '../../database/transact'
import { notFound, ProblemError, unreadableRecord } from '../../http/problems'

/**
 * Lineups, and the profiles that their candidates are. Whatever belongs together is written in one transaction, and every
 * write leaves a revision behind: of the lineup always, of a profile when its name or values changed.
 */
export function createLineupStore(sequelize: Sequelize, models: Models) {
  const read = async (row: LineupRow, transaction?: Transaction): Promise<Lineup> => {
    const within = transaction ? { transaction } : {}
    const candidates = await models.candidates.findAll({ where: { lineupId: row.id }, order: [['position', 'ASC']], ...within })
    const profiles = await models.profiles.findAll({ where: { id: candidates.map((candidate) => candidate.profileId) }, ...within })
    const byId = new Map(profiles.map((profile) => [profile.id, profile]))
    return parseStored({
      id: row.id,
      name: row.name,
      partId: row.partId,
      placement: row.placement,
      purpose: row.purpose,
      revision: row.revision,
      demo: Boolean(row.demo),
      updatedAt: row.updatedAt.toISOString(),
      candidates: candidates.map(({ profileId, printer, nozzle, material, spool }) => {
        const profile = byId.get(profileId)
        return {
          id: profileId,
          name: profile?.name,
          printer,
          nozzle,
          material,
          ...(spool === null ? {} : { spool }),
          values: profile?.settingValues ?? '{}',
          exceptions: profile?.exceptions ?? '[]',
        }
      }),
    })
  }

  const writeProfile = async (
    { id, name, values, exceptions: places }: Candidate,
    { id: lineupId, updatedAt: at }: LineupRow,
    transaction: Transaction,
  ): Promise<void> => {
    const elsewhere = await models.candidates.findOne({ where: { profileId: id, lineupId: { [Op.ne]: lineupId } }, transaction })
    if (elsewhere)
      throw new ProblemError(
        409,
        'candidate-elsewhere',
        'Another lineup has a candidate with this id.',
        `candidate "${name}", ${id}`,
        'Give the candidate an id of its own.',
      )
    const settingValues = JSON.stringify(values)
    const exceptions = JSON.stringify(places)
    const known = await models.profiles.findByPk(id, { transaction })
    if (known && known.name === name && known.settingValues === settingValues && known.exceptions === exceptions) return
    const revision = (known?.revision ?? 0) + 1
    if (known) await known.update({ name, settingValues, exceptions, revision }, { transaction })
    else await models.profiles.create({ id, name, settingValues, exceptions, revision }, { transaction })
    await models.profileRevisions.create({ profileId: id, revision, name, settingValues, exceptions, createdAt: at }, { transaction })
  }

  const writeContent = async (row: LineupRow, content: LineupContent, transaction: Transaction): Promise<void> => {
    for (const candidate of content.candidates) await writeProfile(candidate, row, transaction)
    await models.candidates.destroy({ where: { lineupId: row.id }, transaction })
    await models.candidates.bulkCreate(
      content.candidates.map(({ id, printer, nozzle, material, spool }, position) => ({
        lineupId: row.id,
        position,
        profileId: id,
        printer,
        nozzle,
        material,
        spool: spool ?? null,
      })),
      { transaction },
    )
    await models.lineupRevisions.create(
      { lineupId: row.id, revision: row.revision, content: JSON.stringify(content), createdAt: row.updatedAt },
      { transaction },
    )
  }

  const checkReferences = async (content: LineupContent, transaction: Transaction): Promise<void> => {
    // Locked, so that it is not taken away meanwhile.
    const part = await models.parts.findOne({ where: { id: content.partId, removedAt: null }, transaction, lock: transaction.LOCK.SHARE })
    if (!part) throw notFound('part', content.partId)
    for (const [table, field] of [
      ['printers', 'printer'],
      ['nozzles', 'nozzle'],
      ['materials', 'material'],
      ['spools', 'spool'],
    ] as const) {
      const known = new Set((await models[table].findAll({ attributes: ['recordKey'], transaction })).map((row) => row.recordKey))
      const stray = content.candidates.find((candidate) => candidate[field] !== undefined && !known.has(candidate[field]))
      if (stray)
        throw new ProblemError(
          422,
          'record-unknown',
          `The shelf has no ${field} "${stray[field]}".`,
          `candidate "${stray.name}"`,
          `Choose one of ${[...known].join(', ')}.`,
        )
    }
  }

  return {
    async list(): Promise<LineupList> {
      const rows = await models.lineups.findAll({ order: [['updatedAt', 'DESC']] })
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
      for (const row of await models.lineups.findAll({ order: [['updatedAt', 'DESC']] })) {
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
      const row = await models.lineups.findByPk(id)
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
          placement: JSON.stringify(content.placement),
          purpose: JSON.stringify(content.purpose),
          revision: 1,
          demo,
          updatedAt: new Date(),
        }
        await models.lineups.create(row, { transaction })
        await writeContent(row, content, transaction)
        return read(row, transaction)
      })
    },

    /** @throws ProblemError 409 with what the server holds, when the write started from an older revision */
    async write(id: string, { revision, ...content }: LineupWrite): Promise<Lineup> {
      return transact(sequelize, async (transaction) => {
        const row = await models.lineups.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE })
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
            placement: JSON.stringify(content.placement),
            purpose: JSON.stringify(content.purpose),
            revision: revision + 1,
            updatedAt: new Date(),
          },
          { transaction },
        )
        await writeContent(row, content, transaction)
        return read(row, transaction)
      })
    },

    /** Removes a lineup. Its profiles and their revisions stay. */
    async remove(id: string): Promise<void> {
      const removed = await models.lineups.destroy({ where: { id } })
      if (removed === 0) throw notFound('lineup', id)
    },

    async removeDemo(): Promise<void> {
      await models.lineups.destroy({ where: { demo: true } })
    },

    async profileRevisions(profileId: string): Promise<ProfileRevisionList> {
      const rows = await models.profileRevisions.findAll({ where: { profileId }, order: [['revision', 'DESC']] })
      if (rows.length === 0) throw notFound('profile', profileId)
      return readEach(rows, (row) =>
        profileRevisionListSchema.element.parse({
          revision: row.revision,
          name: row.name,
          values: JSON.parse(row.settingValues),
          exceptions: JSON.parse(row.exceptions),
          createdAt: row.createdAt.toISOString(),
        }),
      ).values
    },
  }
}

/** What is stored of a lineup cannot be read. */
class StoredWrong extends Error {
  constructor(
    why: string,
    readonly stored: object,
  ) {
    super(why)
  }
}

interface StoredLineup extends Omit<Lineup, 'placement' | 'purpose' | 'candidates'> {
  readonly placement: string
  readonly purpose: string
  readonly candidates: readonly (Omit<Candidate, 'name' | 'values' | 'exceptions'> & {
    readonly name: string | undefined
    readonly values: string
    readonly exceptions: string
  })[]
}

/** @throws StoredWrong naming the first thing that is wrong */
function parseStored(stored: StoredLineup): Lineup {
  try {
    return lineupSchema.parse({
      ...stored,
      placement: JSON.parse(stored.placement),
      purpose: JSON.parse(stored.purpose),
      candidates: stored.candidates.map((candidate) => ({
        ...candidate,
        values: JSON.parse(candidate.values),
        exceptions: JSON.parse(candidate.exceptions),
      })),
    })
  } catch (error) {
    throw new StoredWrong(reasonOf(error), stored)
  }
}

export type LineupStore = ReturnType<typeof createLineupStore>
