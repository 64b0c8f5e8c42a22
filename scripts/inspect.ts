import { readFileSync, writeFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { readPart } from '../core/formats/readPart'
import { layDown } from '../core/pipeline/layDown'
import { parseValue, type SettingName, type SettingValues } from '../core/profile/settings'
import { layerCount } from '../core/slicing/layers'
import { testKernel } from '../core/testing/kernel'
import { layerSvg } from '../core/testing/layerSvg'
import { setupOf } from '../core/testing/setups'

/** Draws a layer of a model: what was found in it, and every line that is laid. For whoever works on the paths. */
const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    layer: { type: 'string', default: '1' },
    out: { type: 'string', default: 'layer.svg' },
    printer: { type: 'string', default: 'lugger' },
    nozzle: { type: 'string', default: 'bore-0.4' },
    scale: { type: 'string', default: '1' },
    set: { type: 'string', multiple: true, default: [] },
  },
})
const [model] = positionals
if (model === undefined) {
  process.stderr.write(
    'Usage: npm run inspect -- MODEL [--layer N] [--set NAME=VALUE] [--printer KEY] [--nozzle KEY] [--scale N] [--out FILE.svg]\n',
  )
  process.exit(1)
}
const settings = Object.fromEntries(
  values.set.map((pair) => {
    const [name, text] = pair.split('=') as [SettingName, string]
    return [name, parseValue(name, text)]
  }),
) as SettingValues
const part = readPart(readFileSync(model), model, model)
const placement = { scale: Number(values.scale), rotateDeg: [0, 0, 0] as [number, number, number] }
const laid = layDown(part, placement, setupOf(values.printer, values.nozzle), settings, { kernel: await testKernel })
const layer = Number(values.layer) - 1
const count = layerCount(laid.layers)
if (!(Number.isInteger(layer) && layer >= 0 && layer < count)) {
  process.stderr.write(`${model} has layers 1 to ${count}.\n`)
  process.exit(1)
}
writeFileSync(values.out, layerSvg({ layers: laid.layers, regions: laid.regions, path: laid.single }, layer))
console.log(`${values.out}: layer ${layer + 1} of ${count}, z ${laid.layers.top[layer]!.toFixed(2)} mm`)
