import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { build } from './build.mjs'
import { installDebian } from './lib/installDebian.mjs'
import { installPackages } from './lib/installPackages.mjs'
import { root } from './lib/paths.mjs'

/** Prints one JSON line a figure: first the core by itself, then the application in a browser. then under attack. A name picks one. */
const [only] = process.argv.slice(2)
// In the core's own figures freed memory stays with the process. By default it goes back to the system at once, and a virtual
// machine's host may take it away, to be asked for again page by page: that took up to half of all time.
const keepsMemory = { ...process.env, MALLOC_MMAP_THRESHOLD_: `${1 << 30}`, MALLOC_TRIM_THRESHOLD_: `${2 ** 32}` }
installPackages()
const runs = []
if (only === undefined || !['views', 'attack', 'log', 'cases', 'queue', 'strength', 'features'].includes(only)) {
  await build(['bench'])
  runs.push([process.execPath, ['--enable-source-maps', join(root, 'dist/bench/main.js'), ...process.argv.slice(2)], keepsMemory])
}
if (only === undefined || only === 'views') {
  installDebian('chromium', ['/usr/bin/chromium'])
  runs.push([join(root, 'node_modules/.bin/playwright'), ['test', '--config', 'e2e/measure.config.ts'], process.env])
}
if (only === undefined || only === 'log') runs.push([join(root, 'node_modules/.bin/tsx'), ['bench/log.ts'], process.env])
if (only === undefined || only === 'cases') runs.push([join(root, 'node_modules/.bin/tsx'), ['bench/cases.ts'], process.env])
if (only === undefined || only === 'queue') runs.push([join(root, 'node_modules/.bin/tsx'), ['bench/queue.ts'], process.env])
if (only === undefined || only === 'strength') runs.push([join(root, 'node_modules/.bin/tsx'), ['bench/strength.ts'], keepsMemory])
if (only === undefined || only === 'features') runs.push([join(root, 'node_modules/.bin/tsx'), ['bench/features.ts'], keepsMemory])
if (only === undefined || only === 'attack') runs.push([join(root, 'node_modules/.bin/tsx'), ['bench/attack.ts'], process.env])
for (const [command, args, env] of runs) {
  const { status } = spawnSync(command, args, { cwd: root, stdio: 'inherit', env })
  if (status !== 0) process.exit(status ?? 1)
}
