import { createReadStream } from 'node:fs'
import { type FileHandle, open, readFile, writeFile } from 'node:fs/promises'
import { basename, extname } from 'node:path'
import { InputError } from '@sable/core/errors'
import { type ProfileFile, readProfileFile } from '@sable/core/formats/profileFile'
import { readPart } from '@sable/core/formats/readPart'
import { write3mf } from '@sable/core/formats/write3mf'
import { writeStl } from '@sable/core/formats/writeStl'
import { type Placement, place } from '@sable/core/mesh/place'
import { factsOf, type MoveFacts } from '@sable/core/motion/moveFacts'
import type { Motion } from '@sable/core/motion/planMotion'
import { moveTracks } from '@sable/core/physicsFigures'
import { type LaidDown, layDown, type Part, planFor, predict } from '@sable/core/predict'
import { type Exception, Scopes } from '@sable/core/profile/exceptions'
import { resolveSettings, type Setup } from '@sable/core/profile/resolve'
import { isSettingName, parseValue, type SettingValues } from '@sable/core/profile/settings'
import { inOwnUnit } from '@sable/core/profile/typedValue'
import { programFor } from '@sable/core/program/programFor'
import { ProgramTimer } from '@sable/core/program/timeProgram'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { StageCache } from '@sable/core/stageCache'
import { noPurpose, type Purpose, placeOf, purposeSchema } from '@sable/core/strength/purpose'
import { loadKinds } from '@sable/core/strength/strengthFigures'
import { fieldsOf } from '@sable/core/views/fields'
import { Command, CommanderError } from 'commander'
import { contentKey } from './contentKey'
import { findSetup } from './findRecords'
import { openKernel } from './openKernel'
import { asJson, asMoveTable, asProgramTable, asTable, fieldsAsJson } from './report'

interface SharedOptions {
  readonly printer?: string
  readonly nozzle?: number
  readonly material?: string
  readonly set: readonly string[]
  readonly scale: number
  readonly rotate: [number, number, number]
  readonly load?: Purpose['load']
  readonly grip?: readonly [heldTo: number, loadedFrom: number]
  readonly json?: boolean
}

const program = new Command('sable')
  .description('Predicts time, filament, surface and strength of a printed part.')
  .showHelpAfterError()
  .exitOverride()

const withOptions = (command: Command): Command =>
  command
    .option('--printer <key>', 'printer from the shelf')
    .option('--nozzle <mm>', 'bore of the nozzle, mm', readNumber('--nozzle'))
    .option('--material <key>', 'material from the shelf')
    .option(
      '--set <name=value>',
      'set one setting; may be given often',
      (value: string, before: string[]) => [...before, value],
      [] as string[],
    )
    .option('--scale <factor>', 'scale the part', readNumber('--scale'), 1)
    .option('--rotate <x,y,z>', 'turn the part, degrees about each axis', readAngles, [0, 0, 0])
    .option('--json', 'print one JSON object')

const withLoad = (command: Command): Command =>
  withOptions(command)
    .option(
      '--load <kind:axis>',
      'load of the part: bend:x, pull:weakest, crush:30,45 (from x towards y, up from the bed; degrees)',
      readLoad,
    )
    .option('--grip <from,to>', 'held up to and loaded from, per cent of the length', readGrip)

withLoad(program.command('predict').description('figures for one profile').argument('<model>', 'STL, 3MF or OBJ file'))
  .option('--profile <file>', 'profile file')
  .option('--fields <file>', 'where to write what is known of each layer, facet and section, as JSON')
  .action(async (model: string, options: SharedOptions & { profile?: string; fields?: string }) => {
    const part = await loadPart(model)
    const file = options.profile === undefined ? undefined : await loadProfile(options.profile)
    const purpose = purposeOf(options)
    const [kernel, cache] = [await openKernel(), new StageCache()]
    const prediction = predictWith(part, file, options, kernel, cache)
    if (options.fields !== undefined) {
      const { setup, values, placement, exceptions } = candidateOf(file, options)
      const fields = fieldsOf(part, placement, setup, values, { kernel, cache, exceptions, load: placeOf(purpose) })
      await writeNamed(options.fields, [fieldsAsJson(fields)])
    }
    print(
      options.json ? JSON.stringify(asJson(prediction, purpose), null, 2) : asTable([file?.name ?? basename(model)], [prediction], purpose),
    )
  })

withLoad(
  program
    .command('compare')
    .description('figures for several profiles side by side')
    .argument('<model>', 'STL, 3MF or OBJ file')
    .argument('<profiles...>', 'profile files'),
).action(async (model: string, files: string[], options: SharedOptions) => {
  const part = await loadPart(model)
  const kernel = await openKernel()
  const cache = new StageCache()
  const profiles = await Promise.all(files.map(loadProfile))
  const purpose = purposeOf(options)
  const predictions = profiles.map((file) => predictWith(part, file, options, kernel, cache))
  print(
    options.json
      ? JSON.stringify(
          { candidates: predictions.map((prediction, i) => ({ name: profiles[i]!.name, file: files[i], ...asJson(prediction, purpose) })) },
          null,
          2,
        )
      : asTable(
          profiles.map((profile) => profile.name),
          predictions,
          purpose,
        ),
  )
})

withOptions(
  program
    .command('toolpath')
    .description('write the program that prints a model, or tell every move of a layer')
    .argument('<model>', 'STL, 3MF or OBJ file'),
)
  .option('--profile <file>', 'profile file')
  .option('--gcode <file>', 'where to write the program')
  .option('--absolute-filament', 'count filament from the beginning instead of from word to word')
  .option('--layer <number>', 'tell every move of this layer, the first is 1', readNumber('--layer'))
  .action(
    async (model: string, options: SharedOptions & { profile?: string; gcode?: string; absoluteFilament?: boolean; layer?: number }) => {
      if (options.gcode === undefined && options.layer === undefined)
        throw new InputError(
          'toolpath-for-what',
          'There is nothing to do with the path.',
          'toolpath',
          'Give --gcode FILE or --layer NUMBER.',
        )
      const part = await loadPart(model)
      const file = options.profile === undefined ? undefined : await loadProfile(options.profile)
      const { setup, values, placement, exceptions } = candidateOf(file, options)
      const filament = options.absoluteFilament ? 'absolute' : 'relative'
      const choice = { kernel: await openKernel(), cache: new StageCache(), exceptions, partName: basename(model), filament } as const
      if (options.layer !== undefined) {
        const laid = layDown(part, placement, setup, values, choice)
        const moves = movesOfLayer(laid, setup, planFor(laid, setup, choice), exceptions, options.layer)
        print(options.json ? JSON.stringify({ layer: options.layer, moves }, null, 2) : asMoveTable(moves))
      }
      if (options.gcode === undefined) return
      const pieces: string[] = []
      programFor(part, placement, setup, values, choice, (text) => pieces.push(text))
      await writeNamed(options.gcode, pieces)
      print(
        `${options.gcode}: ${pieces.reduce((sum, { length }) => sum + length, 0)} bytes. Read what stands at its beginning before you run it.`,
      )
    },
  )

program
  .command('time')
  .description('time a G-code program on a printer')
  .argument('<program>', 'G-code file, whatever wrote it')
  .option('--printer <key>', 'printer from the shelf')
  .option('--corner-speed <mm/s>', 'speed kept at corners, unless the program tells its own', readNumber('--corner-speed'))
  .option('--feature-pattern <regex>', 'comments that name a feature; the first group is the name')
  .option('--layer-pattern <regex>', 'comments that begin a layer')
  .option('--json', 'print one JSON object')
  .action(
    async (
      path: string,
      options: { printer?: string; cornerSpeed?: number; featurePattern?: string; layerPattern?: string; json?: boolean },
    ) => {
      const { printer } = findSetup({ printer: options.printer })
      const timer = newTimer(printer, options)
      try {
        for await (const piece of createReadStream(path, { highWaterMark: 1 << 20 })) timer.push(piece as Buffer)
      } catch (error) {
        throw unreadable(path, error)
      }
      const figures = timer.finish()
      print(options.json ? JSON.stringify(figures, null, 2) : asProgramTable(basename(path), printer.name, figures))
    },
  )

program
  .command('convert')
  .description('mend a model and write it as STL or 3MF')
  .argument('<model>', 'STL, 3MF or OBJ file')
  .argument('<target>', 'file to write, ending in .stl or .3mf')
  .option('--scale <factor>', 'scale the part', readNumber('--scale'), 1)
  .option('--rotate <x,y,z>', 'turn the part, degrees about each axis', readAngles, [0, 0, 0])
  .action(async (model: string, target: string, options: { scale: number; rotate: [number, number, number] }) => {
    const mesh = place((await loadPart(model)).mesh, { scale: options.scale, rotateDeg: options.rotate })
    const kind = extname(target).toLowerCase()
    if (kind !== '.stl' && kind !== '.3mf')
      throw new InputError('target-unknown', `"${kind}" is no kind of file that can be written.`, target, 'End the name in .stl or .3mf.')
    await writeNamed(target, [kind === '.3mf' ? write3mf(mesh, basename(target, kind)) : writeStl(mesh)])
    print(`${target}: ${mesh.triangles.length / 3} triangles.`)
  })

program
  .command('shelf')
  .description('starter printers, nozzles and materials with their keys')
  .option('--json', 'print one JSON object')
  .action((options: { json?: boolean }) => {
    const shelf = { printers: starterPrinters, nozzles: starterNozzles, materials: starterMaterials }
    if (options.json) return print(JSON.stringify(shelf, null, 2))
    for (const [group, records] of Object.entries(shelf)) {
      print(`${group}:`)
      for (const record of records) print(`  ${record.key.padEnd(12)} ${record.name}`)
    }
  })

interface CandidateChoice {
  readonly setup: Setup
  readonly values: SettingValues
  readonly placement: Placement
  readonly exceptions: readonly Exception[]
}

/** What a profile file and the options over it say together. */
function candidateOf(file: ProfileFile | undefined, options: SharedOptions): CandidateChoice {
  const setup = findSetup({
    printer: options.printer ?? file?.printer,
    nozzle: options.nozzle ?? file?.nozzle,
    material: options.material ?? file?.material,
  })
  const values = readSettings(options.set, setup, file?.settings ?? {})
  const placement: Placement = { scale: options.scale, rotateDeg: options.rotate }
  return { setup, values, placement, exceptions: file?.exceptions ?? [] }
}

function predictWith(
  part: Part,
  file: ProfileFile | undefined,
  options: SharedOptions,
  kernel: Awaited<ReturnType<typeof openKernel>>,
  cache: StageCache,
) {
  const { setup, values, placement, exceptions } = candidateOf(file, options)
  return predict(part, placement, setup, values, { kernel, cache, exceptions, load: placeOf(purposeOf(options)) })
}

/** The weakest of the usual loads unless another one is asked for. */
function purposeOf({ load = noPurpose.load, grip }: SharedOptions): Purpose {
  const [heldTo, loadedFrom] = grip ?? [load.heldTo, load.loadedFrom]
  return { ...noPurpose, load: { ...load, heldTo, loadedFrom } }
}

function readLoad(text: string): Purpose['load'] {
  const [kind, where = 'weakest'] = text.split(':')
  const [azimuthDeg, elevationDeg] = where.split(',').map(Number)
  const isFree = Number.isFinite(azimuthDeg) && Number.isFinite(elevationDeg)
  const parsed = purposeSchema.shape.load.safeParse({ kind, ...(isFree ? { axis: 'free', azimuthDeg, elevationDeg } : { axis: where }) })
  if (parsed.success) return parsed.data
  throw new InputError(
    'option-not-a-load',
    `"${text}" is no load.`,
    '--load',
    `Write one of ${loadKinds.join(', ')}, a colon, and x, y, z, weakest or two angles, for example --load bend:x.`,
  )
}

function readGrip(text: string): [number, number] {
  const [heldTo, loadedFrom] = text.split(',').map(Number)
  const parsed = purposeSchema.shape.load.safeParse({ ...noPurpose.load, heldTo, loadedFrom })
  if (parsed.success) return [parsed.data.heldTo, parsed.data.loadedFrom]
  throw new InputError(
    'option-not-a-grip',
    `"${text}" does not say where the part is held and loaded.`,
    '--grip',
    'Give 0 to 45 and 55 to 100 per cent, for example --grip 10,90.',
  )
}

/** @param layer counted from 1 */
function movesOfLayer(
  { path, layers, resolved }: LaidDown,
  setup: Setup,
  motion: Motion,
  exceptions: readonly Exception[],
  layer: number,
): MoveFacts[] {
  const count = path.layerStart.length - 1
  if (!Number.isInteger(layer) || layer > count)
    throw new InputError('layer-unknown', `There is no layer ${layer}.`, '--layer', `Give a whole number from 1 to ${count}.`)
  const from = path.layerStart[layer - 1]!
  const names = exceptions.map(({ name }) => name)
  const tracks = moveTracks({ layers, path, motion, scopes: new Scopes(resolved.settings, exceptions), setup })
  return Array.from({ length: path.layerStart[layer]! - from }, (_, i) => factsOf(path, motion, from + i, names, tracks))
}

function newTimer(
  printer: Setup['printer'],
  options: { cornerSpeed?: number; featurePattern?: string; layerPattern?: string },
): ProgramTimer {
  try {
    return new ProgramTimer(printer, options)
  } catch (error) {
    throw new InputError(
      'pattern-malformed',
      `This is no regular expression (${(error as Error).message}).`,
      '--feature-pattern or --layer-pattern',
      'Write for example --feature-pattern "part: (.*)".',
    )
  }
}

async function writeNamed(path: string, pieces: readonly (string | Uint8Array)[]): Promise<void> {
  let file: FileHandle | undefined
  try {
    file = await open(path, 'w')
    for (const piece of pieces) await writeFile(file, piece)
  } catch (error) {
    throw new InputError(
      'file-unwritable',
      `The file cannot be written (${(error as NodeJS.ErrnoException).code}).`,
      path,
      'Check the path.',
    )
  } finally {
    await file?.close()
  }
}

/** Values of a profile with those of the command line over them, which may carry a unit. */
function readSettings(pairs: readonly string[], setup: Setup, base: SettingValues): SettingValues {
  const values: Record<string, number | string> = { ...base }
  for (const pair of pairs) {
    const at = pair.indexOf('=')
    if (at < 1)
      throw new InputError('set-malformed', `"${pair}" is not of the form name=value.`, '--set', 'Write for example --set layerHeight=0.2.')
    const name = pair.slice(0, at).trim()
    const text = pair.slice(at + 1)
    const { settings } = resolveSettings(setup, values)
    values[name] = parseValue(name, isSettingName(name) ? inOwnUnit(name, text, (other) => Number(settings[other])) : text, '--set')
  }
  return values
}

async function loadPart(path: string): Promise<Part> {
  const bytes = await readNamed(path)
  return readPart(bytes, basename(path), contentKey(bytes))
}

async function loadProfile(path: string): Promise<ProfileFile> {
  return readProfileFile((await readNamed(path)).toString('utf8'), basename(path))
}

async function readNamed(path: string): Promise<Buffer> {
  try {
    return await readFile(path)
  } catch (error) {
    throw unreadable(path, error)
  }
}

function unreadable(path: string, error: unknown): InputError {
  const { code } = error as NodeJS.ErrnoException
  const why = code === 'ENOENT' ? 'There is no such file.' : code === 'EISDIR' ? 'This is a folder.' : `The file cannot be read (${code}).`
  return new InputError('file-unreadable', why, path, 'Check the path.')
}

function readNumber(option: string) {
  return (text: string): number => {
    const value = Number(text.replace(',', '.'))
    if (text.trim() === '' || !Number.isFinite(value) || value <= 0)
      throw new InputError('option-not-a-number', `"${text}" is not a number above 0.`, option, `Write for example ${option} 0.4.`)
    return value
  }
}

function readAngles(text: string): [number, number, number] {
  const angles = text.split(',').map(Number)
  if (angles.length !== 3 || !angles.every(Number.isFinite))
    throw new InputError('option-not-angles', `"${text}" is not three angles.`, '--rotate', 'Write for example --rotate 90,0,0.')
  return angles as [number, number, number]
}

function print(text: string): void {
  process.stdout.write(`${text}\n`)
}

try {
  await program.parseAsync()
} catch (error) {
  if (error instanceof CommanderError) process.exitCode = error.exitCode
  else {
    process.stderr.write(`${error instanceof InputError ? error.sentence : (error as Error).stack}\n`)
    process.exitCode = 1
  }
}
