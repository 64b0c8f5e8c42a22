import { fork, spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { databaseName, isPortFree, startDatabase } from './lib/database.mjs'
import { installPackages } from './lib/installPackages.mjs'
import { dataDir, root } from './lib/paths.mjs'
import { commandLine, findProcesses, stopProcess } from './lib/processes.mjs'
import { refuse, say } from './lib/say.mjs'

const USAGE = 'Usage: npm start [-- --port NUMBER] [--fresh-demo]'
const DEFAULT_PORT = 4820
/** A server that ends more often than this within a minute is not started again. */
const MOST_RESTARTS = 5

const { port, freshDemo } = readOptions()
const pidFile = join(dataDir, 'start.json')
let database
let server
let stopping = false
const restarts = []

process.on('SIGINT', () => stop(0))
process.on('SIGTERM', () => stop(0))
process.on('SIGHUP', () => stop(0))

installPackages()
mkdirSync(dataDir, { recursive: true, mode: 0o700 })
await takeOver()
if (!(await isPortFree(port))) refuse(`Port ${port} is taken by another program. Choose another one: npm start -- --port ${port + 10}`)
writeFileSync(pidFile, JSON.stringify({ pid: process.pid, port }))
buildApart()
database = await startDatabase(port + 1, databaseDied)
await startServer(freshDemo)
process.stdout.write(`Sable Lantern is ready: http://localhost:${port}\nCtrl-C ends it.\n`)

/** In a process of its own, so that what a build takes of memory is not held while the desk runs. */
function buildApart() {
  const { status } = spawnSync(process.execPath, [join(root, 'scripts/build.mjs'), 'server', 'web'], { stdio: ['ignore', 2, 2] })
  if (status !== 0) refuse('The application could not be built; what the build said stands above.')
}

function readOptions() {
  try {
    const { values } = parseArgs({ options: { port: { type: 'string' }, 'fresh-demo': { type: 'boolean' }, help: { type: 'boolean' } } })
    if (values.help) {
      process.stdout.write(`${USAGE}\n`)
      process.exit(0)
    }
    const wanted = Number(values.port ?? DEFAULT_PORT)
    if (!Number.isInteger(wanted) || wanted < 1024 || wanted > 65_000) refuse(`--port must be a whole number from 1024 to 65000.\n${USAGE}`)
    return { port: wanted, freshDemo: values['fresh-demo'] === true }
  } catch (error) {
    return refuse(`${error.message}\n${USAGE}`)
  }
}

/** Makes sure that no other start of this desk runs, and ends what one that died has left behind. */
async function takeOver() {
  if (existsSync(pidFile)) {
    const last = readLast()
    if (last && last.pid !== process.pid && commandLine(last.pid).includes('start.mjs')) {
      refuse(`This desk is already running: http://localhost:${last.port} (process ${last.pid}). End it there with Ctrl-C first.`)
    }
    rmSync(pidFile)
  }
  for (const pid of findProcesses(join(root, 'dist/server/main.js'), dataDir)) await stopProcess(pid)
}

function readLast() {
  try {
    return JSON.parse(readFileSync(pidFile, 'utf8'))
  } catch {
    return undefined
  }
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
        SABLE_FRESH_DEMO: fresh ? '1' : '',
      },
    })
    server.on('message', (message) => {
      if (message === 'ready') resolve()
    })
    server.on('exit', (code) => {
      if (!stopping) restartServer(code)
    })
  })
}

function restartServer(code) {
  const now = Date.now()
  restarts.push(now)
  if (restarts.filter((time) => now - time < 60_000).length > MOST_RESTARTS) {
    say(`The server ended again and again (code ${code}); what it said last stands above.`)
    stop(1)
    return
  }
  say('The server ended unexpectedly and is started again.')
  setTimeout(() => startServer(false), 500)
}

async function databaseDied() {
  if (stopping) return
  say('The database ended unexpectedly and is started again.')
  database = await startDatabase(port + 1, databaseDied)
}

async function stop(code) {
  if (stopping) return
  stopping = true
  if (server?.pid) await stopProcess(server.pid)
  if (database) await database.stop()
  rmSync(pidFile, { force: true })
  process.exit(code)
}
