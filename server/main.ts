import { fileURLToPath } from 'node:url'
import { createApp } from './createApp'
import { createPartReader } from './createPartReader'
import { connect } from './database/connect'
import { migrate } from './database/migrations'
import { defineModels } from './database/models'
import { createLineupStore } from './lineups'
import { createPartStore } from './parts'
import { seedDemo } from './seed'
import { createShelfStore } from './shelf'

/** Starts the server with what `scripts/start.mjs` hands over in the environment; says "ready" to its parent. */
const required = (name: string): string => {
  const value = process.env[name]
  if (value === undefined) throw new Error(`${name} is not set; start the application with npm start.`)
  return value
}

const port = Number(required('SABLE_PORT'))
const sequelize = connect({
  socketPath: required('SABLE_DB_SOCKET'),
  user: 'root',
  password: required('SABLE_DB_PASSWORD'),
  database: required('SABLE_DB_NAME'),
})
await migrate(sequelize)
const models = defineModels(sequelize)
const reader = createPartReader(fileURLToPath(new URL('./readPartWorker.js', import.meta.url)))
const parts = createPartStore(sequelize, models, reader)
const shelf = createShelfStore(sequelize, models)
const lineups = createLineupStore(sequelize, models)
await seedDemo({ parts, shelf, lineups }, process.env.SABLE_FRESH_DEMO === '1')

const app = createApp({ sequelize, parts, shelf, lineups, port, webRoot: fileURLToPath(new URL('../web', import.meta.url)) })
const server = app.listen(port, '127.0.0.1', () => process.send?.('ready'))
server.on('error', (error) => {
  console.error(error)
  process.exit(1)
})

// A mistake in one request must not take the desk away from every window.
process.on('unhandledRejection', (error) => console.error(error))

const stop = (): void => {
  server.close(async () => {
    await reader.close()
    await sequelize.close()
    process.exit(0)
  })
  server.closeAllConnections()
}
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
process.on('disconnect', stop)
