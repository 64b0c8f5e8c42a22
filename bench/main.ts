import { spawnSync } from 'node:child_process'
import { Worker } from 'node:worker_threads'
import { contentKey } from '@sable/cli/contentKey'
import { openKernel } from '@sable/cli/openKernel'
import { readPart } from '@sable/core/formats/readPart'
import { readStl } from '@sable/core/formats/readStl'
import type { Part } from '@sable/core/mesh/part'
import { place } from '@sable/core/mesh/place'
import { weld } from '@sable/core/mesh/weld'
import { planMotion } from '@sable/core/motion/planMotion'
import { Crew } from '@sable/core/pipeline/crew/crew'
import { loadPathTask, openTravelTask, physicsTask, sectionsTask, surfaceTask, uprightTask } from '@sable/core/pipeline/figureTasks'
import { layDown } from '@sable/core/pipeline/layDown'
import { predict, predictWork } from '@sable/core/pipeline/predict'
import { StageCache } from '@sable/core/pipeline/stageCache'
import type { SettingValues } from '@sable/core/profile/settings'
import { programFor } from '@sable/core/program/programFor'
import { ProgramTimer } from '@sable/core/program/timeProgram'
import { resolveSettings } from '@sable/core/setup/resolve'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { layerCount } from '@sable/core/slicing/layers'
import { slice } from '@sable/core/slicing/slice'
import { learnIn, quantile } from '@sable/core/testing/worlds'
import { moveCount } from '@sable/core/toolpath/toolpath'
import { doAlone } from '@sable/core/work/doAlone'
import type { Host, Work } from '@sable/core/work/work'
import { median } from 'd3-array'
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js'
import { lineOf } from './lineOf'
import { type BenchModel, benchModels, flaringHull, millionTriangles } from './models'

const ROUNDS = 9
/** Rounds before those that count, in which the compiler warms up: a worker has computed a column before, or is in the midst of a long file. */
const WARM_UP = 3
const setup = { printer: starterPrinters[1]!, nozzle: starterNozzles[1]!, material: starterMaterials[0]! }
const base: SettingValues = { layerHeight: 0.2, firstLayerHeight: 0.2, lineWidth: 0.4, wallCount: 3, infillDensity: 15 }
const { settings } = resolveSettings(setup, base)
const edits: readonly (readonly [name: string, values: SettingValues])[] = [
  ['speedEdit', { ...base, outerWallSpeed: 47 }],
  ['infillEdit', { ...base, infillDensity: 22 }],
  ['wallsEdit', { ...base, wallCount: 4 }],
  ['layerHeightEdit', { ...base, layerHeight: 0.24 }],
]
const kernel = await openKernel()

/** Predictions are shared with a second thread, as the page's workers share them. */
const helper = new Worker(new URL('helper.js', import.meta.url))
const crew = new Crew(async () => kernel, [lineOf(helper)])

/** Milliseconds that some work takes. */
async function time(work: () => unknown): Promise<number> {
  const from = performance.now()
  await work()
  return performance.now() - from
}

const print = (figure: string, values: object): boolean => process.stdout.write(`${JSON.stringify({ figure, ...values })}\n`)

/**
 * Measures several works round by round; ratios are to the first of them, round by round, so that a machine that turns
 * slower in between moves all alike. Nothing is collected by force: that throws compiled code away, which no worker's life does.
 */
async function compare(prefix: string, works: Readonly<Record<string, () => unknown>>, more: object = {}, warmUp = WARM_UP): Promise<void> {
  const times: Record<string, number[]> = Object.fromEntries(Object.keys(works).map((name) => [name, []]))
  for (let round = 0; round < warmUp + ROUNDS; round++) {
    for (const [name, work] of Object.entries(works)) {
      const ms = await time(work)
      if (round >= warmUp) times[name]!.push(ms)
    }
  }
  const [baseline] = Object.keys(works) as [string]
  for (const [name, samples] of Object.entries(times)) {
    const ratio = median(samples.map((ms, round) => ms / times[baseline]![round]!))!
    print(`${prefix}.${name}`, {
      medianMs: Number(median(samples)!.toFixed(1)),
      ratio: Number(ratio.toFixed(2)),
      to: `${prefix}.${baseline}`,
      rounds: ROUNDS,
      ...more,
    })
  }
}

/** What predictions are measured against: one bare inset of every simplified contour. */
function bareInset(model: BenchModel, part: Part): () => void {
  const layers = slice(place(part.mesh, model.placement), () => settings, kernel)
  return () => {
    for (let layer = 0; layer < layerCount(layers); layer++) kernel.run((ops) => ops.offset(ops.read(layers.outlines, layer), -0.2))
  }
}

async function predictions(model: BenchModel): Promise<void> {
  const part = readPart(model.bytes, model.name, contentKey(model.bytes))
  let cache = new StageCache()
  const of = (values: SettingValues) => () => crew.do(predictWork(part, model.placement, setup, values, { cache }))
  await compare(
    model.name,
    {
      inset: bareInset(model, part),
      // Cold: from the bytes of the file to every figure, nothing remembered; edits then find what it left.
      cold: () => {
        cache = new StageCache()
        return crew.do(predictWork(readPart(model.bytes, model.name, contentKey(model.bytes)), model.placement, setup, base, { cache }))
      },
      /** The same in one thread. */
      coldAlone: () => predict(readPart(model.bytes, model.name, contentKey(model.bytes)), model.placement, setup, base, { kernel }),
      ...Object.fromEntries(edits.map(([name, values]) => [name, of(values)])),
    },
    { triangles: part.report.triangles },
  )
}

/** Stages of the physics, which come on top of a prediction of time and filament. */
const physicsTasks = [physicsTask, uprightTask, openTravelTask, loadPathTask, sectionsTask, surfaceTask]

/** Work whose tasks tell how long they took. */
function* timed<T>(work: Work<T>, onTask: (name: string, ms: number) => void): Work<T> {
  let step = work.next([])
  while (!step.done) {
    const { pieces, told } = step.value
    const watched = pieces.map(({ task, input }) => ({
      task: {
        name: task.name,
        run: (_: never, host: Host) => {
          const from = performance.now()
          const result = task.run(input as never, host)
          onTask(task.name, performance.now() - from)
          return result
        },
      },
      input,
    }))
    step = work.next(yield { pieces: watched, told })
  }
  return step.value
}

async function physics(model: BenchModel): Promise<void> {
  const shares: number[] = []
  for (let round = 0; round < WARM_UP + ROUNDS; round++) {
    const part = readPart(model.bytes, model.name, contentKey(model.bytes))
    let own = 0
    const onTask = (name: string, took: number): void => {
      if (physicsTasks.some((task) => task.name === name)) own += took
    }
    const ms = await time(() => doAlone(timed(predictWork(part, model.placement, setup, base, {}), onTask), kernel))
    if (round >= WARM_UP) shares.push(own / (ms - own))
  }
  print('scan.physics', { ratio: Number(median(shares)!.toFixed(3)), to: 'the rest of a cold prediction', rounds: ROUNDS })
}

async function motion(model: BenchModel): Promise<void> {
  const part = readPart(model.bytes, model.name, contentKey(model.bytes))
  const { path } = layDown(part, model.placement, setup, base, { kernel })
  const free = { ...settings, minLayerTime: 0 }
  const samples: number[] = []
  for (let round = 0; round < WARM_UP + ROUNDS; round++) samples.push(await time(() => planMotion(path, () => free, setup.printer)))
  print('motion.plan', {
    movesPerSecond: Math.round((1000 * moveCount(path)) / median(samples.slice(WARM_UP))!),
    moves: moveCount(path),
    rounds: ROUNDS,
  })
}

/** Infill that only props tops, against a plain one. */
async function propping(model: BenchModel): Promise<void> {
  const part = readPart(model.bytes, model.name, contentKey(model.bytes))
  const of = (infillPattern: 'grid' | 'topPropping') => () => layDown(part, model.placement, setup, { ...base, infillPattern }, { kernel })
  await compare(`${model.name}.infill`, { grid: of('grid'), topPropping: of('topPropping') }, { triangles: part.report.triangles }, 1)
}

async function reading(model: BenchModel): Promise<void> {
  const buffer = model.bytes.buffer.slice(model.bytes.byteOffset, model.bytes.byteOffset + model.bytes.byteLength) as ArrayBuffer
  // A model is read once: what the compiler makes of it the tenth time helps nobody.
  const once = 1
  await compare(
    'stl',
    { otherLoader: () => new STLLoader().parse(buffer), readAndWeld: () => weld(readStl(model.bytes).corners) },
    {},
    once,
  )
}

async function programs(model: BenchModel): Promise<void> {
  const part = readPart(model.bytes, model.name, contentKey(model.bytes))
  const pieces: string[] = []
  programFor(part, model.placement, setup, base, { kernel, partName: model.name, filament: 'relative' }, (text) => pieces.push(text))
  const text = pieces.join('')
  const bytes = new TextEncoder().encode(text)
  await compare(
    'program',
    {
      splitIntoLines: () => new TextDecoder().decode(bytes).split('\n').length,
      readAndTime: () => {
        const timer = new ProgramTimer(setup.printer)
        for (let at = 0; at < bytes.length; at += 1 << 20) timer.push(bytes.subarray(at, at + (1 << 20)))
        return timer.finish()
      },
    },
    { megabytes: Number((bytes.length / 1e6).toFixed(1)) },
  )
}

/** What is learned in a thousand workshops whose truth is drawn from what is thought of workshops: how far off, and what ranges held. */
function worlds(): void {
  const all = Array.from({ length: 1000 }, (_, i) => learnIn(i + 1))
  for (const of of ['time', 'flow', 'strength'] as const) {
    const off = all.map((world) => world[of])
    print(`learning.${of}`, {
      medianOff: Number(quantile(off, 0.5).toFixed(4)),
      ninthTenthOff: Number(quantile(off, 0.9).toFixed(4)),
      worlds: all.length,
    })
  }
  const held = all.flatMap((world) => world.held)
  print('learning.ranges', { held: Number((held.filter(Boolean).length / held.length).toFixed(3)), of: held.length, wanted: 0.8 })
}

const [shade, scan] = benchModels() as [BenchModel, BenchModel]
if (process.argv.includes('--cold-memory')) {
  await crew.do(predictWork(readPart(scan.bytes, scan.name, contentKey(scan.bytes)), scan.placement, setup, base, {}))
  print('scan.coldPeakMemory', { megabytes: Math.round(process.resourceUsage().maxRSS / 1024) })
} else {
  await predictions(shade)
  await predictions(scan)
  await physics(scan)
  await propping(flaringHull())
  await motion(scan)
  await reading(scan)
  await programs(scan)
  worlds()
  const { stdout } = spawnSync(process.execPath, [process.argv[1]!, '--cold-memory'], { encoding: 'utf8' })
  process.stdout.write(stdout)
  const million = millionTriangles()
  const fine = { ...base, layerHeight: 0.1, firstLayerHeight: 0.1 }
  const ms = await time(() =>
    crew.do(predictWork(readPart(million.bytes, million.name, contentKey(million.bytes)), million.placement, setup, fine, {})),
  )
  print('million.cold', { ms: Math.round(ms), rounds: 1 })
}
await helper.terminate()
