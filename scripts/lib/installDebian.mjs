import { spawnSync } from 'node:child_process'
import { existsSync } from 'node:fs'
import { refuse, say } from './say.mjs'

const succeeds = (command, args) => spawnSync(command, args, { stdio: 'ignore' }).status === 0

/**
 * Installs a Debian package when its program is missing: directly as root, else through sudo.
 *
 * @param program absolute paths of which one must exist
 */
export function installDebian(packageName, programs) {
  const found = programs.find((path) => existsSync(path))
  if (found) return found
  const asRoot = process.getuid?.() === 0
  const byHand = `apt-get update && apt-get install -y ${packageName}`
  if (!existsSync('/usr/bin/apt-get'))
    refuse(
      `${packageName} is missing, and this machine has no apt-get. Install ${packageName} with its own package manager, then run the command again.`,
    )
  if (!asRoot && !succeeds('sudo', ['-n', 'true']) && !process.stdin.isTTY) {
    refuse(`${packageName} is missing and cannot be installed without root. Run this once:\n  sudo sh -c '${byHand}'`)
  }
  say(`Installing ${packageName} …`)
  const run = (args) => {
    const [command, ...rest] = asRoot ? args : ['sudo', ...args]
    return (
      spawnSync(command, rest, { stdio: ['inherit', 'ignore', 2], env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } }).status === 0
    )
  }
  // A new machine has no package lists; one that has them may have old ones, so they are fetched either way.
  run(['apt-get', 'update', '-qq'])
  // Another installation may be under way.
  run(['apt-get', '-o', 'DPkg::Lock::Timeout=300', 'install', '-y', '-qq', '--no-install-recommends', packageName])
  const installed = programs.find((path) => existsSync(path))
  if (!installed) refuse(`${packageName} could not be installed. Run this once, then try again:\n  sudo sh -c '${byHand}'`)
  return installed
}
