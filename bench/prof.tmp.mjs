// bench/prof.tmp.ts
import { contentKey } from '@sable/cli/contentKey'
import { openKernel } from '@sable/cli/openKernel'
import { readPart } from '@sable/core/formats/readPart'
import '@sable/core/mesh/place'

// bench/models.ts
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import { readStl } from '@sable/core/formats/readStl'
import { writeStl } from '@sable/core/formats/writeStl'
import { repair } from '@sable/core/mesh/repair'
import { predict } from '@sable/core/predict'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { StageCache } from '@sable/core/stageCache'
import { shade } from '@sable/demo/parts/shade'

var SCAN_HEIGHT = 80
function benchModels() {
  const folder = dirname(createRequire(import.meta.url).resolve('stl-models/package.json'))
  const scan = readFileSync(join(folder, 'objects/bunny.bin.stl'))
  const { report } = repair(readStl(scan))
  const scale = SCAN_HEIGHT / report.sizeMm[1]
  return [
    { name: 'shade', bytes: writeStl(shade()), placement: { scale: 1, rotateDeg: [0, 0, 0] } },
    { name: 'scan', bytes: scan, placement: { scale, rotateDeg: [90, 0, 0] } },
  ]
}

// bench/prof.tmp.ts
var setup = { printer: starterPrinters[1], nozzle: starterNozzles[1], material: starterMaterials[0] }
var base = { layerHeight: 0.2, firstLayerHeight: 0.2, lineWidth: 0.4, wallCount: 3, infillDensity: 15 }
var kernel = await openKernel()
var model = benchModels()[1]
var Timed = class extends StageCache {
  t = {}
  get(s, k, c) {
    return super.get(s, k, () => {
      const f = performance.now()
      const r = c()
      this.t[s] = Math.round(performance.now() - f)
      return r
    })
  }
}
for (let i = 0; i < 4; i++) {
  const cache = new Timed()
  const f = performance.now()
  const part = readPart(model.bytes, model.name, contentKey(model.bytes))
  const r = performance.now() - f
  predict(part, model.placement, setup, base, { kernel, cache })
  console.log(Math.round(performance.now() - f), Math.round(r), JSON.stringify(cache.t))
}
