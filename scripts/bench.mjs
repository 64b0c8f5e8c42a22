import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { build } from './build.mjs'
import { installDebian } from './lib/installDebian.mjs'
import { installPackages } from './lib/installPackages.mjs'
import { root } from './lib/paths.mjs'

/** Prints one JSON line a figure: first the core by itself, then the application in a browser. A name picks one of the two. */
const [only] = process.argv.slice(2)
installPackages()
const runs = []
if (only !== 'views') {
  await build(['bench'])
  runs.push([process.execPath, ['--enable-source-maps', join(root, 'dist/bench/main.js'), ...process.argv.slice(2)]])
}
if (only === undefined || only === 'views') {
  installDebian('chromium', ['/usr/bin/chromium'])
  runs.push([join(root, 'node_modules/.bin/playwright'), ['test', '--config', 'e2e/measure.config.ts']])
}
for (const [command, args] of runs) {
  const { status } = spawnSync(command, args, { cwd: root, stdio: 'inherit' })
  if (status !== 0) process.exit(status ?? 1)
}
