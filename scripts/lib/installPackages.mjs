import { spawnSync } from 'node:child_process'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './paths.mjs'
import { refuse, say } from './say.mjs'

/** Runs `npm ci` when packages are missing or the lock file has changed since. */
export function installPackages() {
  const lock = readFileSync(join(root, 'package-lock.json'), 'utf8')
  const stamp = join(root, 'node_modules', '.sable-lock')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return
  say('Installing packages …')
  const { status } = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { cwd: root, stdio: ['ignore', 2, 2] })
  if (status !== 0) refuse('The packages could not be installed. Check that the npm registry can be reached, then run the command again.')
  writeFileSync(stamp, lock)
}
