import { type Candidate, type Lineup, lineupSchema } from '@sable/contract/lineup'
import type { Stored } from '@sable/contract/stored/storedAs'
import { storedOverrides, storedPlacement, storedPurpose, storedValues } from '@sable/contract/stored/storedLineups'
import type { Transaction } from 'sequelize'
import type { LineupRow, Models } from '../../database/models'
import { reasonOf } from '../../database/readEach'

/** A lineup with its candidates. @throws StoredWrong naming the first thing that is wrong */
export async function readLineup(models: Models, row: LineupRow, transaction?: Transaction): Promise<Lineup> {
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

/** What is stored of a lineup cannot be read. */
export class StoredWrong extends Error {
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
