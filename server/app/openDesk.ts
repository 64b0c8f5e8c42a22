import { join } from 'node:path'
import type { Express } from 'express'
import type { Sequelize } from 'sequelize'
import type { DatabaseAddress } from '../database/connect'
import { type Marks, marksIn } from '../database/marks'
import { migrate } from '../database/migrations/migrate'
import { defineModels, type Models } from '../database/models'
import { type Backups, createBackups } from '../features/backup/backupDesk'
import { backupRoutes } from '../features/backup/backupRoutes'
import { caseRoutes } from '../features/cases/caseRoutes'
import { type CaseStore, createCaseStore } from '../features/cases/caseStore'
import { caseEvidence } from '../features/cases/evidence'
import { experimentRoutes } from '../features/experiments/experimentRoutes'
import { createExperimentStore, type ExperimentStore } from '../features/experiments/experimentStore'
import { type Instruments, instrumentRoutes } from '../features/instruments/instrumentRoutes'
import { lineupRoutes } from '../features/lineups/lineupRoutes'
import { createLineupStore, type LineupStore } from '../features/lineups/lineupStore'
import { createMachineDesk, type MachineDesk } from '../features/machines/machineDesk'
import { machineRoutes } from '../features/machines/machineRoutes'
import { createRunStore } from '../features/machines/runStore'
import { tcpTransport } from '../features/machines/transport'
import { partRoutes } from '../features/parts/partRoutes'
import { createPartStore, type PartStore } from '../features/parts/partStore'
import type { PartReader } from '../features/parts/readInProcess'
import { createPhotoStore } from '../features/photos/photoStore'
import { plateRoutes } from '../features/plates/plateRoutes'
import { createPlateStore, type PlateStore } from '../features/plates/plateStore'
import { printEvidence } from '../features/prints/evidence'
import { printRoutes } from '../features/prints/printRoutes'
import { createPrintStore, type PrintStore } from '../features/prints/printStore'
import { createProgramStore } from '../features/prints/programStore'
import { printsTook } from '../features/prints/took'
import { queueRoutes } from '../features/queues/queueRoutes'
import { createQueueStore, type QueueStore } from '../features/queues/queueStore'
import { searchJob } from '../features/searches/searchJob'
import { searchRoutes } from '../features/searches/searchRoutes'
import { createSearchStore, type SearchStore } from '../features/searches/searchStore'
import { setAsideRoutes } from '../features/setAside/setAsideRoutes'
import { shelfRoutes } from '../features/shelf/shelfRoutes'
import { createShelfStore, type ShelfStore } from '../features/shelf/shelfStore'
import { trainerRoutes } from '../features/trainer/trainerRoutes'
import { trialEvidence } from '../features/trials/evidence'
import { trialRoutes } from '../features/trials/trialRoutes'
import { createTrialStore, type TrialStore } from '../features/trials/trialStore'
import { jobRoutes } from '../jobs/jobRoutes'
import { JobRunner } from '../jobs/jobRunner'
import { createJobStore, type JobStore } from '../jobs/jobStore'
import type { OpenLanes } from '../jobs/lanes'
import { createApp } from './createApp'

/** What a desk stands on. */
export interface DeskGround {
  readonly sequelize: Sequelize
  readonly address: DatabaseAddress
  /** Where uploads lie until they are read, and where backups are kept. */
  readonly uploadFolder: string
  readonly backupFolder: string
  readonly read: PartReader
  readonly lanes: OpenLanes
  readonly instruments?: Instruments | undefined
  readonly port: number
  /** What lets people in, on a desk that is private. */
  readonly token?: string | undefined
  /** Folder of the built interface; absent in tests of the API alone. */
  readonly webRoot?: string
}

export interface Desk {
  readonly models: Models
  readonly marks: Marks
  readonly parts: PartStore
  readonly shelf: ShelfStore
  readonly lineups: LineupStore
  readonly searches: SearchStore
  readonly trials: TrialStore
  readonly prints: PrintStore
  readonly experiments: ExperimentStore
  readonly cases: CaseStore
  readonly queues: QueueStore
  readonly plates: PlateStore
  readonly machines: MachineDesk
  readonly jobs: JobStore
  readonly jobRunner: JobRunner
  /** Another runner of the same jobs, on other lanes. */
  readonly runnerOn: (lanes: OpenLanes) => JobRunner
  readonly backups: Backups
  readonly app: Express
}

/**
 * Puts the server together, feature by feature: the one place where a new one is made and gets its address.
 *
 * @throws NewerDatabase before anything is written
 */
export async function openDesk(ground: DeskGround): Promise<Desk> {
  const { sequelize, address, uploadFolder, backupFolder, read, lanes, port, token, webRoot, instruments = {} } = ground
  await migrate(sequelize)
  const models = defineModels(sequelize)
  const marks = marksIn(models)
  const parts = createPartStore(sequelize, models, read)
  const cases = createCaseStore(models)
  const queues = createQueueStore(models)
  const plates = createPlateStore(models)
  const shelf = createShelfStore(
    sequelize,
    models,
    async () => (await Promise.all([trialEvidence(models)(), printEvidence(models)(), caseEvidence(cases)()])).flat(),
    printsTook(models),
  )
  const trialPhotos = createPhotoStore(models.trialPhotos, 'trial', async (id) => (await models.trials.count({ where: { id } })) > 0)
  const trials = createTrialStore(models, shelf, trialPhotos)
  const printPhotos = createPhotoStore(models.printPhotos, 'print', async (id) => (await models.prints.count({ where: { id } })) > 0)
  const prints = createPrintStore(models, shelf, printPhotos)
  const experiments = createExperimentStore(models, prints, cases)
  const programs = createProgramStore(models)
  const runs = createRunStore(models)
  await runs.breakOff()
  const machines = createMachineDesk({ shelf, prints, programs, runs, open: tcpTransport })
  const lineups = createLineupStore(sequelize, models)
  const jobs = createJobStore(models)
  const searches = createSearchStore(sequelize, models, shelf, jobs)
  const runnerOn = (own: OpenLanes): JobRunner => new JobRunner(jobs, { search: searchJob(searches, parts, own) })
  const jobRunner = runnerOn(lanes)
  const backups = createBackups(sequelize, address, backupFolder)
  const { routes: backup, refuseWrites } = backupRoutes(backups, jobRunner, uploadFolder)
  const app = createApp({
    sequelize,
    port,
    token,
    ...(webRoot === undefined ? {} : { webRoot }),
    // While a backup is put back nothing else is written, so that comes first.
    routes: [
      ['/api/backup', backup],
      ['/api', refuseWrites],
      ['/api/shelf', shelfRoutes(shelf)],
      ['/api/set-aside', setAsideRoutes({ parts, shelf, lineups, searches, trials, prints, experiments, cases, queues, plates })],
      ['/api/experiments', experimentRoutes(experiments)],
      ['/api/cases', caseRoutes(cases)],
      ['/api/queues', queueRoutes(queues)],
      ['/api/plates', plateRoutes(plates)],
      ['/api/trials', trialRoutes(trials, trialPhotos, uploadFolder)],
      ['/api/prints', printRoutes(prints, printPhotos, programs, uploadFolder)],
      ['/api/trainer', trainerRoutes()],
      ['/api/machines', machineRoutes(machines)],
      ['/api/instruments', instrumentRoutes(instruments)],
      ['/api/searches', searchRoutes(searches, jobRunner)],
      ['/api/jobs', jobRoutes(jobs)],
      ['/api/parts', partRoutes(parts, uploadFolder)],
      ['/api/lineups', lineupRoutes(lineups)],
    ],
  })
  return {
    models,
    marks,
    parts,
    shelf,
    lineups,
    searches,
    trials,
    prints,
    experiments,
    cases,
    queues,
    plates,
    machines,
    jobs,
    jobRunner,
    runnerOn,
    backups,
    app,
  }
}

/** Folders of a desk within its data folder. */
export const foldersIn = (dataFolder: string) => ({ uploadFolder: join(dataFolder, 'uploads'), backupFolder: join(dataFolder, 'backups') })
