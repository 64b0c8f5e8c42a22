import { DataTypes, type Model, type ModelAttributes, type ModelStatic, type Sequelize } from 'sequelize'

export interface BlobRow {
  contentKey: string
  bytes: Buffer
  size: number
}
export interface PartRow {
  id: string
  name: string
  fileName: string
  contentKey: string
  report: string
  demo: boolean
  createdAt: Date
  /** When it was taken away; it can be brought back for a while. */
  removedAt: Date | null
}
export interface ShelfRow {
  recordKey: string
  position: number
  record: string
  starter: boolean
  archived: boolean
  revision: number
}
export interface ShelfRevisionRow {
  kind: string
  recordKey: string
  revision: number
  record: string
  createdAt: Date
}
export interface ProfileRow {
  id: string
  name: string
  settingValues: string
  overrides: string
}
export interface LineupRow {
  id: string
  name: string
  partId: string
  placement: string
  purpose: string
  revision: number
  demo: boolean
  updatedAt: Date
  removedAt: Date | null
}
export interface CandidateRow {
  lineupId: string
  position: number
  profileId: string
  printer: string
  nozzle: string
  material: string
  spool: string | null
}
export interface SearchRow {
  id: string
  lineupId: string
  spec: string
  context: string
}
/** Long work of any kind. */
export interface JobRow {
  id: string
  kind: string
  state: string
  done: number
  size: number
  reused: number
  computed: number
  seconds: number
  problem: string | null
  createdAt: Date
}
/** Something that is done once, and has been done. */
export interface MarkRow {
  name: string
  madeAt: Date
}
/** A test print, and what was read of one. */
export interface TrialRow {
  id: string
  trial: string
  madeAt: Date
}
export interface ReadingRow {
  id: string
  trialId: string
  reading: string
  leftOut: boolean
  readAt: Date
}
/** A photograph of a print, as text of base 64: small, and backups hold text. */
export interface PhotoRow {
  id: string
  /** Of the trial or the print. */
  ownerId: string
  photo: string
  /** As the camera took it, base64; nothing where that was not wished for. */
  original: string | null
  takenAt: Date
}
/** A print: what is listed and looked for in columns of their own. */
export interface PrintRow {
  id: string
  state: string
  printer: string
  spool: string | null
  profile: string
  part: string | null
  words: string
  summary: string
  frozen: string
  outcome: string | null
  leftOut: boolean
  plannedAt: Date
  startedAt: Date | null
  endedAt: Date | null
  /** What a machine's own clock said that it took, s. */
  clockS: number | null
}
/** The program of a print, packed, as text of base 64. */
export interface PrintProgramRow {
  printId: string
  sha256: string
  packed: string
}
/** How far a machine has come with a print. */
export interface PrintRunRow {
  printId: string
  printer: string
  state: string
  accepted: number
  total: number
  why: string
  changedAt: Date
}
/** A question to prints. */
/** Something that is kept whole: an experiment, a case. */
export interface KeptRow {
  id: string
  record: string
  revision: number
  changedAt: Date
}
export interface SearchVariantRow {
  searchId: string
  position: number
  choices: string
  figures: string | null
}

export type Table<Row extends object> = ModelStatic<Model<Row, Row> & Row>

/** The tables of the database. Columns that hold JSON are text here; stores read and write them. */
export interface Models {
  readonly blobs: Table<BlobRow>
  readonly parts: Table<PartRow>
  readonly printers: Table<ShelfRow>
  readonly nozzles: Table<ShelfRow>
  readonly materials: Table<ShelfRow>
  readonly spools: Table<ShelfRow>
  readonly profileLibrary: Table<ShelfRow>
  readonly shelfRevisions: Table<ShelfRevisionRow>
  readonly profiles: Table<ProfileRow>
  readonly lineups: Table<LineupRow>
  readonly candidates: Table<CandidateRow>
  readonly searches: Table<SearchRow>
  readonly jobs: Table<JobRow>
  readonly searchVariants: Table<SearchVariantRow>
  readonly marks: Table<MarkRow>
  readonly trials: Table<TrialRow>
  readonly readings: Table<ReadingRow>
  readonly trialPhotos: Table<PhotoRow>
  readonly prints: Table<PrintRow>
  readonly printPhotos: Table<PhotoRow>
  readonly printPrograms: Table<PrintProgramRow>
  readonly printRuns: Table<PrintRunRow>
  readonly experiments: Table<KeptRow>
  readonly cases: Table<KeptRow>
  readonly queues: Table<KeptRow>
  readonly plates: Table<KeptRow>
}

const text = DataTypes.TEXT('long')
const key = DataTypes.STRING(64)
const id = DataTypes.CHAR(36)
const whole = DataTypes.INTEGER.UNSIGNED
const flag = DataTypes.BOOLEAN
const when = DataTypes.DATE(3)

const shelf = {
  recordKey: { type: key, primaryKey: true },
  position: whole,
  record: text,
  starter: flag,
  archived: flag,
  revision: whole,
}

const photo = { id: { type: id, primaryKey: true }, photo: text, original: { type: text, allowNull: true }, takenAt: when }

/** Names and columns of the tables, each after those that it refers to: in this order they can be filled. */
const definitions: { readonly [Name in keyof Models]: readonly [name: string, columns: ModelAttributes] } = {
  blobs: ['blobs', { contentKey: { type: DataTypes.CHAR(64), primaryKey: true }, bytes: DataTypes.BLOB('long'), size: whole }],
  parts: [
    'parts',
    {
      id: { type: id, primaryKey: true },
      name: DataTypes.STRING(80),
      fileName: DataTypes.STRING(255),
      contentKey: DataTypes.CHAR(64),
      report: text,
      demo: flag,
      createdAt: when,
      removedAt: when,
    },
  ],
  printers: ['printers', { ...shelf }],
  nozzles: ['nozzles', { ...shelf }],
  materials: ['materials', { ...shelf }],
  spools: ['spools', { ...shelf }],
  profileLibrary: ['profile_library', { ...shelf }],
  shelfRevisions: [
    'shelf_revisions',
    {
      kind: { type: DataTypes.STRING(16), primaryKey: true },
      recordKey: { type: key, primaryKey: true },
      revision: { type: whole, primaryKey: true },
      record: text,
      createdAt: when,
    },
  ],
  profiles: [
    'profiles',
    {
      id: { type: id, primaryKey: true },
      name: DataTypes.STRING(80),
      settingValues: text,
      overrides: text,
    },
  ],
  lineups: [
    'lineups',
    {
      id: { type: id, primaryKey: true },
      name: DataTypes.STRING(80),
      partId: id,
      placement: text,
      purpose: text,
      revision: whole,
      demo: flag,
      updatedAt: when,
      removedAt: when,
    },
  ],
  candidates: [
    'candidates',
    {
      lineupId: { type: id, primaryKey: true },
      position: { type: whole, primaryKey: true },
      profileId: id,
      printer: key,
      nozzle: key,
      material: key,
      spool: key,
    },
  ],
  jobs: [
    'jobs',
    {
      id: { type: id, primaryKey: true },
      kind: DataTypes.STRING(16),
      state: DataTypes.STRING(16),
      done: whole,
      size: whole,
      reused: whole,
      computed: whole,
      seconds: DataTypes.DOUBLE,
      problem: text,
      createdAt: when,
    },
  ],
  searches: ['searches', { id: { type: id, primaryKey: true }, lineupId: id, spec: text, context: text }],
  marks: ['marks', { name: { type: DataTypes.STRING(40), primaryKey: true }, madeAt: when }],
  trials: ['trials', { id: { type: id, primaryKey: true }, trial: text, madeAt: when }],
  trialPhotos: ['trial_photos', { ...photo, ownerId: { type: id, field: 'trial_id' } }],
  readings: ['readings', { id: { type: id, primaryKey: true }, trialId: id, reading: text, leftOut: flag, readAt: when }],
  prints: [
    'prints',
    {
      id: { type: id, primaryKey: true },
      state: DataTypes.STRING(16),
      printer: key,
      spool: key,
      profile: DataTypes.STRING(120),
      part: key,
      words: text,
      summary: text,
      frozen: text,
      outcome: text,
      leftOut: flag,
      plannedAt: when,
      startedAt: when,
      endedAt: when,
      clockS: DataTypes.DOUBLE,
    },
  ],
  printPhotos: ['print_photos', { ...photo, ownerId: { type: id, field: 'print_id' } }],
  printPrograms: ['print_programs', { printId: { type: id, primaryKey: true }, sha256: DataTypes.CHAR(64), packed: text }],
  printRuns: [
    'print_runs',
    {
      printId: { type: id, primaryKey: true },
      printer: key,
      state: DataTypes.STRING(16),
      accepted: whole,
      total: whole,
      why: text,
      changedAt: when,
    },
  ],
  experiments: [
    'experiments',
    { id: { type: id, primaryKey: true }, record: { type: text, field: 'experiment' }, revision: whole, changedAt: when },
  ],
  cases: ['cases', { id: { type: id, primaryKey: true }, record: text, revision: whole, changedAt: when }],
  queues: ['queues', { id: { type: id, primaryKey: true }, record: text, revision: whole, changedAt: when }],
  plates: ['plates', { id: { type: id, primaryKey: true }, record: text, revision: whole, changedAt: when }],
  searchVariants: [
    'search_variants',
    {
      searchId: { type: id, primaryKey: true },
      position: { type: whole, primaryKey: true },
      choices: text,
      figures: text,
    },
  ],
}
export const tableNames: readonly string[] = Object.values(definitions).map(([name]) => name)

export const defineModels = (sequelize: Sequelize): Models =>
  Object.fromEntries(
    // What is defined is written upon by the package.
    Object.entries(definitions).map(([model, [name, columns]]) => [model, sequelize.define(name, { ...columns })]),
  ) as unknown as Models
