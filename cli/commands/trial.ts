import { basename } from 'node:path'
import { changesBy, rangeOfStanding, type Standing } from '@sable/core/doubt/changes'
import { writeStl } from '@sable/core/formats/writeStl'
import { evidenceSchema } from '@sable/core/learning/evidence'
import { asModelled } from '@sable/core/mesh/place'
import { predict } from '@sable/core/pipeline/predict'
import { StageCache } from '@sable/core/pipeline/stageCache'
import { programFor } from '@sable/core/program/programFor'
import { foretoldOf } from '@sable/core/trials/foretoldOf'
import { headOf } from '@sable/core/trials/headOf'
import { trialKinds } from '@sable/core/trials/kinds'
import { type PlannedTrial, planTrial, refusalOf, trialPart } from '@sable/core/trials/plan'
import { readTrial } from '@sable/core/trials/read'
import { heightsOf, overridesOf, type TrialKindId, trialKindIds } from '@sable/core/trials/spec/trial'
import { InputError } from '@sable/core/units/errors'
import { formatDuration, threeDigits } from '@sable/core/units/format'
import { typedNumber } from '@sable/core/units/typedNumber'
import type { Command } from 'commander'
import { z } from 'zod'
import { readJson, writeNamed } from '../files'
import { findSetup } from '../findRecords'
import { openKernel } from '../openKernel'
import { openSolids } from '../openSolids'
import { plainJson, print } from '../report'

interface TrialOptions {
  readonly printer?: string
  readonly nozzle?: string
  readonly material?: string
  readonly form?: string
  readonly from?: number
  readonly to?: number
  readonly step?: number
  readonly list?: readonly number[]
  readonly length?: number
  readonly stl?: string
  readonly gcode?: string
  readonly json?: boolean
}

const withSetup = (command: Command): Command =>
  command
    .option('--printer <key>', 'printer from the shelf')
    .option('--nozzle <key or mm>', 'nozzle from the shelf, or its bore, mm')
    .option('--material <key>', 'material from the shelf')

export function addTrial(program: Command): void {
  const trial = program.command('trial').description('make a test print, or read one')
  withSetup(
    trial
      .command('make', { isDefault: true })
      .description(`make a test print: ${trialKindIds.join(', ')}`)
      .argument('<kind>'),
  )
    .option('--form <form>', 'another form of the kind')
    .option('--from <value>', 'first band', numberOf('--from'))
    .option('--to <value>', 'last band', numberOf('--to'))
    .option('--step <value>', 'from band to band', numberOf('--step'))
    .option('--bands <values>', 'values one by one, with commas', (text: string) => text.split(',').map((one) => numberOf('--bands')(one)))
    .option('--length <mm>', 'length of the thing, where it can be longer', numberOf('--length'))
    .option('--stl <file>', 'where to write the thing')
    .option('--gcode <file>', 'where to write its program')
    .option('--json', 'print one JSON object')
    .action(async (kind: string, { bands, ...options }: TrialOptions & { bands?: number[] }) =>
      make(kindOf(kind), { ...options, ...(bands ? { list: bands } : {}) }),
    )
  trial
    .command('read')
    .description('what a reading comes to')
    .argument('<reading>', 'JSON file: see docs/command-line.md')
    .option('--json', 'print one JSON object')
    .action(read)
}

const numberOf =
  (option: string) =>
  (text: string): number => {
    const value = typedNumber(text)
    if (Number.isFinite(value)) return value
    throw new InputError('option-not-a-number', `"${text}" is not a number.`, option, `Write for example ${option} 200.`)
  }

function kindOf(text: string): TrialKindId {
  const found = trialKindIds.find((id) => id.toLowerCase() === text.toLowerCase())
  if (found) return found
  throw new InputError('trial-unknown', `There is no trial "${text}".`, 'trial', `Give one of ${trialKindIds.join(', ')}.`)
}

function planOf(id: TrialKindId, setup: ReturnType<typeof findSetup>, { form, from, to, step, list, length }: TrialOptions): PlannedTrial {
  const some = from !== undefined || to !== undefined || step !== undefined
  const usual = some ? trialKinds[id].varied?.usual(setup) : undefined
  return planTrial(id, setup, {
    form,
    list,
    length,
    range: usual && { from: from ?? usual.from, to: to ?? usual.to, step: step ?? usual.step },
  })
}

async function make(id: TrialKindId, options: TrialOptions): Promise<void> {
  const setup = findSetup(options)
  const { spec, notes } = planOf(id, setup, options)
  const kind = trialKinds[id]
  const refusal = refusalOf(spec, setup)
  if (refusal !== undefined) throw new InputError('trial-refused', refusal, kind.name, 'Change the bands, or take another form.')
  const questions = { band: kind.questions.band, whole: kind.questions.whole }
  const bands = spec.bands.map((band, i) => {
    const { fromZ, toZ } = heightsOf(spec, i)
    return { label: band.label, ...(kind.bandsRun === 'up' ? { fromZMm: i === 0 ? 0 : fromZ, toZMm: toZ } : {}), settings: band.values }
  })
  if (!kind.shape) {
    print(options.json ? plainJson({ kind: id, bands, timeS: 0, massG: 0, questions }) : `${kind.name}: ${kind.how}`)
    return
  }
  const part = trialPart(spec, setup, await openSolids())
  const choice = { kernel: await openKernel(), cache: new StageCache(), overrides: overridesOf(spec) }
  const prediction = predict(part, asModelled, setup, spec.values, choice)
  const { timeS, massG } = foretoldOf(spec, setup, prediction)
  if (options.stl !== undefined) await writeNamed(options.stl, [writeStl(part.mesh, kind.name)])
  if (options.gcode !== undefined) {
    const pieces: string[] = []
    programFor(
      part,
      asModelled,
      setup,
      spec.values,
      { ...choice, partName: `${kind.name} trial`, filament: 'relative', head: headOf(spec, setup) },
      (text) => pieces.push(text),
    )
    await writeNamed(options.gcode, pieces)
  }
  if (options.json)
    print(plainJson({ kind: id, ...(spec.form === undefined ? {} : { form: spec.form }), bands, timeS, massG, notes, questions }))
  else
    print(
      [
        `${kind.name}: ${kind.tells}`,
        `${formatDuration(timeS)}, ${massG.toFixed(1)} g, ${bands.length === 0 ? 'one thing' : `${bands.length} bands: ${spec.bands.map(({ label }) => label).join(', ')}`}`,
        kind.how,
        ...notes,
        ...(kind.cautions?.(setup) ?? []),
      ].join('\n'),
    )
}

const answers = z.record(z.string(), z.union([z.number(), z.string()]))
/** What stands in a reading's file. */
const readingSchema = z.object({
  kind: z.enum(trialKindIds),
  printer: z.string().optional(),
  nozzle: z.union([z.string(), z.number()]).optional(),
  material: z.string().optional(),
  form: z.string().optional(),
  from: z.number().optional(),
  to: z.number().optional(),
  step: z.number().optional(),
  list: z.array(z.number()).optional(),
  length: z.number().optional(),
  bands: z.array(answers).default([]),
  whole: answers.default({}),
  /** What was read before of the same spool on the same machine. */
  before: z.array(evidenceSchema).default([]),
})

async function read(path: string, { json = false }: { json?: boolean }): Promise<void> {
  const { kind: id, bands, whole, before, printer, nozzle, material, ...asked } = await readJson(path, readingSchema)
  const setup = findSetup({ printer, nozzle, material })
  const { spec } = planOf(id, setup, withoutUndefined(asked))
  const outcome = readTrial(spec, setup, { bands, whole })
  const here = { printer: setup.printer.key, nozzle: setup.nozzle.key, material: setup.material.key, from: basename(path) }
  const changes = changesBy(setup, before.length > 0 ? [{ ...here, evidence: before }] : [], { ...here, evidence: outcome.evidence })
  const told = (of: (typeof changes)[number]['id'], standing: Standing) => {
    const [low, high] = rangeOfStanding(of, standing)
    return { value: standing.value, low, high, basis: standing.basis }
  }
  const constants = changes.map((change) => ({
    id: change.id,
    label: change.label,
    unit: change.unit,
    before: told(change.id, change.before),
    after: told(change.id, change.after),
  }))
  if (json) {
    print(
      plainJson({
        kind: id,
        result: outcome.found,
        advice: outcome.advice,
        constants,
        next: outcome.next ?? null,
        warnings: outcome.warnings,
      }),
    )
    return
  }
  print(
    [
      outcome.found,
      ...constants.map(({ label, unit, before: was, after: is }) =>
        `${label}: ${threeDigits(was.value)} (${threeDigits(was.low)} to ${threeDigits(was.high)}) → ${threeDigits(is.value)} (${threeDigits(is.low)} to ${threeDigits(is.high)}) ${unit}`.trimEnd(),
      ),
      ...outcome.warnings,
      ...(outcome.next ? [`Next: ${trialKinds[outcome.next.kind].name}. ${outcome.next.why}`] : []),
    ].join('\n'),
  )
}

const withoutUndefined = <T extends object>(given: T): { [K in keyof T]: Exclude<T[K], undefined> } =>
  Object.fromEntries(Object.entries(given).filter(([, value]) => value !== undefined)) as never
