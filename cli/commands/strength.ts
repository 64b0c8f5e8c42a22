import { failureWords } from '@sable/core/figures/table/solvedReason'
import { caseAlong } from '@sable/core/physics/solved/casesAlong'
import type { SolvedLoad } from '@sable/core/physics/solved/solvedLoad'
import type { Case } from '@sable/core/physics/solved/structure'
import type { Extent, Three } from '@sable/core/physics/solved/voxels'
import type { Box } from '@sable/core/physics/solved/where'
import { usualGrip } from '@sable/core/physics/strength/grip'
import { type LoadKind, loadKinds } from '@sable/core/physics/strength/sectionLoads'
import { layDown } from '@sable/core/pipeline/layDown'
import { predict } from '@sable/core/pipeline/predict'
import { solvedWork } from '@sable/core/pipeline/solvedWork'
import { StageCache } from '@sable/core/pipeline/stageCache'
import { InputError } from '@sable/core/units/errors'
import { formatForce } from '@sable/core/units/format'
import { runToEnd } from '@sable/core/units/steps'
import type { Command } from 'commander'
import { candidateOf } from '../candidate'
import { loadPart, loadProfile } from '../files'
import { openKernel } from '../openKernel'
import { readNumber, type SharedOptions, withOptions } from '../options'
import { plainJson, print } from '../report'

interface Options extends Omit<SharedOptions, 'load'> {
  readonly profile?: string
  readonly hold: readonly Box[]
  readonly load: readonly Box[]
  readonly force?: Three
  readonly as?: { readonly kind: LoadKind; readonly axis: 'x' | 'y' | 'z' }
  readonly voxel?: number
}

export function addStrength(program: Command): void {
  withOptions(
    program
      .command('strength')
      .description('the load at which a printed part fails, solved by finite elements from the lines that are laid')
      .argument('<model>', 'STL, 3MF or OBJ file'),
  )
    .option('--profile <file>', 'profile file')
    .option(
      '--hold <box>',
      'where it is held: x0,y0,z0:x1,y1,z1, mm; the middle of the part is at x = y = 0, z from the bed; may be given often',
      readBox,
      [],
    )
    .option('--load <box>', 'where it is loaded, alike', readBox, [])
    .option('--force <fx,fy,fz>', 'which way, N; the load that is told is along it', readForce)
    .option(
      '--as <kind:axis>',
      'instead of these: pull, bend, bendHigh, threePoint or crush along x, y or z, as predictions have it',
      readAs,
    )
    .option('--voxel <mm>', 'how wide a cell is', readNumber('--voxel'))
    .action(async (model: string, options: Options) => {
      const part = await loadPart(model)
      const file = options.profile === undefined ? undefined : await loadProfile(options.profile)
      const { setup, values, placement, overrides } = candidateOf(file, { ...options, load: undefined })
      const choice = { kernel: await openKernel(), cache: new StageCache(), overrides }
      const prediction = predict(part, placement, setup, values, choice)
      const laid = layDown(part, placement, setup, values, choice)
      const began = performance.now()
      const work = solvedWork(laid, prediction, setup, (extent) => caseOf(options, extent), options.voxel)
      const told = asTold(runToEnd(work), performance.now() - began)
      print(options.json ? plainJson(told) : asText(told))
    })
}

/** What the options say is held and loaded. Coordinates are those of places in a profile: the middle of the part is at x = y = 0, z is counted from the bed. */
function caseOf({ hold, load, force, as }: Options, extent: Extent): Case {
  if (as) return caseAlong(extent, as.axis, as.kind, usualGrip)
  if (hold.length === 0 || load.length === 0 || !force)
    throw new InputError(
      'strength-no-case',
      'It is not said where the part is held and how it is loaded.',
      'strength',
      `Give --hold, --load and --force, or --as bend:y. The part reaches from ${inWords(extent.low)} to ${inWords(extent.high)}.`,
    )
  const boxes = (all: readonly Box[]) => all.map((box) => ({ kind: 'box', ...box }) as const)
  return { holds: [{ where: boxes(hold), along: [true, true, true] }], loads: [[{ where: boxes(load), force }]] }
}

const inWords = (at: Three): string => at.map((mm) => mm.toFixed(1)).join(', ')

function readBox(text: string, before: readonly Box[]): readonly Box[] {
  const [a = [], b = []] = text.split(':').map((corner) => corner.split(',').map(Number))
  if (a.length !== 3 || b.length !== 3 || ![...a, ...b].every(Number.isFinite))
    throw new InputError(
      'option-not-a-box',
      `"${text}" is not a box.`,
      '--hold or --load',
      'Write two corners, for example -25,-5,0:-20,5,9.',
    )
  const corner = (of: (p: number, q: number) => number): Three => [of(a[0]!, b[0]!), of(a[1]!, b[1]!), of(a[2]!, b[2]!)]
  return [...before, { low: corner(Math.min), high: corner(Math.max) }]
}

function readForce(text: string): Three {
  const force = text.split(',').map(Number)
  if (force.length !== 3 || !force.every(Number.isFinite) || Math.hypot(...force) === 0)
    throw new InputError(
      'option-not-a-force',
      `"${text}" is not a force.`,
      '--force',
      'Write it along x, y and z, for example --force 0,0,-10.',
    )
  return [force[0]!, force[1]!, force[2]!]
}

function readAs(text: string): NonNullable<Options['as']> {
  const [kind, axis] = text.split(':')
  const known = loadKinds.find((one) => one === kind)
  if (!known || (axis !== 'x' && axis !== 'y' && axis !== 'z'))
    throw new InputError(
      'option-not-a-case',
      `"${text}" is no load.`,
      '--as',
      `Write one of ${loadKinds.join(', ')}, a colon, and x, y or z, for example --as bend:y.`,
    )
  return { kind: known, axis }
}

const asTold = (found: SolvedLoad, ms: number) => ({ ...found, timeMs: Math.round(ms) })

function asText({
  failureN,
  low,
  high,
  at,
  by,
  stiffnessNmm,
  voxelMm,
  cells,
  iterations,
  timeMs,
  dropped,
}: ReturnType<typeof asTold>): string {
  return [
    `It fails at about ${formatForce(failureN)} (${formatForce(low)} to ${formatForce(high)} in four of five): ${failureWords[by].replace(/^./, (first) => first.toLowerCase())} at ${inWords(at)} mm.`,
    `It gives way by 1 mm under ${formatForce(stiffnessNmm)}.`,
    `${cells} cells of ${voxelMm.toFixed(2)} mm, ${iterations} iterations, ${timeMs} ms${dropped > 0.001 ? `; ${(100 * dropped).toFixed(1)} % of the plastic hangs on nothing that is held` : ''}.`,
    'An estimate, never a rating: do not hang on it what can hurt somebody.',
  ].join('\n')
}
