import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { installPackages } from './lib/installPackages.mjs'
import { root } from './lib/paths.mjs'

/** A long attack on readers and server; see soak/main.ts for what can be said. */
installPackages()
const { status } = spawnSync(join(root, 'node_modules/.bin/tsx'), ['soak/main.ts', ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
})
process.exit(status ?? 1)
