import { spawnSync } from 'node:child_process'
import { dirname, join } from 'node:path'
import { root } from './lib/paths.mjs'
import { say } from './lib/say.mjs'

/** What a change needs before it is committed: lint, rooms, types of what it touches, the tests beside it, without a database. */
const bin = (name) => join(root, 'node_modules/.bin', name)
const run = (name, command, args) => {
  say(`— ${name}`)
  return spawnSync(command, args, { cwd: root, stdio: ['ignore', 'inherit', 'inherit'] }).status === 0
}
const changed = spawnSync('git', ['status', '--porcelain', '--untracked-files=all'], { cwd: root, encoding: 'utf8' })
  .stdout.split('\n')
  .map((line) => line.slice(3).replace(/^.* -> /, ''))
const rooms = ['core', 'contract', 'demo', 'server', 'web', 'cli', 'e2e', 'bench', 'soak', 'standins', 'handbook', 'scripts']
const touched = rooms.filter((room) => changed.some((path) => path.startsWith(`${room}/`)))
const types = touched.flatMap((room) => (room === 'core' ? ['core', 'core/tsconfig.tests.json'] : [room]))
/** Tests that stand beside what changed: those farther off belong to `npm test`. */
const beside = [...new Set(changed.filter((path) => /\.tsx?$/.test(path)).map((path) => `${dirname(path)}/`))]
const ok = [
  run('lint', bin('biome'), ['check', '--error-on-warnings', '.']),
  run('rooms', process.execPath, [join(root, 'scripts/rooms.mjs')]),
  ...types.map((room) => run(`types of ${room}`, bin('tsc'), ['-p', room])),
  beside.length === 0 ||
    run('tests beside it', bin('vitest'), [
      'run',
      '--project',
      'core',
      '--project',
      'page',
      '--project',
      'screens',
      '--passWithNoTests',
      ...beside,
    ]),
]
process.exit(ok.every(Boolean) ? 0 : 1)
