import { randomUUID } from 'node:crypto'
import { type FoundVariant, type Search, type SearchContext, type SearchSpec, type SearchState, searchSchema } from '@sable/contract/search'
import { type Shelf, setupOf } from '@sable/contract/shelf'
import { storedChoices, storedContext, storedFigures, storedSpec } from '@sable/contract/stored/storedSearches'
import { sizeOf } from '@sable/core/search/explore'
import { checkDimension, choicesOf, type Dimension } from '@sable/core/search/space'
import type { Models, SearchRow } from '../../database/models'
import { readEach, reasonOf, type Unreadable } from '../../database/readEach'
import { notFound, ProblemError, unreadableRecord } from '../../http/problems'
import type { ShelfStore } from '../shelf/shelfStore'

export type Progress = Partial<Pick<Search, 'state' | 'done' | 'reused' | 'computed' | 'seconds'>> & { readonly problem?: string | null }

/** Searches and the variants that they have evaluated. */
export function createSearchStore(models: Models, shelf: ShelfStore) {
  const rowOf = async (id: string) => {
    const row = await models.searches.findByPk(id)
    if (!row) throw notFound('search', id)
    return row
  }
  const readable = (row: SearchRow): Search => {
    try {
      return asSearch(row)
    } catch (error) {
      throw unreadableRecord('search', row.id, reasonOf(error))
    }
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
        state: 'waiting',
        done: 0,
        size: Math.min(spec.budget, sizeOf(spec.dimensions.map((dimension) => choicesOf(dimension).length))),
        reused: 0,
        computed: 0,
        seconds: 0,
        problem: null,
        createdAt: new Date(),
      }
      await models.searches.create(row)
      return asSearch(row)
    },

    async list(lineupId: string): Promise<Search[]> {
      return readEach(await models.searches.findAll({ where: { lineupId }, order: [['createdAt', 'DESC']] }), asSearch).values
    },

    /** Searches that were waiting or running when the server ended, the oldest first. */
    async unfinished(): Promise<string[]> {
      const rows = await models.searches.findAll({ where: { state: ['waiting', 'running'] }, order: [['createdAt', 'ASC']] })
      return rows.map(({ id }) => id)
    },

    async get(id: string): Promise<Search> {
      return readable(await rowOf(id))
    },

    async contextOf(id: string): Promise<SearchContext> {
      return storedContext.read((await rowOf(id)).context)
    },

    async update(id: string, progress: Progress): Promise<Search> {
      const row = await rowOf(id)
      await row.update(progress)
      return readable(row)
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
      return readEach(await models.searches.findAll({ order: [['createdAt', 'DESC']] }), asSearch).unreadable.map(({ row, why }) => ({
        kind: 'search',
        id: row.id,
        name: `of ${row.createdAt.toISOString().slice(0, 10)}`,
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

    async remove(id: string): Promise<void> {
      await (await rowOf(id)).destroy()
    },
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
  }
}

const notOnShelf = (what: string, key: string): ProblemError =>
  new ProblemError(422, 'not-on-shelf', `The shelf does not hold ${what} "${key}".`, key, 'Choose another one, or put it on the shelf.')

const asSearch = (row: SearchRow): Search =>
  searchSchema.parse({
    id: row.id,
    spec: storedSpec.read(row.spec),
    state: row.state as SearchState,
    done: row.done,
    of: row.size,
    reused: row.reused,
    computed: row.computed,
    seconds: row.seconds,
    ...(row.problem === null ? {} : { problem: row.problem }),
    createdAt: row.createdAt.toISOString(),
  })
