import { openKernel } from '@sable/cli/openKernel'
import { openSolids } from '@sable/cli/openSolids'
import { asModelled } from '@sable/core/mesh/place'
import { predict } from '@sable/core/pipeline/predict'
import { StageCache } from '@sable/core/pipeline/stageCache'
import { programFor } from '@sable/core/program/programFor'
import { ProgramTimer } from '@sable/core/program/timeProgram'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { kindsInOrder } from '@sable/core/trials/kinds'
import { planTrial, refusalOf, trialPart } from '@sable/core/trials/plan'
import { overridesOf } from '@sable/core/trials/spec/trial'

/** How far a program's time may be from what was foretold, as a share. */
const APART = 0.01
const HOUR = 3600

/** Every kind of trial on every starter printer with as many materials: whole, its program read back, within the hour. */
export async function walkTrials(materials: number) {
  const solids = await openSolids()
  const kernel = await openKernel()
  const faults: string[] = []
  const long: string[] = []
  let walked = 0
  for (const printer of starterPrinters)
    for (const material of starterMaterials.slice(0, materials))
      for (const { id, shape } of kindsInOrder) {
        if (!shape) continue
        const where = `${id} on ${printer.key} of ${material.key}`
        const setup = { printer, nozzle: starterNozzles[1]!, material }
        const { spec } = planTrial(id, setup)
        const part = trialPart(spec, setup, solids)
        const choice = { kernel, cache: new StageCache(), overrides: overridesOf(spec) }
        const { timeS } = predict(part, asModelled, setup, spec.values, choice)
        const timer = new ProgramTimer(printer, {})
        programFor(part, asModelled, setup, spec.values, { ...choice, partName: id, filament: 'relative' }, (text) =>
          timer.push(new TextEncoder().encode(text)),
        )
        const read = timer.finish().timeS
        if (!part.report.watertight) faults.push(`${where}: not watertight`)
        if (refusalOf(spec, setup) !== undefined) faults.push(`${where}: ${refusalOf(spec, setup)}`)
        if (Math.abs(read / timeS - 1) > APART) faults.push(`${where}: ${timeS.toFixed(0)} s foretold, ${read.toFixed(0)} s read back`)
        if (timeS > HOUR) long.push(`${where}: ${Math.round(timeS / 60)} min`)
        walked++
      }
  return { walked, faults, long }
}
