import { noPurpose } from '@sable/core/strength/purpose'
import { DataTypes, type QueryInterface, type Sequelize } from 'sequelize'
import { SequelizeStorage, Umzug } from 'umzug'

const id = { type: DataTypes.CHAR(36), primaryKey: true } as const
const when = { type: DataTypes.DATE(3), allowNull: false } as const
const json = { type: DataTypes.TEXT('long'), allowNull: false } as const
const name = { type: DataTypes.STRING(80), allowNull: false } as const
const yes = { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false } as const
const first = { type: DataTypes.INTEGER.UNSIGNED, allowNull: false, defaultValue: 1 } as const
const count = { type: DataTypes.INTEGER.UNSIGNED, allowNull: false } as const
const refers = (table: string, key = 'id') => ({ references: { model: table, key }, onDelete: 'RESTRICT', onUpdate: 'CASCADE' })

/** Exceptions without heat where they cover a part of a layer only. */
function heatOutOfBoxes(text: string): string {
  const places = JSON.parse(text) as { box?: unknown; nearBelt?: unknown; values: Record<string, unknown> }[]
  if (!places.some(({ box, nearBelt }) => box !== undefined || nearBelt !== undefined)) return text
  return JSON.stringify(
    places.map((place) => {
      if (place.box === undefined && place.nearBelt === undefined) return place
      const { nozzleTemperature: _, bedTemperature: __, ...values } = place.values
      return { ...place, values }
    }),
  )
}

/** Every step of the schema, in order. A step that has run anywhere is never edited: a new one follows it. */
const steps: readonly { readonly name: string; readonly up: (db: QueryInterface) => Promise<unknown> }[] = [
  {
    name: '001-parts-shelf-profiles-lineups',
    up: async (db) => {
      await db.createTable('blobs', {
        content_key: { type: DataTypes.CHAR(64), primaryKey: true },
        bytes: { type: DataTypes.BLOB('long'), allowNull: false },
        size: count,
      })
      await db.createTable('parts', {
        id,
        name,
        file_name: { type: DataTypes.STRING(255), allowNull: false },
        content_key: { type: DataTypes.CHAR(64), allowNull: false, unique: true, ...refers('blobs', 'content_key') },
        report: json,
        demo: yes,
        created_at: when,
      })
      for (const table of ['printers', 'nozzles', 'materials']) {
        await db.createTable(table, {
          record_key: { type: DataTypes.STRING(64), primaryKey: true },
          position: count,
          record: json,
          starter: yes,
        })
      }
      await db.createTable('profiles', { id, name, revision: count, setting_values: json })
      await db.createTable('profile_revisions', {
        profile_id: { type: DataTypes.CHAR(36), primaryKey: true, ...refers('profiles') },
        revision: { ...count, primaryKey: true },
        name,
        setting_values: json,
        created_at: when,
      })
      await db.createTable('lineups', {
        id,
        name,
        part_id: { type: DataTypes.CHAR(36), allowNull: false, ...refers('parts') },
        placement: json,
        revision: count,
        demo: yes,
        updated_at: when,
      })
      await db.createTable('candidates', {
        lineup_id: { type: DataTypes.CHAR(36), primaryKey: true, ...refers('lineups'), onDelete: 'CASCADE' },
        position: { ...count, primaryKey: true },
        profile_id: { type: DataTypes.CHAR(36), allowNull: false, ...refers('profiles') },
        printer: { type: DataTypes.STRING(64), allowNull: false, ...refers('printers', 'record_key') },
        nozzle: { type: DataTypes.STRING(64), allowNull: false, ...refers('nozzles', 'record_key') },
        material: { type: DataTypes.STRING(64), allowNull: false, ...refers('materials', 'record_key') },
      })
      await db.createTable('lineup_revisions', {
        lineup_id: { type: DataTypes.CHAR(36), primaryKey: true, ...refers('lineups'), onDelete: 'CASCADE' },
        revision: { ...count, primaryKey: true },
        content: json,
        created_at: when,
      })
    },
  },
  {
    name: '02-exceptions',
    async up(db) {
      for (const table of ['profiles', 'profile_revisions'])
        await db.addColumn(table, 'exceptions', { type: DataTypes.TEXT('long'), allowNull: false, defaultValue: '[]' })
    },
  },
  {
    name: '03-purpose',
    async up(db) {
      await db.addColumn('lineups', 'purpose', { type: DataTypes.TEXT('long'), allowNull: false, defaultValue: JSON.stringify(noPurpose) })
    },
  },
  {
    name: '04-spools-and-archive',
    async up(db) {
      await db.createTable('spools', {
        record_key: { type: DataTypes.STRING(64), primaryKey: true },
        position: count,
        record: json,
        starter: yes,
        archived: yes,
        revision: first,
      })
      for (const table of ['printers', 'nozzles', 'materials']) {
        await db.addColumn(table, 'archived', yes)
        await db.addColumn(table, 'revision', first)
      }
      await db.createTable('profile_library', {
        record_key: { type: DataTypes.STRING(64), primaryKey: true },
        position: count,
        record: json,
        starter: yes,
        archived: yes,
        revision: first,
      })
      await db.createTable('shelf_revisions', {
        kind: { type: DataTypes.STRING(16), primaryKey: true },
        record_key: { type: DataTypes.STRING(64), primaryKey: true },
        revision: { ...count, primaryKey: true },
        record: json,
        created_at: when,
      })
      await db.addColumn('candidates', 'spool', { type: DataTypes.STRING(64), allowNull: true, ...refers('spools', 'record_key') })
    },
  },
  {
    name: '05-heat-by-layers',
    // Heat can no longer differ within a layer: places that said so would make their lineup unreadable.
    async up(db) {
      for (const table of ['profiles', 'profile_revisions']) {
        const rows = (await db.select(null, table, {})) as { id?: string; profile_id?: string; revision: number; exceptions: string }[]
        for (const { id, profile_id, revision, exceptions } of rows) {
          const mended = heatOutOfBoxes(exceptions)
          if (mended === exceptions) continue
          await db.bulkUpdate(table, { exceptions: mended }, id === undefined ? { profile_id, revision } : { id })
        }
      }
    },
  },
  {
    name: '06-searches',
    async up(db) {
      await db.createTable('searches', {
        id,
        lineup_id: { type: DataTypes.CHAR(36), allowNull: false, ...refers('lineups'), onDelete: 'CASCADE' },
        spec: json,
        context: json,
        state: { type: DataTypes.STRING(16), allowNull: false },
        done: count,
        size: count,
        reused: count,
        computed: count,
        seconds: { type: DataTypes.DOUBLE, allowNull: false },
        problem: { type: DataTypes.TEXT('long'), allowNull: true },
        created_at: when,
      })
      await db.createTable('search_variants', {
        search_id: { type: DataTypes.CHAR(36), primaryKey: true, ...refers('searches'), onDelete: 'CASCADE' },
        position: { ...count, primaryKey: true },
        choices: json,
        figures: { type: DataTypes.TEXT('long'), allowNull: true },
      })
    },
  },
]

/** Brings the database to the newest schema. */
export async function migrate(sequelize: Sequelize): Promise<void> {
  const umzug = new Umzug({
    migrations: steps.map(({ name, up }) => ({ name, up: ({ context }: { context: QueryInterface }) => up(context) })),
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize }),
    logger: undefined,
  })
  await umzug.up()
}
