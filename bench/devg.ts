import { contentKey } from '@sable/cli/contentKey'
import { openKernel } from '@sable/cli/openKernel'
import { readPart } from '@sable/core/formats/readPart'
import { planMotion } from '@sable/core/motion/planMotion'
import { layDown, predict } from '@sable/core/predict'
import { resolveSettings } from '@sable/core/profile/resolve'
import { programFor } from '@sable/core/program/programFor'
import { ProgramTimer } from '@sable/core/program/timeProgram'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { moveCount } from '@sable/core/toolpath/toolpath'
import { benchModels } from './models'

const setup = { printer: starterPrinters[1]!, nozzle: starterNozzles[1]!, material: starterMaterials[0]! }
const base: any = { layerHeight: 0.2, firstLayerHeight: 0.2, lineWidth: 0.4, wallCount: 3, infillDensity: 15 }
const kernel = await openKernel()
const model = benchModels()[1]!
const part = readPart(model.bytes, model.name, contentKey(model.bytes))
const { settings } = resolveSettings(setup, base)
if (process.env.AFTER) for (let i = 0; i < 5; i++) predict(part, model.placement, setup, base, { kernel })
if (process.env.MOTION) {
  const { path } = layDown(part, model.placement, setup, base, { kernel })
  const free = { ...settings, minLayerTime: 0 }
  const s: string[] = []
  for (let r = 0; r < 16; r++) {
    const t = performance.now()
    planMotion(path, () => free, setup.printer)
    s.push((moveCount(path) / 1000 / (performance.now() - t)).toFixed(2))
  }
  console.log('motion M/s', s.join(' '))
}
const pieces: string[] = []
programFor(part, model.placement, setup, base, { kernel, partName: model.name, filament: 'relative' }, (t) => pieces.push(t))
const text = pieces.join('')
const bytes = new TextEncoder().encode(text)
const split: string[] = [],
  timed: string[] = []
for (let r = 0; r < 12; r++) {
  ;(globalThis as any).gc?.()
  let t = performance.now()
  if (new TextDecoder().decode(bytes).split('\n').length < 5) throw 1
  split.push((performance.now() - t).toFixed(0))
  t = performance.now()
  const timer = new ProgramTimer(setup.printer)
  for (let at = 0; at < bytes.length; at += 1 << 20) timer.push(bytes.subarray(at, at + (1 << 20)))
  timer.finish()
  timed.push((performance.now() - t).toFixed(0))
}
console.log(split.join(' '))
console.log(timed.join(' '))
