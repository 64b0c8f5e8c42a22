import { type QueryInterface, QueryTypes, type Sequelize, type Transaction } from 'sequelize'
import { SequelizeStorage, Umzug } from 'umzug'
import { partsShelfProfilesLineups } from './01-parts-shelf-profiles-lineups'
import { exceptions } from './02-exceptions'
import { purpose } from './03-purpose'
import { spoolsAndArchive } from './04-spools-and-archive'
import { heatByLayers } from './05-heat-by-layers'
import { searches } from './06-searches'
import { removedPartsAndMarks } from './07-removed-parts-and-marks'
import { overridesAndNoHistory } from './08-overrides-and-no-history'
import { jobs } from './09-jobs'
import { trials } from './10-trials'
import { prints } from './11-prints'
import { runs } from './12-runs'
import { experiments } from './13-experiments'
import { originals } from './14-originals'
import { removedLineups } from './15-removed-lineups'
import { cases } from './16-cases'
import { queues } from './17-queues'
import { plates } from './18-plates'
import type { Step } from './step'

/** Every step of the schema, in order. A step that has run anywhere is never given another meaning: a new one follows it. */
const steps: readonly Step[] = [
  partsShelfProfilesLineups,
  exceptions,
  purpose,
  spoolsAndArchive,
  heatByLayers,
  searches,
  removedPartsAndMarks,
  overridesAndNoHistory,
  jobs,
  trials,
  prints,
  runs,
  experiments,
  originals,
  removedLineups,
  cases,
  queues,
  plates,
]

export const stepNames: readonly string[] = steps.map(({ name }) => name)

/** The database was written by a program that knows more than this one. Nothing in it is touched. */
export class NewerDatabase extends Error {
  override readonly name = 'NewerDatabase'
  constructor(readonly unknown: readonly string[]) {
    super(
      `The data was written by a newer version of Sable Lantern (it has ${unknown.join(', ')}). Nothing was changed. Start that version, or restore a backup that this one wrote.`,
    )
  }
}

/**
 * Brings the database to the newest schema, or to that of an earlier step.
 *
 * @param to name of the last step to run
 * @throws NewerDatabase before anything is written
 */
export async function migrate(sequelize: Sequelize, to?: string): Promise<void> {
  const unknown = (await stepsDone(sequelize)).filter((name) => !stepNames.includes(name))
  if (unknown.length > 0) throw new NewerDatabase(unknown)
  const umzug = new Umzug({
    migrations: steps.map(({ name, up }) => ({ name, up: ({ context }: { context: QueryInterface }) => up(context) })),
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize }),
    logger: undefined,
  })
  await umzug.up(to === undefined ? {} : { to })
}

/** Names of the steps that the database has behind it, in their order; none for an empty one. */
export async function stepsDone(sequelize: Sequelize, transaction?: Transaction): Promise<string[]> {
  const within = transaction ? { transaction } : {}
  const tables = await sequelize.query("SHOW TABLES LIKE 'SequelizeMeta'", { type: QueryTypes.SELECT, ...within })
  if (tables.length === 0) return []
  const rows = await sequelize.query<{ name: string }>('SELECT name FROM SequelizeMeta ORDER BY name', {
    type: QueryTypes.SELECT,
    ...within,
  })
  return rows.map(({ name }) => name)
}
