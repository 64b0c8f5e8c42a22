import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { readPart } from '@sable/core/formats/readPart'
import { Sequelize } from 'sequelize'
import { inject } from 'vitest'
import { createApp } from '../app/createApp'
import { connect } from '../database/connect'
import { marksIn } from '../database/marks'
import { migrate } from '../database/migrations/migrate'
import { defineModels } from '../database/models'
import { createBackups } from '../features/backup/backupDesk'
import { seedDemo } from '../features/demo/seed'
import { createLineupStore } from '../features/lineups/lineupStore'
import { createPartStore } from '../features/parts/partStore'
import type { PartReader } from '../features/parts/readInProcess'
import { searchJob } from '../features/searches/searchJob'
import { createSearchStore } from '../features/searches/searchStore'
import { createShelfStore } from '../features/shelf/shelfStore'
import { JobRunner } from '../jobs/jobRunner'
import { createJobStore } from '../jobs/jobStore'
import type { OpenLanes } from '../jobs/lanes'
import { inProcess } from './inProcess'

export const TEST_PORT = 4999

/** Reads a file in this process, where the compiler is warm. */
const readHere: PartReader = async (path, fileName) => readPart(readFileSync(path), fileName, '').report

/** The whole server on a database of its own, empty but for what `seed` puts there. */
export async function openServer(name: string, seed = true, lanes: OpenLanes = inProcess(2), read = readHere) {
  const uploadFolder = mkdtempSync(join(tmpdir(), 'sable-uploads-'))
  const { socketPath, password } = inject('database')
  const root = new Sequelize('mysql', 'root', password, { dialect: 'mariadb', dialectOptions: { socketPath }, logging: false })
  await root.query(`CREATE DATABASE IF NOT EXISTS ${name}`)
  await root.close()
  const address = { socketPath, user: 'root', password, database: name }
  const sequelize = connect(address)
  await migrate(sequelize)
  const models = defineModels(sequelize)
  const marks = marksIn(models)
  const parts = createPartStore(sequelize, models, read)
  const shelf = createShelfStore(sequelize, models)
  const lineups = createLineupStore(sequelize, models)
  if (seed) await seedDemo({ parts, shelf, lineups, marks }, false, uploadFolder)
  const jobs = createJobStore(models)
  const searches = createSearchStore(sequelize, models, shelf, jobs)
  const runnerOn = (own: OpenLanes): JobRunner => new JobRunner(jobs, { search: searchJob(searches, parts, own) })
  const jobRunner = runnerOn(lanes)
  const backups = createBackups(sequelize, address, join(uploadFolder, 'backups'))
  const app = createApp({ sequelize, parts, shelf, lineups, searches, jobs, jobRunner, backups, port: TEST_PORT, uploadFolder })
  const close = async (): Promise<void> => {
    await jobRunner.close()
    await sequelize.close()
    rmSync(uploadFolder, { recursive: true, force: true })
  }
  return { app, backups, sequelize, models, marks, uploadFolder, parts, shelf, lineups, searches, jobs, jobRunner, runnerOn, close }
}

export type OpenServer = Awaited<ReturnType<typeof openServer>>
