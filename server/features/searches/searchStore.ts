import { randomUUID } from 'node:crypto'
import type { Job } from '@sable/contract/job'
import { type FoundVariant, type Search, type SearchContext, type SearchSpec, searchSchema } from '@sable/contract/search'
import { type Shelf, setupOf } from '@sable/contract/shelf'
import { storedChoices, storedContext, storedFigures, storedSpec } from '@sable/contract/stored/storedSearches'
import { sizeOf } from '@sable/core/search/explore'
import { checkDimension, choicesOf, type Dimension } from '@sable/core/search/space'
import type { Sequelize } from 'sequelize'
import type { Models, SearchRow } from '../../database/models'
import { readEach, reasonOf, type Unreadable } from '../../database/readEach'
import { transact } from '../../database/transact'
import { notFound, ProblemError, unreadableRecord } from '../../http/problems'
import type { JobStore } from '../../jobs/jobStore'
import type { ShelfStore } from '../shelf/shelfStore'

/** Searches and the variants that they have evaluated. */
export function createSearchStore(sequelize: Sequelize, models: Models, shelf: ShelfStore, jobs: JobStore) {
  const rowOf = async (id: string) => {
    const row = await models.searches.findByPk(id)
    if (!row) throw notFound('search', id)
    return row
  }
  const readable = async (row: SearchRow): Promise<Search> => {
    const job = await jobs.get(row.id)
    try {
      return asSearch(row, job)
    } catch (error) {
      throw unreadableRecord('search', row.id, reasonOf(error))
    }
  }
  /** The newest first, each with how it stands. */
  const readAll = async (where: Partial<SearchRow>) => {
    const byId = new Map((await jobs.list()).map((job, at) => [job.id, { job, at }]))
    const rows = (await models.searches.findAll({ where })).filter(({ id }) => byId.has(id))
    rows.sort((a, b) => byId.get(a.id)!.at - byId.get(b.id)!.at)
    return readEach(rows, (row) => asSearch(row, byId.get(row.id)!.job))
  }
  return {
    /** @throws InputError for a value that a setting cannot have, ProblemError for what the shelf does not hold */
    async create(spec: SearchSpec): Promise<Search> {
      for (const dimension of spec.dimensions) checkDimension(dimension)
      if (!(await models.lineups.findByPk(spec.lineupId))) throw notFound('lineup', spec.lineupId)
      if (!(await models.parts.findByPk(spec.partId))) throw notFound('part', spec.partId)
      const all = await shelf.read()
      const context: SearchContext = { shelf: namedIn(spec, all), day: new Date().toISOString().slice(0, 10) }
      if (!setupOf(spec.base, context.shelf)) throw notOnShelf('what the search starts from', spec.base.printer)
      const row: SearchRow = {
        id: randomUUID(),
        lineupId: spec.lineupId,
        spec: storedSpec.write(spec),
        context: storedContext.write(context),
      }
      const size = Math.min(spec.budget, sizeOf(spec.dimensions.map((dimension) => choicesOf(dimension).length)))
      await transact(sequelize, async (transaction) => {
        await jobs.create(row.id, 'search', size, transaction)
        await models.searches.create(row, { transaction })
      })
      return readable(row)
    },

    async list(lineupId: string): Promise<Search[]> {
      return (await readAll({ lineupId })).values
    },

    async get(id: string): Promise<Search> {
      return readable(await rowOf(id))
    },

    async contextOf(id: string): Promise<SearchContext> {
      return storedContext.read((await rowOf(id)).context)
    },

    async variants(id: string): Promise<FoundVariant[]> {
      const rows = await models.searchVariants.findAll({ where: { searchId: id }, order: [['position', 'ASC']] })
      // One that cannot be read is not known, and is evaluated again if the search goes on.
      return readEach(rows, ({ position, choices, figures }) => ({
        position,
        choices: storedChoices.read(choices),
        ...(figures === null ? {} : { figures: storedFigures.read(figures) }),
      })).values
    },

    async unreadable(): Promise<Unreadable[]> {
      return (await readAll({})).unreadable.map(({ row, why }) => ({
        kind: 'search',
        id: row.id,
        name: row.id,
        why,
        stored: JSON.stringify({ spec: row.spec, context: row.context }, null, 2),
      }))
    },

    /** Keeps what was found; what is kept already stays. */
    async add(id: string, found: readonly FoundVariant[]): Promise<void> {
      await models.searchVariants.bulkCreate(
        found.map(({ position, choices, figures }) => ({
          searchId: id,
          position,
          choices: storedChoices.write([...choices]),
          figures: figures ? storedFigures.write(figures) : null,
        })),
        { ignoreDuplicates: true },
      )
    },

    /** Keeps what was found out of variants that are kept already. */
    async replace(id: string, found: readonly FoundVariant[]): Promise<void> {
      for (const { position, figures } of found)
        await models.searchVariants.update(
          { figures: figures ? storedFigures.write(figures) : null },
          { where: { searchId: id, position } },
        )
    },

    /** Removes a search with its variants, and that it ever was. */
    remove: (id: string): Promise<void> => jobs.remove(id),
  }
}

export type SearchStore = ReturnType<typeof createSearchStore>

const kindTables = { printer: 'printers', nozzle: 'nozzles', material: 'materials', spool: 'spools' } as const

/** The records that a search may print with. @throws ProblemError for one that is not there */
function namedIn({ base, dimensions }: SearchSpec, shelf: Shelf): SearchContext['shelf'] {
  const own = (kind: keyof typeof kindTables): string[] => [
    ...(base[kind] === undefined ? [] : [base[kind]]),
    ...dimensions.flatMap((dimension: Dimension) => (dimension.kind === kind ? dimension.keys : [])),
  ]
  for (const kind of Object.keys(kindTables) as (keyof typeof kindTables)[])
    for (const key of own(kind)) if (!shelf[kindTables[kind]].some((record) => record.key === key)) throw notOnShelf(kind, key)
  const spools = shelf.spools.filter(({ key }) => own('spool').includes(key))
  const materials = [...own('material'), ...spools.map(({ material }) => material)]
  return {
    printers: shelf.printers.filter(({ key }) => own('printer').includes(key)),
    nozzles: shelf.nozzles.filter(({ key }) => own('nozzle').includes(key)),
    materials: shelf.materials.filter(({ key }) => materials.includes(key)),
    spools,
    evidence: shelf.evidence,
  }
}

const notOnShelf = (what: string, key: string): ProblemError =>
  new ProblemError(422, 'not-on-shelf', `The shelf does not hold ${what} "${key}".`, key, 'Choose another one, or put it on the shelf.')

const asSearch = (row: SearchRow, job: Job): Search => searchSchema.parse({ ...job, spec: storedSpec.read(row.spec) })
