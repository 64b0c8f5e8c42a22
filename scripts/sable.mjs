import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { build } from './build.mjs'
import { installPackages } from './lib/installPackages.mjs'
import { root } from './lib/paths.mjs'

/** The command line, from the folder in which it was called. */
installPackages()
await build(['cli'])
const { status } = spawnSync(process.execPath, ['--enable-source-maps', join(root, 'dist/cli/main.js'), ...process.argv.slice(2)], {
  stdio: 'inherit',
  cwd: process.env.INIT_CWD ?? process.cwd(),
})
process.exit(status ?? 1)
