import { readStl } from '@sable/core/formats/readStl'
import { repair } from '@sable/core/mesh/repair'
import { Sequelize } from 'sequelize'
import { inject } from 'vitest'
import { createApp } from '../createApp'
import { connect } from '../database/connect'
import { migrate } from '../database/migrations/migrate'
import { defineModels } from '../database/models'
import { createLineupStore } from '../lineups'
import { createPartStore } from '../parts'
import type { OpenEvaluator } from '../search/evaluator'
import { SearchRunner } from '../search/searchRunner'
import { createSearchStore } from '../search/searchStore'
import { seedDemo } from '../seed'
import { createShelfStore } from '../shelf'
import { inProcess } from './inProcess'

export const TEST_PORT = 4999

/** The whole server on a database of its own, empty but for what `seed` puts there. */
export async function openServer(name: string, seed = true, evaluator: OpenEvaluator = inProcess(2)) {
  const { socketPath, password } = inject('database')
  const root = new Sequelize('mysql', 'root', password, { dialect: 'mariadb', dialectOptions: { socketPath }, logging: false })
  await root.query(`CREATE DATABASE IF NOT EXISTS ${name}`)
  await root.close()
  const sequelize = connect({ socketPath, user: 'root', password, database: name })
  await migrate(sequelize)
  const models = defineModels(sequelize)
  const parts = createPartStore(sequelize, models, async (bytes, fileName) => repair(readStl(bytes, fileName)).report)
  const shelf = createShelfStore(sequelize, models)
  const lineups = createLineupStore(sequelize, models)
  if (seed) await seedDemo({ parts, shelf, lineups }, false)
  const searches = createSearchStore(models, shelf)
  const searchRunner = new SearchRunner(searches, parts, evaluator)
  const app = createApp({ sequelize, parts, shelf, lineups, searches, searchRunner, port: TEST_PORT })
  const close = async (): Promise<void> => {
    await searchRunner.close()
    await sequelize.close()
  }
  return { app, sequelize, models, parts, shelf, lineups, searches, searchRunner, close }
}

export type OpenServer = Awaited<ReturnType<typeof openServer>>
