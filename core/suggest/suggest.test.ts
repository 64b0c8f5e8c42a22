import { describe, expect, it } from 'vitest'
import { asModelled } from '../mesh/place'
import { noPurpose } from '../physics/strength/purpose'
import { predict } from '../pipeline/predict'
import { StageCache } from '../pipeline/stageCache'
import { settingValuesSchema } from '../profile/settings'
import { type FigureLimit, type Figures, figuresOf } from '../search/figures'
import { resolveSettings, type Setup } from '../setup/resolve'
import { starterMaterials, starterNozzles, starterPrinters } from '../shelf/starter'
import { testKernel } from '../testing/kernel'
import { setupOf } from '../testing/setups'
import { blockMesh, partOf } from '../testing/solids'
import { suggest, type Tried } from './suggest'
import { triesFor } from './tries'

const tried = (name: string, figures: Partial<Figures> | undefined): Tried => ({
  name,
  aim: name === 'everyday' ? 'everyday' : 'fast',
  values: { layerHeight: 0.2, wallCount: 3 },
  figures: figures && { time: 3600, surface: 10, strength: 50, stops: 0, ...figures },
})

describe('three suggestions', () => {
  const everyday = tried('everyday', {})
  const fast = tried('fast', { time: 1800, surface: 20, strength: 30 })
  const fine = tried('fine', { time: 9000, surface: 5 })
  const strong = tried('strong', { time: 5000, strength: 120 })
  const names = (limits: FigureLimit[], tries = [everyday, fast, fine, strong]) =>
    suggest(tries, limits).map(({ roles, tried: { name }, keeps }) => `${roles.join('+')}: ${name}${keeps ? '' : ' (nearest)'}`)

  it('are the fastest, the smoothest and the strongest', () => {
    expect(names([])).toEqual(['fastest: fast', 'smoothest: fine', 'strongest: strong'])
  })

  it('keep the limits, and one that is best at two things stands once', () => {
    expect(names([{ figure: 'strength', least: 40 }])).toEqual(['fastest: everyday', 'smoothest: fine', 'strongest: strong'])
    expect(names([{ figure: 'strength', least: 100 }])).toEqual(['fastest+smoothest+strongest: strong'])
  })

  it('are the nearest where none keeps them, and say which are missed', () => {
    const limits: FigureLimit[] = [{ figure: 'time', most: 900 }]
    expect(names(limits)).toEqual([': fast (nearest)'])
    expect(suggest([everyday, fast], limits)[0]!.why).toMatch(
      /^Nothing that was tried keeps all limits\. The nearest misses with time 30 min: /,
    )
    expect(suggest([tried('everyday', { stops: 1 })], [])[0]!.why).toMatch(/^Something would stop every one/)
  })

  it('say by how much, and by what', () => {
    expect(suggest([everyday, fast, fine, strong], [])[0]!.why).toBe(
      'Fastest at 30 min, −50 % against everyday: layer height 0.2 mm, walls 3.',
    )
  })

  it('are never what cannot be printed', () => {
    expect(names([], [tried('fast', undefined), everyday])).toEqual(['fastest+smoothest+strongest: everyday'])
    expect(suggest([tried('fast', undefined)], [])).toEqual([])
  })
})

describe('what is tried first', () => {
  it('is possible on every starter printer with every bore and material, and asks for no more flow than there is', () => {
    for (const { key: printer } of starterPrinters)
      for (const { key: nozzle, bore } of starterNozzles)
        for (const { key: material } of starterMaterials)
          for (const { name, values } of triesFor(setupOf(printer, nozzle, material), false)) {
            const where = `${name} on ${printer}, ${nozzle}, ${material}`
            expect(settingValuesSchema.safeParse(values).success, where).toBe(true)
            const { settings } = resolveSettings(setupOf(printer, nozzle, material), values)
            expect(settings.layerHeight, where).toBeLessThanOrEqual(0.75 * bore)
            if (values.infillSpeed !== undefined)
              expect(values.infillSpeed * settings.layerHeight * settings.lineWidth, where).toBeLessThanOrEqual(settings.flowLimit * 1.35)
          }
  })

  it('gives three different answers for a block, in the order that practice expects', async () => {
    const setup: Setup = setupOf()
    const cache = new StageCache()
    const kernel = await testKernel
    const part = partOf('block', blockMesh(30, 20, 12))
    const all = triesFor(setup, false).map((one): Tried => {
      const prediction = predict(part, asModelled, setup, one.values, { kernel, cache })
      return { ...one, figures: figuresOf(prediction, noPurpose) }
    })
    const [fastest, smoothest, strongest] = suggest(all, [])
    expect(fastest!.tried.aim).toBe('fast')
    expect(strongest!.tried.values.wallCount).toBeGreaterThanOrEqual(4)
    expect(smoothest!.tried.values.layerHeight).toBeLessThan(fastest!.tried.values.layerHeight!)
    expect(fastest!.tried.figures!.time).toBeLessThan(smoothest!.tried.figures!.time!)
  })
})
