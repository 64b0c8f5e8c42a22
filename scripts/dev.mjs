import { spawn } from 'node:child_process'
import { watch } from 'node:fs'
import { join } from 'node:path'
import { build } from './build.mjs'
import { installPackages } from './lib/installPackages.mjs'
import { dataDir, root } from './lib/paths.mjs'
import { findProcesses, stopProcess } from './lib/processes.mjs'
import { say } from './lib/say.mjs'

/**
 * Serves the page as it is written, and the server: when its code changes it is built and started again. The page is at the
 * address that vite says; it asks the server at http://localhost:4820.
 */
const SERVER_FOLDERS = ['core', 'contract', 'demo', 'server']
/** Editors write a file in several strokes, ms. */
const REST_MS = 300

installPackages()
const children = [
  spawn(process.execPath, [join(root, 'scripts/start.mjs')], { stdio: 'inherit', env: { ...process.env, SABLE_MOST_RESTARTS: '1000' } }),
  spawn(join(root, 'node_modules/.bin/vite'), [], { cwd: join(root, 'web'), stdio: 'inherit' }),
]
const stop = () => {
  for (const child of children) child.kill('SIGINT')
}
process.on('SIGINT', stop)
process.on('SIGTERM', stop)
children[0].on('exit', (code) => {
  children[1].kill('SIGINT')
  process.exit(code ?? 0)
})

let resting
let building = Promise.resolve()
for (const folder of SERVER_FOLDERS)
  watch(join(root, folder), { recursive: true }, (_event, file) => {
    if (!/\.tsx?$/.test(file ?? '') || /\.test\.tsx?$/.test(file)) return
    clearTimeout(resting)
    resting = setTimeout(() => {
      building = building.then(restart, restart)
    }, REST_MS)
  })

async function restart() {
  try {
    await build(['server'])
  } catch {
    // What the build said stands above; the server that runs goes on.
    return
  }
  say('The server is started again …')
  // The one that watches over it starts the new one.
  for (const pid of findProcesses(join(root, 'dist/server/main.js'), dataDir)) await stopProcess(pid)
}
