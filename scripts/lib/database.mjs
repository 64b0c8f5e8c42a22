import { spawn, spawnSync } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { closeSync, existsSync, mkdirSync, openSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { userInfo } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { installDebian } from './installDebian.mjs'
import { dataDir, socketPath } from './paths.mjs'
import { findProcesses, isRunning, stopProcess } from './processes.mjs'
import { refuse, say } from './say.mjs'

const folder = join(dataDir, 'mariadb')
/** Where it is made; it gets its name when it is whole. */
const making = `${folder}.making`
/** A database that starts removes temporary tables that lie in its folder, whosever they are: two that shared one would end each other. */
const temporary = join(dataDir, 'mariadb-temporary')
const log = join(dataDir, 'mariadb.log')
const initFile = join(dataDir, 'mariadb-init.sql')
export const databaseName = 'sable'

/** Whether the desk has a database yet. */
export const hasDatabase = () => existsSync(join(folder, 'mysql'))

/**
 * Starts the desk's own MariaDB: own data directory, own socket, own port on loopback. The system's instance, if there is
 * one, is never touched: no shared option file is read.
 *
 * @param {{ port: number, release: () => Promise<void> }} held its port, held until now
 * @param onDeath called when the database ends although nobody asked it to
 * @throws DatabaseDidNotStart
 */
export async function startDatabase(held, onDeath) {
  const mariadbd = installDebian('mariadb-server', ['/usr/sbin/mariadbd', '/usr/sbin/mysqld', '/usr/libexec/mariadbd'])
  mkdirSync(dataDir, { recursive: true, mode: 0o700 })
  mkdirSync(temporary, { recursive: true, mode: 0o700 })
  await stopLeftOver()
  removeHalfMade()
  if (!existsSync(folder)) create()
  const password = secret()
  writeFileSync(initFile, initStatements(password), { mode: 0o600 })
  await held.release()
  const child = await launch(mariadbd, held.port, onDeath)
  return { pid: child.pid, port: held.port, password, socketPath, stop: () => endQuietly(child) }
}

/** What an interrupted start left: nothing of the user's is in it, since the application was never there. */
function removeHalfMade() {
  for (const name of readdirSync(dataDir))
    if (/^mariadb\.(making|half-made-)/.test(name)) rmSync(join(dataDir, name), { recursive: true, force: true })
  if (!existsSync(folder) || hasDatabase()) return
  say('A half-made data directory is removed and made anew.')
  rmSync(folder, { recursive: true, force: true })
}

/** A database that outlived its server is shut down first: two may never share a data directory. */
async function stopLeftOver() {
  for (const pid of findProcesses(`--datadir=${folder}`)) {
    say('A database from last time is still running; it is shut down first.')
    await stopProcess(pid, 30_000)
  }
}

function create() {
  say('Making a data directory …')
  const script = ['/usr/bin/mariadb-install-db', '/usr/bin/mysql_install_db'].find((path) => existsSync(path))
  const { status, stderr } = spawnSync(
    script,
    ['--no-defaults', `--datadir=${making}`, '--auth-root-authentication-method=normal', '--skip-test-db', `--user=${userInfo().username}`],
    { encoding: 'utf8', env: { ...process.env, TMPDIR: temporary } },
  )
  if (status !== 0) refuse(`The data directory ${folder} could not be made.${hintOf(stderr)}\n${stderr}`)
  renameSync(making, folder)
}

/** The password of the desk's database. One that is empty or damaged is made anew: the database takes it before it opens to anyone. */
function secret() {
  const path = join(dataDir, 'mariadb-secret')
  const known = existsSync(path) ? readFileSync(path, 'utf8').trim() : ''
  if (/^[0-9a-f]{48}$/.test(known)) return known
  const made = randomBytes(24).toString('hex')
  writeFileSync(`${path}.new`, made, { mode: 0o600 })
  renameSync(`${path}.new`, path)
  return made
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
      `--tmpdir=${temporary}`,
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
  let isOpen = false
  child.on('exit', () => {
    if (isOpen && !child.stopping) onDeath()
  })
  for (let waited = 0; waited < 60_000 && isRunning(child.pid) && !existsSync(socketPath); waited += 25) await wait(25)
  if (!isRunning(child.pid) || !existsSync(socketPath))
    throw new DatabaseDidNotStart(`The database did not start.${hintOf(tail(log))} Its log is ${log}; the last lines:\n${tail(log)}`)
  isOpen = true
  return child
}

/** Says why, and what can be done. */
export class DatabaseDidNotStart extends Error {}

async function endQuietly(child) {
  child.stopping = true
  await stopProcess(child.pid, 30_000)
}

const tail = (path) => readFileSync(path, 'utf8').trimEnd().split('\n').slice(-12).join('\n')

/** What the database says of the disk or of its port, in a sentence. */
function hintOf(text) {
  if (/No space left|Errcode: 28|Error number 28|Disk is full/i.test(text)) return ' The disk is full: free some room, then start again.'
  if (/Read-only file system|Errcode: 30|Permission denied|Errcode: 13/i.test(text)) return ` ${dataDir} cannot be written.`
  if (/Address already in use|port: \d+ \?/i.test(text)) return ' Its port is taken: choose another one with --database-port NUMBER.'
  return ''
}
