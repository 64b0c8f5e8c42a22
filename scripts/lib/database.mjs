import { spawn, spawnSync } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { closeSync, existsSync, mkdirSync, openSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { userInfo } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { installDebian } from './installDebian.mjs'
import { dataDir, socketPath } from './paths.mjs'
import { findProcesses, isRunning, stopProcess } from './processes.mjs'
import { refuse, say } from './say.mjs'

const folder = join(dataDir, 'mariadb')
const readyMark = join(dataDir, 'mariadb-ready')
const log = join(dataDir, 'mariadb.log')
const initFile = join(dataDir, 'mariadb-init.sql')
export const databaseName = 'sable'

/**
 * Starts the desk's own MariaDB: own data directory, own socket, own port on loopback. The system's instance, if there is
 * one, is never touched: no shared option file is read.
 *
 * @param onDeath called when the database ends although nobody asked it to
 */
export async function startDatabase(firstPort, onDeath) {
  const mariadbd = installDebian('mariadb-server', ['/usr/sbin/mariadbd', '/usr/sbin/mysqld', '/usr/libexec/mariadbd'])
  mkdirSync(dataDir, { recursive: true, mode: 0o700 })
  await stopLeftOver()
  if (existsSync(folder) && !existsSync(readyMark)) {
    // Setting up was interrupted, so it holds nothing of the user's; it is moved aside all the same.
    const aside = `${folder}.half-made-${Date.now()}`
    renameSync(folder, aside)
    say(`A half-made data directory was moved to ${aside}.`)
  }
  if (!existsSync(folder)) create()
  const password = secret()
  writeFileSync(initFile, initStatements(password), { mode: 0o600 })
  const port = await freePort(firstPort)
  const child = await launch(mariadbd, port, onDeath)
  return { pid: child.pid, port, password, socketPath, stop: () => endQuietly(child) }
}

/** A database that outlived its server is shut down first: two may never share a data directory. */
async function stopLeftOver() {
  for (const pid of findProcesses('mariadbd', `--datadir=${folder}`)) {
    say('A database from last time is still running; it is shut down first.')
    await stopProcess(pid, 30_000)
  }
}

function create() {
  say('Making a data directory …')
  const script = ['/usr/bin/mariadb-install-db', '/usr/bin/mysql_install_db'].find((path) => existsSync(path))
  const { status, stderr } = spawnSync(
    script,
    ['--no-defaults', `--datadir=${folder}`, '--auth-root-authentication-method=normal', '--skip-test-db', `--user=${userInfo().username}`],
    { encoding: 'utf8' },
  )
  if (status !== 0) refuse(`The data directory ${folder} could not be made:\n${stderr}`)
  writeFileSync(readyMark, '')
}

function secret() {
  const path = join(dataDir, 'mariadb-secret')
  if (!existsSync(path)) writeFileSync(path, randomBytes(24).toString('hex'), { mode: 0o600 })
  return readFileSync(path, 'utf8')
}

const initStatements = (password) =>
  [
    `CREATE DATABASE IF NOT EXISTS ${databaseName} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;`,
    `ALTER USER 'root'@'localhost' IDENTIFIED BY '${password}';`,
    "DELETE FROM mysql.global_priv WHERE User = '' OR (User = 'root' AND Host <> 'localhost');",
    'FLUSH PRIVILEGES;',
    '',
  ].join('\n')

async function launch(mariadbd, port, onDeath) {
  rmSync(socketPath, { force: true })
  const output = openSync(log, 'a')
  const child = spawn(
    mariadbd,
    [
      '--no-defaults',
      `--datadir=${folder}`,
      `--socket=${socketPath}`,
      `--port=${port}`,
      '--bind-address=127.0.0.1',
      `--pid-file=${join(dataDir, 'mariadb.pid')}`,
      `--init-file=${initFile}`,
      `--user=${userInfo().username}`,
      '--max-allowed-packet=192M',
      '--innodb-log-file-size=256M',
      '--innodb-buffer-pool-size=128M',
      '--innodb-flush-log-at-trx-commit=1',
      '--skip-name-resolve',
      '--performance-schema=OFF',
    ],
    // Its own group: Ctrl-C reaches this script, which ends server and database in order.
    { stdio: ['ignore', output, output], detached: true },
  )
  closeSync(output)
  for (let waited = 0; waited < 60_000; waited += 25) {
    if (!isRunning(child.pid)) refuse(`The database did not start. Its log is ${log}; the last lines:\n${tail(log)}`)
    if (existsSync(socketPath)) break
    await wait(25)
  }
  child.on('exit', () => {
    if (!child.stopping) onDeath()
  })
  return child
}

async function endQuietly(child) {
  child.stopping = true
  await stopProcess(child.pid, 30_000)
}

const tail = (path) => readFileSync(path, 'utf8').trimEnd().split('\n').slice(-12).join('\n')

/** The first free port on loopback from `first` on. */
async function freePort(first) {
  for (let port = first; port < first + 200; port++) if (await isPortFree(port)) return port
  return refuse(`No free port between ${first} and ${first + 199} for the database.`)
}

export function isPortFree(port) {
  return new Promise((resolve) => {
    const probe = createServer()
    probe.once('error', () => resolve(false))
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)))
  })
}
