import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { installDebian } from './lib/installDebian.mjs'
import { installPackages } from './lib/installPackages.mjs'
import { root } from './lib/paths.mjs'

/** Takes the pictures in docs/screenshots anew, from a fresh demo in a real browser. */
installPackages()
installDebian('chromium', ['/usr/bin/chromium'])
const { status } = spawnSync(
  join(root, 'node_modules/.bin/playwright'),
  ['test', '--config', 'e2e/pictures.config.ts', ...process.argv.slice(2)],
  { cwd: root, stdio: 'inherit' },
)
process.exit(status ?? 1)
