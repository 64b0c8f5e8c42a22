import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { SettingValues } from '../profile/settings'
import { setupOf } from '../testing/setups'
import { rederive } from './rederive'
import { layersOf, origins, resolveSettings } from './resolve'

describe('another nozzle or material', () => {
  const from = setupOf('lugger', 'bore-0.4', 'pla')

  it('brings its own widths and heights, and says why', () => {
    const changes = rederive(from, setupOf('lugger', 'bore-0.6', 'pla'), {})
    const of = (name: string) => changes.find((change) => change.name === name)
    expect(of('lineWidth')).toMatchObject({ from: 0.4, to: 0.6, kind: 'followed', origin: 'nozzle', why: 'a line as wide as the bore' })
    expect(of('layerHeight')).toMatchObject({ from: 0.2, to: 0.3, kind: 'followed' })
    expect(of('wallCount')).toBeUndefined()
  })

  it('leaves what the profile says, and tells what would be there without it', () => {
    const changes = rederive(from, setupOf('lugger', 'bore-0.6', 'pla'), { lineWidth: 0.42, layerHeight: 0.3 })
    expect(changes.find(({ name }) => name === 'lineWidth')).toMatchObject({ from: 0.42, to: 0.6, kind: 'held' })
    // It says already what the nozzle would.
    expect(changes.find(({ name }) => name === 'layerHeight')).toBeUndefined()
  })

  it('changes temperature, flow and fan with the material, and nothing when nothing differs', () => {
    const names = rederive(from, setupOf('lugger', 'bore-0.4', 'petg'), {}).map(({ name }) => name)
    expect(names).toEqual(expect.arrayContaining(['nozzleTemperature', 'bedTemperature', 'fanSpeed', 'flowLimit']))
    expect(rederive(from, from, { wallCount: 5 })).toEqual([])
  })
})

describe('layers of settings (CP-R7, common practice)', () => {
  it('override each other in their order, the profile last', () => {
    const setup = {
      ...setupOf(),
      spool: { key: 's', name: 'S', material: 'pla', netG: 1000, weighings: [], dried: [], defaults: { nozzleTemperature: 207 } },
    }
    const layers = layersOf(setup, { nozzleTemperature: 215 })
    expect(origins.map((origin) => layers[origin].nozzleTemperature)).toEqual([210, undefined, undefined, 210, undefined, 207, 215])
    expect(resolveSettings(setup, { nozzleTemperature: 215 })).toMatchObject({ origins: { nozzleTemperature: 'profile' } })
    expect(resolveSettings(setup, {}).settings.nozzleTemperature).toBe(207)
    expect(resolveSettings({ ...setup, nozzle: { ...setup.nozzle, defaults: { lineWidth: 0.45 } } }, {}).settings.lineWidth).toBe(0.45)
  })

  it('give the value of the highest layer that sets it, and clearing that reveals the next', () => {
    const kept = ['printer', 'nozzle', 'material', 'spool', 'profile'] as const
    // Widths and heights follow from the bore, which is a layer of its own.
    const names = ['travelSpeed', 'nozzleTemperature', 'retractLength', 'outerWallSpeed', 'fanSpeed'] as const
    const bag = fc.dictionary(fc.constantFrom(...names), fc.double({ min: 0.05, max: 300, noNaN: true }))
    fc.assert(
      fc.property(
        fc.record({ printer: bag, nozzle: bag, material: bag, spool: bag, profile: bag }),
        fc.constantFrom(...names),
        (said, name) => {
          const own = setupOf()
          const resolved = (bags: Record<(typeof kept)[number], SettingValues>) =>
            resolveSettings(
              {
                printer: { ...own.printer, defaults: bags.printer },
                nozzle: { ...own.nozzle, defaults: bags.nozzle },
                material: { ...own.material, defaults: bags.material },
                spool: { key: 's', name: 'S', material: 'pla', netG: 1000, weighings: [], dried: [], defaults: bags.spool },
              },
              bags.profile,
            )
          let bags = said as Record<(typeof kept)[number], SettingValues>
          for (const layer of [...kept].reverse()) {
            if (bags[layer][name] === undefined) continue
            const { settings, origins: from } = resolved(bags)
            expect(settings[name]).toBe(bags[layer][name])
            expect(from[name]).toBe(layer)
            const { [name]: _, ...rest } = bags[layer]
            bags = { ...bags, [layer]: rest }
          }
          // Beneath them all: what follows from the bore, or common practice.
          expect(['fallback', 'nozzle']).toContain(resolved(bags).origins[name])
        },
      ),
    )
  })
})
