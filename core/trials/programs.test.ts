import { describe, expect, it } from 'vitest'
import { asModelled } from '../mesh/place'
import { predict } from '../pipeline/predict'
import { StageCache } from '../pipeline/stageCache'
import { programFor } from '../program/programFor'
import { ProgramTimer } from '../program/timeProgram'
import { starterMaterials, starterPrinters } from '../shelf/starter'
import { testKernel } from '../testing/kernel'
import { setupOf } from '../testing/setups'
import { testSolids } from '../testing/solidKernel'
import { headOf } from './headOf'
import { kindsInOrder } from './kinds'
import { planTrial, trialPart } from './plan'
import { heightsOf, overridesOf, type TrialKindId, type TrialSpec } from './spec/trial'

const printed = kindsInOrder.filter(({ shape }) => shape).map(({ id }) => id)

async function printOf(id: TrialKindId, printer: string, material = 'pla', more: Partial<ReturnType<typeof setupOf>['printer']> = {}) {
  const own = setupOf(printer, 'bore-0.4', material)
  const setup = { ...own, printer: { ...own.printer, ...more } }
  const { spec } = planTrial(id, setup)
  const part = trialPart(spec, setup, await testSolids)
  const choice = { kernel: await testKernel, cache: new StageCache(), overrides: overridesOf(spec) }
  const prediction = predict(part, asModelled, setup, spec.values, choice)
  const pieces: string[] = []
  programFor(part, asModelled, setup, spec.values, { ...choice, partName: id, filament: 'relative', head: headOf(spec, setup) }, (text) =>
    pieces.push(text),
  )
  return { setup, spec, prediction, text: pieces.join('') }
}

/** What a machine that reads the program is set to when it lays a line in the middle of each band. */
function stateInBands(text: string, spec: TrialSpec) {
  const state = { nozzle: 0, fan: 0, z: 0, pulled: 0, fastest: 0 }
  const bands = spec.bands.map(() => ({ ...state, pulled: 0, fastest: 0 }))
  let [feed, x, y] = [0, 0, 0]
  for (const line of text.split('\n')) {
    const word = (letter: string): number | undefined => {
      const found = new RegExp(`\\b${letter}(-?[\\d.]+)`).exec(line.replace(/;.*/, ''))
      return found ? Number(found[1]) : undefined
    }
    if (/^M10[49]\b/.test(line)) state.nozzle = word('S')!
    if (/^M106\b/.test(line)) state.fan = word('S')!
    if (/^M107\b/.test(line)) state.fan = 0
    if (!/^G[01]\b/.test(line)) continue
    feed = word('F') ?? feed
    state.z = word('Z') ?? state.z
    const length = Math.hypot((word('X') ?? x) - x, (word('Y') ?? y) - y)
    x = word('X') ?? x
    y = word('Y') ?? y
    const e = word('E') ?? 0
    const index = spec.bands.findIndex((_, i) => {
      const { fromZ, toZ } = heightsOf(spec, i)
      // Well within: a layer at the border belongs to either.
      return state.z > fromZ + 0.3 * (toZ - fromZ) && state.z < toZ - 0.2 * (toZ - fromZ)
    })
    const band = bands[index]
    if (!band) continue
    band.nozzle = state.nozzle
    band.fan = Math.max(band.fan, state.fan)
    if (e < 0 && length === 0) band.pulled = Math.max(band.pulled, -e)
    if (e > 0 && length > 50) band.fastest = Math.max(band.fastest, feed / 60)
  }
  return bands
}

describe('the program of a trial', () => {
  // Every kind once, and every printer and material several times; all of them together are walked by `npm run soak`.
  it.each(
    printed.map((id, i) => [id, starterPrinters[i % starterPrinters.length]!.key, starterMaterials[(2 * i) % 5]!.key] as const),
  )('%s on %s of %s takes the time that is foretold, within 1 per cent', async (id, printer, material) => {
    const { setup, prediction, text } = await printOf(id, printer, material)
    const timer = new ProgramTimer(setup.printer, {})
    timer.push(new TextEncoder().encode(text))
    expect(Math.abs(timer.finish().timeS / prediction.timeS - 1)).toBeLessThan(0.01)
  })

  it('takes an hour at most by default, of the usual materials', async () => {
    for (const id of printed) expect((await printOf(id, 'lugger')).prediction.timeS, id).toBeLessThan(3600)
  })

  it('of a ladder whose pull changes pushes back what was pulled, no more', async () => {
    const { text } = await printOf('retraction', 'lugger')
    let [open, worst] = [0, 0]
    for (const [, e] of text.matchAll(/^G1 E(-?[\d.]+) F/gm)) {
      open = Number(e) < 0 ? -Number(e) : open - Number(e)
      if (Number(e) > 0) worst = Math.max(worst, Math.abs(open))
    }
    expect(worst).toBeLessThan(1e-3)
  })

  it('of a temperature tower waits for each band’s heat at its foot, and begins with the first', async () => {
    const { spec, text } = await printOf('temperature', 'lugger')
    expect(text.split('\n').filter((line) => line.startsWith('M109')).length).toBe(spec.bands.length)
    expect(/^M109 S190\b/m.exec(text)!.index).toBeLessThan(text.indexOf('G28'))
    expect(stateInBands(text, spec).map(({ nozzle }) => nozzle)).toEqual([190, 195, 200, 205, 210, 215, 220])
  })

  it('of a retraction ladder pulls back in each band what it says', async () => {
    const { spec, text } = await printOf('retraction', 'lugger')
    stateInBands(text, spec).forEach(({ pulled }, i) => {
      expect(pulled).toBeCloseTo(spec.bands[i]!.value!, 3)
    })
  })

  it('of a fan test blows in each band as much as it says', async () => {
    const { spec, text } = await printOf('fan', 'lugger')
    stateInBands(text, spec).forEach(({ fan }, i) => {
      // Bridges within have their own fan; so the most is asked of the first, the least of the rest.
      expect(fan).toBeGreaterThanOrEqual(Math.round(2.55 * spec.bands[i]!.value!))
    })
  })

  it('of a flow ladder runs its long lines at the speed of their flow', async () => {
    const { spec, text } = await printOf('flowLadder', 'lugger')
    stateInBands(text, spec).forEach(({ fastest }, i) => {
      expect(fastest).toBeCloseTo(spec.bands[i]!.values.outerWallSpeed!, 0)
    })
  })

  it('says in its head what it is, for what, and what each band is', async () => {
    const { text, spec } = await printOf('temperature', 'dory')
    const head = text.slice(0, text.indexOf('LOOK BEFORE RUNNING'))
    expect(head).toContain('TRIAL: Temperature')
    expect(head).toContain('for PLA on Dory 220')
    for (const { label } of spec.bands) expect(head).toContain(`nozzleTemperature = ${label}`)
    expect(head).toContain('HOW TO READ')
    expect(/^[\x20-\x7e\n]*$/.test(text)).toBe(true)
  })

  it('begins and ends with the printer’s own text, its numbers filled in', async () => {
    const { text } = await printOf('bed', 'lugger', 'pla', {
      startText: 'M190 S{bed}\nM109 S{nozzle}\nG28\nG0 X{left} Y{front} Z{layer}',
      endText: 'M104 S0\nM140 S0\nG0 Z{top}',
    })
    expect(text).toContain('M190 S60\nM109 S210\nG28\nG0 X')
    expect(text).not.toMatch(/\{\w+\}/)
    expect(text.trimEnd().split('\n').slice(-3, -1)).toEqual(['M104 S0', 'M140 S0'])
  })
})
