import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { build } from './build.mjs'
import { installPackages } from './lib/installPackages.mjs'
import { root } from './lib/paths.mjs'

/** Prints one JSON line a figure. */
installPackages()
await build(['bench'])
const { status } = spawnSync(
  process.execPath,
  ['--enable-source-maps', '--expose-gc', join(root, 'dist/bench/main.js'), ...process.argv.slice(2)],
  { cwd: root, stdio: 'inherit' },
)
process.exit(status ?? 1)
