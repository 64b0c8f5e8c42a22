import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { build } from './build.mjs'
import { installDebian } from './lib/installDebian.mjs'
import { installPackages } from './lib/installPackages.mjs'
import { root } from './lib/paths.mjs'
import { say } from './lib/say.mjs'

/** Everything: lint (with the import rule), types, unit and server tests, the real application in a browser. */
installPackages()
installDebian('mariadb-server', ['/usr/sbin/mariadbd', '/usr/sbin/mysqld'])
installDebian('chromium', ['/usr/bin/chromium'])
// The general-purpose solver against which strength by finite elements is checked.
installDebian('calculix-ccx', ['/usr/bin/ccx'])
await build()

const bin = (name) => join(root, 'node_modules/.bin', name)
const rooms = [
  'core',
  'core/tsconfig.tests.json',
  'contract',
  'demo',
  'server',
  'web',
  'cli',
  'e2e',
  'bench',
  'soak',
  'standins',
  'handbook',
  'scripts',
]
const steps = [
  ['lint', bin('biome'), ['check', '--error-on-warnings', '.']],
  ['rooms', process.execPath, [join(root, 'scripts/rooms.mjs')]],
  ...rooms.map((room) => [`types of ${room}`, bin('tsc'), ['-p', room]]),
  ['unit and server tests', bin('vitest'), ['run', '--reporter=default']],
  ['browser tests', bin('playwright'), ['test', '--config', 'e2e/playwright.config.ts']],
]
const failed = []
for (const [name, command, args] of steps) {
  say(`— ${name}`)
  const { status } = spawnSync(command, args, { cwd: root, stdio: ['ignore', 'inherit', 'inherit'] })
  if (status !== 0) failed.push(name)
}
if (failed.length > 0) say(`Failed: ${failed.join(', ')}.`)
process.exit(failed.length === 0 ? 0 : 1)
