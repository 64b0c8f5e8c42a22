import type { Candidate, LineupContent } from '@sable/contract/lineup'
import { storedOverrides, storedValues } from '@sable/contract/stored/storedLineups'
import { Op, type Transaction } from 'sequelize'
import type { LineupRow, Models } from '../../database/models'
import { notFound, ProblemError } from '../../http/problems'

/** Writes the parts of a lineup that stand in tables of their own; all of it within the caller's transaction. */
export function createLineupWriter(models: Models) {
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

  return { checkReferences, writeContent, removeLineup }
}
