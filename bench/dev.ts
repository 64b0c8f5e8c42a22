import { contentKey } from '@sable/cli/contentKey'
import { openKernel } from '@sable/cli/openKernel'
import { readPart } from '@sable/core/formats/readPart'
import { place } from '@sable/core/mesh/place'
import { predict } from '@sable/core/predict'
import { resolveSettings } from '@sable/core/profile/resolve'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { layerCount } from '@sable/core/slicing/layers'
import { slice } from '@sable/core/slicing/slice'
import { StageCache } from '@sable/core/stageCache'
import { benchModels } from './models'

const rounds = Number(process.env.ROUNDS ?? 8)
const which = process.env.MODEL ?? 'scan'
const setup = { printer: starterPrinters[1]!, nozzle: starterNozzles[1]!, material: starterMaterials[0]! }
const base: any = { layerHeight: 0.2, firstLayerHeight: 0.2, lineWidth: 0.4, wallCount: 3, infillDensity: 15 }
const { settings } = resolveSettings(setup, base)
const kernel = await openKernel()
const model = benchModels().find((m) => m.name === which)!
class TimedCache extends StageCache {
  readonly ms: Record<string, number> = {}
  override get<T>(stage: string, key: string, compute: () => T): T {
    return super.get(stage, key, () => {
      const from = performance.now()
      const r = compute()
      this.ms[stage] = performance.now() - from
      return r
    })
  }
}
const all: Record<string, number[]> = {}
const note = (k: string, v: number) => (all[k] ??= []).push(v)
const part0 = readPart(model.bytes, model.name, contentKey(model.bytes))
const layers = slice(place(part0.mesh, model.placement), () => settings, kernel)
for (let r = 0; r < rounds; r++) {
  ;(globalThis as any).gc?.()
  let t = performance.now()
  for (let l = 0; l < layerCount(layers); l++) kernel.run((ops) => ops.offset(ops.read(layers.outlines, l), -0.2))
  note('inset', performance.now() - t)
  const cache = new TimedCache()
  t = performance.now()
  const part = readPart(model.bytes, model.name, contentKey(model.bytes))
  note('read', performance.now() - t)
  predict(part, model.placement, setup, base, { kernel, cache })
  note('cold', performance.now() - t)
  for (const [k, v] of Object.entries(cache.ms)) note(' ' + k, v)
  for (const [name, values] of [
    ['speed', { ...base, outerWallSpeed: 47 }],
    ['infill', { ...base, infillDensity: 22 }],
    ['walls', { ...base, wallCount: 4 }],
  ] as const) {
    for (const k of Object.keys(cache.ms)) delete cache.ms[k]
    t = performance.now()
    predict(part, model.placement, setup, values, { kernel, cache })
    note(name, performance.now() - t)
    for (const [k, v] of Object.entries(cache.ms)) note(`  ${name}.${k}`, v)
  }
}
if (process.env.ALL) console.log(all.inset!.map((v) => v.toFixed(0)).join(' '), '\n', all.cold!.map((v) => v.toFixed(0)).join(' '))
const med = (v: number[]) => [...v].sort((a, b) => a - b)[Math.floor(v.length / 2)]!
const inset = med(all.inset!)
for (const [k, v] of Object.entries(all))
  if (med(v) > 3) console.log(k.padEnd(24), med(v).toFixed(0).padStart(6), (med(v) / inset).toFixed(2))
