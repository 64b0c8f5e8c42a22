import { randomUUID } from 'node:crypto'
import {
  type Candidate,
  type Lineup,
  type LineupContent,
  type LineupList,
  type LineupWrite,
  lineupListSchema,
  lineupSchema,
} from '@sable/contract/lineup'
import type { Stored } from '@sable/contract/stored/storedAs'
import { storedOverrides, storedPlacement, storedPurpose, storedValues } from '@sable/contract/stored/storedLineups'
import { Op, type Sequelize, type Transaction } from 'sequelize'
import type { LineupRow, Models } from '../../database/models'
import { reasonOf, type Unreadable } from '../../database/readEach'
import { transact } from '../../database/transact'
import { notFound, ProblemError, unreadableRecord } from '../../http/problems'

/** Lineups, and the profiles that their candidates are. Whatever belongs together is written in one transaction. */
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
          overrides: profile?.overrides ?? '[]',
        }
      }),
    })
  }

  const writeProfile = async (
    { id, name, values, overrides: places }: Candidate,
    { id: lineupId }: LineupRow,
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
    const row = { id, name, settingValues: storedValues.write(values), overrides: storedOverrides.write(places) }
    await models.profiles.upsert(row, { transaction })
  }

  const profilesOf = async (lineupId: string, transaction: Transaction): Promise<string[]> =>
    (await models.candidates.findAll({ where: { lineupId }, attributes: ['profileId'], transaction })).map(({ profileId }) => profileId)

  /** Lets go of profiles that no column is any more; undo writes them anew. */
  const forgetProfiles = async (ids: readonly string[], transaction: Transaction): Promise<void> => {
    const columns = await models.candidates.findAll({ where: { profileId: [...ids] }, attributes: ['profileId'], transaction })
    const inUse = new Set(columns.map(({ profileId }) => profileId))
    await models.profiles.destroy({ where: { id: ids.filter((id) => !inUse.has(id)) }, transaction })
  }

  const removeLineup = async (id: string, transaction: Transaction): Promise<void> => {
    const profiles = await profilesOf(id, transaction)
    // Searches go with their lineup, and so does that they ever were.
    const searches = await models.searches.findAll({ where: { lineupId: id }, attributes: ['id'], transaction })
    await models.jobs.destroy({ where: { id: searches.map((search) => search.id) }, transaction })
    if ((await models.lineups.destroy({ where: { id }, transaction })) === 0) throw notFound('lineup', id)
    await forgetProfiles(profiles, transaction)
  }

  const writeContent = async (row: LineupRow, content: LineupContent, transaction: Transaction): Promise<void> => {
    for (const candidate of content.candidates) await writeProfile(candidate, row, transaction)
    const before = await profilesOf(row.id, transaction)
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
    await forgetProfiles(before, transaction)
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
          placement: storedPlacement.write(content.placement),
          purpose: storedPurpose.write(content.purpose),
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

    /** Removes a lineup, with its profiles. */
    remove: (id: string): Promise<void> => transact(sequelize, (transaction) => removeLineup(id, transaction)),

    removeDemo: (): Promise<void> =>
      transact(sequelize, async (transaction) => {
        const rows = await models.lineups.findAll({ where: { demo: true }, attributes: ['id'], transaction })
        for (const { id } of rows) await removeLineup(id, transaction)
      }),
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
  readonly candidates: readonly (Omit<Candidate, 'name' | 'values' | 'overrides'> & {
    readonly name: string | undefined
    readonly values: string
    readonly overrides: string
  })[]
}

/** Reads one text of a lineup. @throws Error that names it, and what in it is wrong */
function readAt<T>(place: string, stored: Stored<T>, text: string): T {
  try {
    return stored.read(text)
  } catch (error) {
    throw new Error(`${place}.${reasonOf(error)}`)
  }
}

/** @throws StoredWrong naming the first thing that is wrong */
function parseStored(stored: StoredLineup): Lineup {
  try {
    return lineupSchema.parse({
      ...stored,
      placement: readAt('placement', storedPlacement, stored.placement),
      purpose: readAt('purpose', storedPurpose, stored.purpose),
      candidates: stored.candidates.map((candidate, i) => ({
        ...candidate,
        values: readAt(`candidates.${i}.values`, storedValues, candidate.values),
        overrides: readAt(`candidates.${i}.overrides`, storedOverrides, candidate.overrides),
      })),
    })
  } catch (error) {
    throw new StoredWrong(reasonOf(error), stored)
  }
}

export type LineupStore = ReturnType<typeof createLineupStore>
