import { contentKey } from '@sable/cli/contentKey'
import { openKernel } from '@sable/cli/openKernel'
import { readPart } from '@sable/core/formats/readPart'
import { predict } from '@sable/core/predict'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { StageCache } from '@sable/core/stageCache'
import { benchModels } from './models'

const setup = { printer: starterPrinters[1]!, nozzle: starterNozzles[1]!, material: starterMaterials[0]! }
const base: any = { layerHeight: 0.2, firstLayerHeight: 0.2, lineWidth: 0.4, wallCount: 3, infillDensity: 15 }
const kernel = await openKernel()
const model = benchModels()[1]!
const part = readPart(model.bytes, model.name, contentKey(model.bytes))
class TimedCache extends StageCache {
  ms: Record<string, number[]> = {}
  override get<T>(stage: string, key: string, compute: () => T): T {
    return super.get(stage, key, () => {
      const from = performance.now()
      const r = compute()
      ;(this.ms[stage] ??= []).push(performance.now() - from)
      return r
    })
  }
}
const cache = new TimedCache()
predict(part, model.placement, setup, base, { kernel, cache })
const all: number[] = []
for (let i = 0; i < 40; i++) {
  if (i === 10) cache.ms = {}
  const t = performance.now()
  predict(part, model.placement, setup, { ...base, outerWallSpeed: 40 + i * 0.1 }, { kernel, cache })
  if (i >= 10) all.push(performance.now() - t)
}
const med = (v: number[]) => [...v].sort((a, b) => a - b)[Math.floor(v.length / 2)]!
console.log(
  'all',
  med(all).toFixed(1),
  Object.entries(cache.ms)
    .map(([k, v]) => `${k} ${med(v).toFixed(1)}`)
    .join(', '),
)
