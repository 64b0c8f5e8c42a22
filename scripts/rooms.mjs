import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join, normalize, relative } from 'node:path'
import { fileURLToPath } from 'node:url'
import { root } from './lib/paths.mjs'

/**
 * The rooms of core/ from the ground up. Files of a room import only from itself and from rooms that stand before it, so no
 * two rooms ever hang on each other. A new room gets its place here.
 */
const order = [
  'units',
  'constants/table',
  'constants',
  'geometry',
  'elements/kernel',
  'elements',
  'mesh',
  'profile/table',
  'profile',
  'schools',
  'formats',
  'shelf',
  'learning',
  'steps',
  'work',
  'patterns',
  'slicing',
  'supports',
  'regions',
  'toolpath',
  'motion',
  'physics/cooling',
  'physics/finish',
  'physics/fit',
  'physics/melt',
  'physics/strength',
  'physics/solved',
  'physics/sway',
  'setup',
  'physics',
  'checks',
  'pipeline',
  'pipeline/crew',
  'program',
  'plate',
  'views',
  'figures/table',
  'figures',
  'doubt',
  'search',
  'matrix',
  'suggest',
  'advice',
  'trials/solids',
  'trials/spec',
  'trials/shapes',
  'trials/table',
  'trials',
  'faults/spec',
  'faults/table/causes',
  'faults/table',
  'faults',
  'log',
  'queue',
]

/** Folders between which imports run, with the files that make them, tests and what only tests use left out. @param folder absolute */
function importsIn(folder) {
  const files = readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && /\.tsx?$/.test(entry.name) && !/\.(test|d)\.tsx?$/.test(entry.name))
    .map((entry) => join(entry.parentPath, entry.name))
    .filter((path) => !/node_modules|\/testing\//.test(path))
  return files.flatMap((path) => {
    const text = readFileSync(path, 'utf8')
    return [...text.matchAll(/(?:from|import\() ?'(\.[^']+)'/g)].map(([, specifier]) => ({
      from: relative(folder, dirname(path)) || '.',
      to: relative(folder, dirname(normalize(join(dirname(path), specifier)))) || '.',
      file: relative(root, path),
      specifier,
    }))
  })
}

/** Groups of folders that hang on each other, Tarjan 1972. */
function circlesOf(edges) {
  const next = new Map()
  for (const { from, to } of edges) if (from !== to) next.set(from, (next.get(from) ?? new Set()).add(to))
  const [index, low, stack, circles] = [new Map(), new Map(), [], []]
  const visit = (folder) => {
    index.set(folder, index.size)
    low.set(folder, index.get(folder))
    stack.push(folder)
    for (const other of next.get(folder) ?? []) {
      if (!index.has(other)) visit(other)
      if (stack.includes(other)) low.set(folder, Math.min(low.get(folder), low.get(other)))
    }
    if (low.get(folder) !== index.get(folder)) return
    const group = stack.splice(stack.indexOf(folder))
    if (group.length > 1) circles.push(group)
  }
  for (const folder of next.keys()) if (!index.has(folder)) visit(folder)
  return circles
}

/** What stands against the order of core's rooms, and folders of any place that form a circle. */
export function problemsOfRooms() {
  const problems = []
  for (const { from, to, file, specifier } of importsIn(join(root, 'core'))) {
    if (!order.includes(from)) problems.push(`${file}: the room "${from}" has no place in the order of scripts/rooms.mjs.`)
    else if (from !== to && order.indexOf(to) > order.indexOf(from))
      problems.push(`${file} imports ${specifier}: ${to} stands above ${from}.`)
  }
  for (const place of ['core', 'server'])
    for (const circle of circlesOf(importsIn(join(root, place)))) problems.push(`${place}: ${circle.join(', ')} hang on each other.`)
  return [...new Set(problems)]
}

/** Draws which room imports which, as text: from the ground up, with how many imports. */
function draw() {
  const counts = new Map()
  for (const { from, to } of importsIn(join(root, 'core')))
    if (from !== to) counts.set(from, (counts.get(from) ?? new Map()).set(to, ((counts.get(from) ?? new Map()).get(to) ?? 0) + 1))
  for (const room of order)
    process.stdout.write(
      `${room.padEnd(18)} ${[...(counts.get(room) ?? [])]
        .sort((a, b) => b[1] - a[1])
        .map(([to, count]) => `${to} ${count}`)
        .join(' · ')}\n`,
    )
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const problems = problemsOfRooms()
  if (process.argv.includes('--draw')) draw()
  for (const problem of problems) process.stderr.write(`${problem}\n`)
  process.stdout.write(problems.length === 0 ? 'Checked rooms: no circle, every import goes down.\n' : `${problems.length} problems.\n`)
  process.exit(problems.length === 0 ? 0 : 1)
}
