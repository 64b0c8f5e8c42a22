import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { openKernel } from '@sable/cli/openKernel'
import type { FrozenPrint } from '@sable/contract/prints'
import { setupOf } from '@sable/contract/shelf'
import type { PlacedReading } from '@sable/contract/trials'
import { medians } from '@sable/core/constants/constants'
import { type Slopes, slopesOf } from '@sable/core/doubt/slopes'
import { valuesOf } from '@sable/core/figures/figures'
import { readPart } from '@sable/core/formats/readPart'
import { writeStl } from '@sable/core/formats/writeStl'
import { timeAt } from '@sable/core/learning/timed'
import { foretoldPrint } from '@sable/core/log/foretoldPrint'
import { isWhole, type PrintOutcome, taughtBy } from '@sable/core/log/outcome'
import { asModelled } from '@sable/core/mesh/place'
import { noPurpose } from '@sable/core/physics/strength/purpose'
import { predict } from '@sable/core/pipeline/predict'
import { StageCache } from '@sable/core/pipeline/stageCache'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { seeded } from '@sable/core/units/seeded'
import { type DemoPrint, demoPrints, demoToCome, machineOf, reels } from './prints'
import { demoParts, demoSpools } from './scenario'

/*
 * Makes the lantern workshop's log (madePrints.json): every figure is really foretold, with what the prints before it had taught by
 * then; clock and scale are those of machines and reels with a hidden truth of their own (prints.ts), with scatter from a seed. Run it
 * by hand after the models moved: npx tsx demo/makePrints.ts
 */

/** What clocks and scales scatter by. */
const [CLOCK, SCALE_G, SCALE] = [0.012, 1, 0.006]
const random = seeded(11)
const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())

const kernel = await openKernel()
const shelf = {
  printers: starterPrinters.map(kept),
  nozzles: starterNozzles.map(kept),
  materials: starterMaterials.map(kept),
  spools: demoSpools(new Date()).map(kept),
}
function kept<T>(record: T) {
  return { ...record, starter: true, archived: false, revision: 1 }
}

const slopesBy = new Map<string, Slopes>()
const evidence: PlacedReading[] = []
const made = demoPrints.map((print) => {
  const frozen = foretell(print)
  const outcome = print.outcome && cameOut(print, frozen)
  if (outcome) {
    const { printer, nozzle, material, spool } = frozen
    const { evidence: own, scores } = taughtBy(frozen.foretold, outcome)
    evidence.push({
      printer,
      nozzle,
      material,
      ...(spool === undefined ? {} : { spool }),
      evidence: [...own],
      scores,
      reading: '',
      from: print.part,
    })
  }
  process.stderr.write(
    `${print.daysAgo} days ago: ${print.part} ${print.profile}, ${Math.round(frozen.foretold.timeS / 60)} min, really ${outcome?.actualS === undefined ? '–' : Math.round(outcome.actualS / 60)}\n`,
  )
  return { daysAgo: print.daysAgo, frozen, ...(outcome ? { outcome } : {}) }
})
const toCome = demoToCome.map((print) => ({ daysAgo: print.daysAgo, isToCome: true, frozen: foretell(print) }))
writeFileSync(join(import.meta.dirname, 'madePrints.json'), `${JSON.stringify([...made, ...toCome])}\n`)

function foretell({ part: key, profile, values, ...place }: DemoPrint): FrozenPrint {
  const { name, make } = demoParts.find((one) => one.key === key)!
  const bytes = writeStl(make(), name)
  const part = readPart(bytes, `${key}.stl`, key)
  const named = {
    printer: place.printer,
    nozzle: place.nozzle,
    material: place.material,
    ...(place.spool === undefined ? {} : { spool: place.spool }),
  }
  const setup = setupOf(named, { ...shelf, evidence })!
  const cache = new StageCache(40)
  const on = (own: typeof setup) => predict(part, asModelled, own, values, { kernel, cache })
  const prediction = on(setup)
  const id = JSON.stringify([key, values, named])
  const slopes = slopesBy.get(id) ?? slopesOf((constants) => valuesOf(on({ ...setupOf(named, shelf)!, constants }), noPurpose), medians)
  slopesBy.set(id, slopes)
  return {
    ...named,
    name,
    profile,
    placement: asModelled,
    values,
    overrides: [],
    ...(place.wet === undefined ? {} : { wet: place.wet }),
    resolved: Object.fromEntries(
      Object.entries(prediction.settings).map(([setting, value]) => [
        setting,
        { value, origin: prediction.origins[setting as keyof typeof prediction.origins] },
      ]),
    ),
    foretold: foretoldPrint(prediction, { slopes, setup }, noPurpose),
  }
}

function cameOut({ printer, spool, outcome, changed, daysAgo }: DemoPrint, { foretold }: FrozenPrint): PrintOutcome {
  const { evidence: plain } = taughtBy(foretold, { ...outcome!, result: 'good', actualS: 1, weighedG: 1 })
  const [clock, scale] = [plain.find((one) => one.on === 'timed')!, plain.find((one) => one.on === 'weight')!]
  const truth = machineOf(printer, daysAgo)
  const whole = isWhole(outcome!)
  const share = whole ? 1 : (outcome!.atZ ?? foretold.heightMm) / foretold.heightMm
  const actualS = timeAt([Math.log(truth.acceleration), Math.log(truth.pace), truth.startS], clock) * share * Math.exp(CLOCK * normal())
  const grams = scale.predictedG * share * (reels[spool ?? ''] ?? 1) * Math.exp(SCALE * normal()) + SCALE_G * normal()
  const used = Math.round(Math.max(1, grams))
  const weighed = outcome!.spools.map((reel, i) => {
    if (reel.beforeG === undefined) return reel
    const own =
      changed === undefined
        ? used
        : Math.round(used * (i === 0 ? changed.fromZ / foretold.heightMm : 1 - changed.fromZ / foretold.heightMm))
    return { ...reel, afterG: reel.beforeG - own }
  })
  return { ...outcome!, actualS: Math.round(actualS), spools: weighed }
}
