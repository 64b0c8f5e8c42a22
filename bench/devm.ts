import { contentKey } from '@sable/cli/contentKey'
import { openKernel } from '@sable/cli/openKernel'
import { readPart } from '@sable/core/formats/readPart'
import { MoveChunk } from '@sable/core/motion/moveChunk'
import { planMotion } from '@sable/core/motion/planMotion'
import { layDown } from '@sable/core/predict'
import { resolveSettings } from '@sable/core/profile/resolve'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { benchModels } from './models'

const setup = { printer: starterPrinters[1]!, nozzle: starterNozzles[1]!, material: starterMaterials[0]! }
const base: any = { layerHeight: 0.2, firstLayerHeight: 0.2, lineWidth: 0.4, wallCount: 3, infillDensity: 15 }
const kernel = await openKernel()
const model = benchModels()[1]!
const part = readPart(model.bytes, model.name, contentKey(model.bytes))
const { settings } = resolveSettings(setup, base)
const { path } = layDown(part, model.placement, setup, base, { kernel })
let plans = 0
const old = MoveChunk.prototype.plan
MoveChunk.prototype.plan = function (...a: any[]) {
  plans++
  return old.apply(this, a as any)
}
const m = planMotion(path, () => settings, setup.printer)
console.log('plans', plans, 'layers', path.layerStart.length - 1, 'slowed', m.layerScale.filter((s) => s < 1).length, settings.minLayerTime)
MoveChunk.prototype.plan = old
for (const free of [true, false]) {
  const s: string[] = []
  for (let r = 0; r < 12; r++) {
    const t = performance.now()
    planMotion(path, () => (free ? { ...settings, minLayerTime: 0 } : settings), setup.printer)
    s.push((performance.now() - t).toFixed(0))
  }
  console.log(free, s.join(' '))
}
