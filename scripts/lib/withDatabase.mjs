import { spawnSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { build } from '../build.mjs'
import { databaseName, startDatabase } from './database.mjs'
import { openFolder, runningStart } from './desk.mjs'
import { installPackages } from './installPackages.mjs'
import { dataDir, root, socketPath } from './paths.mjs'
import { holdPort } from './ports.mjs'
import { refuse } from './say.mjs'

/** Where the database of a desk that does not run listens meanwhile: the first free port from here on. */
const FIRST_PORT = 15_820

/**
 * Runs the built backup command on this desk's database, which is started for it where the desk does not run.
 *
 * @param {string[]} args
 * @returns the status that it ended with
 */
export async function runOnDatabase(args) {
  installPackages()
  openFolder(false)
  await build(['server'])
  const database = runningStart() ? undefined : await start()
  const password = database?.password ?? readFileSync(join(dataDir, 'mariadb-secret'), 'utf8').trim()
  const { status } = spawnSync(process.execPath, ['--enable-source-maps', join(root, 'dist/server/features/backup/main.js'), ...args], {
    stdio: 'inherit',
    env: {
      ...process.env,
      SABLE_DB_SOCKET: socketPath,
      SABLE_DB_PASSWORD: password,
      SABLE_DB_NAME: databaseName,
      SABLE_BACKUP_FOLDER: join(dataDir, 'backups'),
    },
  })
  await database?.stop()
  return status ?? 1
}

async function start() {
  for (let port = FIRST_PORT; port < FIRST_PORT + 50; port++) {
    const held = await holdPort(port)
    if (held) return startDatabase(held, () => refuse('The database ended unexpectedly.'))
  }
  return refuse(`No free port between ${FIRST_PORT} and ${FIRST_PORT + 49} for the database.`)
}
