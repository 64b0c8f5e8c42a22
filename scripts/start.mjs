import { fork, spawnSync } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { DatabaseDidNotStart, databaseName, hasDatabase, startDatabase } from './lib/database.mjs'
import { claimDesk, explain, leaveDesk, openFolder, runningStart } from './lib/desk.mjs'
import { installPackages } from './lib/installPackages.mjs'
import { dataDir, root } from './lib/paths.mjs'
import { holdPagePort, holdPort } from './lib/ports.mjs'
import { findProcesses, stopProcess } from './lib/processes.mjs'
import { refuse, say } from './lib/say.mjs'

const USAGE =
  'Usage: npm start [-- --port NUMBER] [--database-port NUMBER] [--private] [--fresh-demo] [--no-standins] [--hidden-fault NAME]'
const DEFAULT_PORT = 4820
/** The database's port stands so far from the page's that the desk next door can have the next number. */
const DATABASE_PORT_APART = 10_000
/** Ports of the stand-ins lie so far from the page's; a minute of theirs is a second of the wall's. */
const STANDINS_APART = 500
const STANDINS_TIMES = 60
/** A server that ends more often than this within a minute is not started again; tests that end it on purpose allow more. */
const MOST_RESTARTS = Number(process.env.SABLE_MOST_RESTARTS ?? 5)

const options = readOptions()
const { port } = options
let database
let server
let stopping = false
const serverEnds = []
const databaseEnds = []

process.on('SIGINT', () => stop(0))
process.on('SIGTERM', () => stop(0))
process.on('SIGHUP', () => stop(0))
process.on('uncaughtException', (error) => {
  say(error instanceof DatabaseDidNotStart ? error.message : (explain(error) ?? error.stack))
  void stop(1)
})

installPackages()
openFolder(!hasDatabase())
await takeOver()
// Both ports are taken before anything takes time: what is built or made for a port that somebody else has would be in vain.
const pagePort = await holdPagePort(port)
if (!pagePort) refuse(`Port ${port} is taken by another program. Choose another one: npm start -- --port ${port + 10}`)
let databasePort = await holdDatabasePort()
claimDesk(port)
const token = options.isPrivate ? privateToken() : undefined
buildApart()
database = await startDatabase(databasePort, databaseDied)
const standins = options.standins ? await startStandins() : undefined
await pagePort.release()
await startServer(options.freshDemo)
process.stdout.write(
  `Sable Lantern is ready: http://localhost:${port}${token === undefined ? '' : `/?token=${token}`}\n${token === undefined ? '' : 'Who opens this address once may use the desk from then on.\n'}Ctrl-C ends it. Its database listens on port ${database.port} of this machine.\n`,
)

/** In a process of its own, so that what a build takes of memory is not held while the desk runs. */
function buildApart() {
  const { status } = spawnSync(process.execPath, [join(root, 'scripts/build.mjs'), 'server', 'standins', 'web'], {
    stdio: ['ignore', 2, 2],
  })
  if (status !== 0) {
    leaveDesk()
    refuse('The application could not be built; what the build said stands above.')
  }
}

function readOptions() {
  try {
    const { values } = parseArgs({
      options: {
        port: { type: 'string' },
        'database-port': { type: 'string' },
        private: { type: 'boolean' },
        'fresh-demo': { type: 'boolean' },
        'no-standins': { type: 'boolean' },
        'hidden-fault': { type: 'string' },
        help: { type: 'boolean' },
      },
    })
    if (values.help) {
      process.stdout.write(`${USAGE}\n`)
      process.exit(0)
    }
    const wanted = portOf('--port', values.port ?? DEFAULT_PORT)
    const apart = wanted + DATABASE_PORT_APART > 65_000 ? -DATABASE_PORT_APART : DATABASE_PORT_APART
    return {
      port: wanted,
      databasePort: values['database-port'] === undefined ? undefined : portOf('--database-port', values['database-port']),
      usualDatabasePort: wanted + apart,
      isPrivate: values.private === true,
      freshDemo: values['fresh-demo'] === true,
      standins: values['no-standins'] !== true,
      hiddenFault: values['hidden-fault'],
    }
  } catch (error) {
    return refuse(`${error.message}\n${USAGE}`)
  }
}

function portOf(option, given) {
  const number = Number(given)
  if (!Number.isInteger(number) || number < 1024 || number > 65_000)
    refuse(`${option} must be a whole number from 1024 to 65000.\n${USAGE}`)
  return number
}

/** The port that was asked for, or else the first free one from the usual one on. */
async function holdDatabasePort() {
  const wanted = options.databasePort
  const candidates = wanted === undefined ? Array.from({ length: 50 }, (_, i) => options.usualDatabasePort + i) : [wanted]
  for (const candidate of candidates) {
    const held = await holdPort(candidate)
    if (held) return held
  }
  return refuse(
    `Two ports are needed, ${port} for the page and ${candidates[0]} for the database, and the second is taken by another program. Choose another one: npm start -- --port ${port} --database-port ${candidates[0] + 10}`,
  )
}

/** Makes sure that no other start of this desk runs, and ends what one that died has left behind. */
async function takeOver() {
  const last = runningStart()
  if (last) refuse(`This desk is already running: http://localhost:${last.port} (process ${last.pid}). End it there with Ctrl-C first.`)
  for (const pid of findProcesses(join(root, 'dist/server/main.js'), dataDir)) await stopProcess(pid)
}

/** Stays the same, so that browsers that were let in once stay so. */
function privateToken() {
  const path = join(dataDir, 'private-token')
  const known = existsSync(path) ? readFileSync(path, 'utf8').trim() : ''
  if (/^[0-9a-f]{32}$/.test(known)) return known
  const made = randomBytes(16).toString('hex')
  writeFileSync(path, made, { mode: 0o600 })
  return made
}

/** A simulated printer for the demo, with a scale, a caliper and an eye on its table, in a process of their own, which ends with this one. */
async function startStandins() {
  const ports = []
  for (let wanted = port + STANDINS_APART; ports.length < 4 && wanted < port + STANDINS_APART + 50; wanted++) {
    const held = await holdPort(wanted)
    if (!held) continue
    ports.push(wanted)
    await held.release()
  }
  if (ports.length < 4) return undefined
  const [printer, scale, caliper, table] = ports
  const child = fork(
    join(root, 'dist/standins/main.js'),
    [
      ...['--port', printer, '--scale-port', scale, '--caliper-port', caliper, '--table-port', table, '--times', STANDINS_TIMES].map(
        String,
      ),
      ...(options.hiddenFault === undefined ? [] : ['--hidden', options.hiddenFault]),
    ],
    { detached: true },
  )
  return new Promise((resolve) => {
    child.once('message', () =>
      resolve({
        SABLE_STANDIN_PRINTER: `127.0.0.1:${printer}`,
        SABLE_SCALE: `127.0.0.1:${scale}`,
        SABLE_CALIPER: `127.0.0.1:${caliper}`,
        SABLE_TABLE: `127.0.0.1:${table}`,
      }),
    )
    // Without them the desk is a desk all the same.
    child.once('exit', () => resolve(undefined))
  })
}

function startServer(fresh) {
  return new Promise((resolve) => {
    // The data directory stands on the command line so that a left-over server can be told from another desk's.
    server = fork(join(root, 'dist/server/main.js'), [dataDir], {
      cwd: root,
      detached: true,
      execArgv: ['--enable-source-maps'],
      env: {
        ...process.env,
        NODE_ENV: 'production',
        SABLE_DATA_FOLDER: dataDir,
        SABLE_PORT: String(port),
        SABLE_DB_SOCKET: database.socketPath,
        SABLE_DB_PASSWORD: database.password,
        SABLE_DB_NAME: databaseName,
        ...(token === undefined ? {} : { SABLE_TOKEN: token }),
        SABLE_FRESH_DEMO: fresh ? '1' : '',
        ...standins,
      },
    })
    server.on('message', (message) => {
      if (message === 'ready') resolve()
      else if (message.refused) {
        say(message.refused)
        void stop(1)
      }
    })
    server.on('exit', (code) => {
      if (!stopping) restartServer(code)
    })
  })
}

/** Whether a part of the desk has ended so often within a minute that starting it again would help nobody. @param ends when it ended */
function endsTooOften(ends) {
  const now = Date.now()
  ends.push(now)
  return ends.filter((time) => now - time < 60_000).length > MOST_RESTARTS
}

function restartServer(code) {
  if (endsTooOften(serverEnds)) {
    say(`The server ended again and again (code ${code}); what it said last stands above.`)
    stop(1)
    return
  }
  say('The server ended unexpectedly and is started again.')
  setTimeout(() => startServer(false), 500)
}

/** Also one that ends while it starts is started again: what ended it may be over. */
async function databaseDied() {
  if (stopping) return
  if (endsTooOften(databaseEnds)) {
    say('The database ended again and again; what it said last stands above.')
    await stop(1)
    return
  }
  say('The database ended unexpectedly and is started again.')
  try {
    databasePort = (await holdPort(databasePort.port)) ?? (await holdDatabasePort())
    database = await startDatabase(databasePort, databaseDied)
  } catch (error) {
    if (!(error instanceof DatabaseDidNotStart)) throw error
    say(error.message)
    await databaseDied()
  }
}

async function stop(code) {
  if (stopping) return
  stopping = true
  if (server?.pid) await stopProcess(server.pid)
  if (database) await database.stop()
  leaveDesk()
  process.exit(code)
}
