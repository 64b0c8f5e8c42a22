import { contentKey } from '@sable/cli/contentKey'
import { openKernel } from '@sable/cli/openKernel'
import { readPart } from '@sable/core/formats/readPart'
import { place } from '@sable/core/mesh/place'
import { type Part, predict } from '@sable/core/predict'
import { resolveSettings } from '@sable/core/profile/resolve'
import type { SettingValues } from '@sable/core/profile/settings'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { layerCount } from '@sable/core/slicing/layers'
import { slice } from '@sable/core/slicing/slice'
import { StageCache } from '@sable/core/stageCache'
import { type BenchModel, benchModels } from './models'

const ROUNDS = 9
const setup = { printer: starterPrinters[1]!, nozzle: starterNozzles[1]!, material: starterMaterials[0]! }
const base: SettingValues = { layerHeight: 0.2, firstLayerHeight: 0.2, lineWidth: 0.4, wallCount: 3, infillDensity: 15 }
const edits: readonly (readonly [name: string, values: SettingValues])[] = [
  ['speedEdit', { ...base, outerWallSpeed: 47 }],
  ['infillEdit', { ...base, infillDensity: 22 }],
  ['layerHeightEdit', { ...base, layerHeight: 0.24 }],
]
const kernel = await openKernel()

/** Milliseconds that some work takes. */
function time(work: () => unknown): number {
  const from = performance.now()
  work()
  return performance.now() - from
}

const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!

/** What everything is measured against: one bare inset of every simplified contour, in the same round of the same run. */
function bareInset(model: BenchModel, part: Part): () => void {
  const layers = slice(place(part.mesh, model.placement), () => resolveSettings(setup, base).settings, kernel)
  return () => {
    for (let layer = 0; layer < layerCount(layers); layer++) kernel.run((ops) => ops.offset(ops.read(layers.outlines, layer), -0.2))
  }
}

for (const model of benchModels()) {
  const part = readPart(model.bytes, model.name, contentKey(model.bytes))
  const inset = bareInset(model, part)
  const times: Record<string, number[]> = { inset: [], cold: [] }
  for (const [name] of edits) times[name] = []
  // The first round only warms the compiler up, as a worker is that has computed a column before.
  for (let round = 0; round <= ROUNDS; round++) {
    const keep = (name: string, ms: number): void => {
      if (round > 0) times[name]!.push(ms)
    }
    globalThis.gc?.()
    keep('inset', time(inset))
    const cache = new StageCache()
    // Cold: from the bytes of the file to every figure, nothing remembered.
    keep(
      'cold',
      time(() => predict(readPart(model.bytes, model.name, contentKey(model.bytes)), model.placement, setup, base, { kernel, cache })),
    )
    for (const [name, values] of edits)
      keep(
        name,
        time(() => predict(part, model.placement, setup, values, { kernel, cache })),
      )
  }
  for (const [name, samples] of Object.entries(times)) {
    // Round by round, so that a machine that turns slower in between moves both alike.
    const ratio = median(samples.map((ms, round) => ms / times.inset![round]!))
    process.stdout.write(
      `${JSON.stringify({ figure: `${model.name}.${name}`, medianMs: Number(median(samples).toFixed(1)), ratioToInset: Number(ratio.toFixed(2)), rounds: ROUNDS, triangles: part.report.triangles })}\n`,
    )
  }
}
