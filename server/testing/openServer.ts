import { readStl } from '@sable/core/formats/readStl'
import { repair } from '@sable/core/mesh/repair'
import { Sequelize } from 'sequelize'
import { inject } from 'vitest'
import { createApp } from '../createApp'
import { connect } from '../database/connect'
import { migrate } from '../database/migrations'
import { defineModels } from '../database/models'
import { createLineupStore } from '../lineups'
import { createPartStore } from '../parts'
import { seedDemo } from '../seed'
import { createShelfStore } from '../shelf'

export const TEST_PORT = 4999

/** The whole server on a database of its own, empty but for what `seed` puts there. */
export async function openServer(name: string, seed = true) {
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
  const app = createApp({ sequelize, parts, shelf, lineups, port: TEST_PORT })
  return { app, sequelize, models, parts, shelf, lineups, close: () => sequelize.close() }
}

export type OpenServer = Awaited<ReturnType<typeof openServer>>
