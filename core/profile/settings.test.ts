import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readProfileFile, writeProfileFile } from '../formats/profileFile'
import { dimensionSchema } from '../search/space'
import { resolveSettings } from '../setup/resolve'
import { setupOf } from '../testing/setups'
import { InputError } from '../units/errors'
import {
  checkValue,
  definitionOf,
  isSettingName,
  nameToday,
  parseValue,
  type SettingName,
  type SettingValues,
  settingNames,
  settings,
  settingValuesSchema,
} from './settings'

const refusalOf = (act: () => unknown): InputError => {
  try {
    act()
  } catch (error) {
    if (error instanceof InputError) return error
    throw error
  }
  throw new Error('nothing was refused')
}

const anyValue = (name: SettingName): fc.Arbitrary<number | string> => {
  const setting = definitionOf(name)
  if (setting.kind === 'choice') return fc.constantFrom(...setting.choices)
  return setting.whole ? fc.integer({ min: setting.min, max: setting.max }) : fc.double({ min: setting.min, max: setting.max, noNaN: true })
}
const anyValues = fc.record(Object.fromEntries(settingNames.map((name) => [name, anyValue(name)])), { requiredKeys: [] })

describe('the table of settings', () => {
  it('has every fallback inside its own range', () => {
    for (const name of settingNames) expect(checkValue(name, settings[name].fallback)).toBe(settings[name].fallback)
  })

  it('takes whatever lies within the ranges, as an object and as a file', () => {
    fc.assert(
      fc.property(anyValues, (values) => {
        expect(settingValuesSchema.parse(values)).toEqual(values)
        expect(readProfileFile(writeProfileFile({ name: 'x', settings: values }), 'x.json').settings).toEqual(
          JSON.parse(JSON.stringify(values)),
        )
      }),
    )
  })

  it('takes values by the names that settings had before, wherever they are written', () => {
    const before = { skinSpeed: 50, supportRoofLayers: 2, wallCount: 4 }
    const today = { topBottomSpeed: 50, supportTopLayers: 2, wallCount: 4 }
    expect(settingValuesSchema.parse(before)).toEqual(today)
    expect(
      readProfileFile(JSON.stringify({ format: 'sable-lantern/profile', version: 1, name: 'x', settings: before }), 'x.json').settings,
    ).toEqual(today)
    expect(dimensionSchema.parse({ kind: 'setting', name: 'skinSpeed', values: [40, 50] })).toMatchObject({ name: 'topBottomSpeed' })
    // No name is in two hands.
    for (const name of settingNames) expect(nameToday(name)).toBe(name)
  })

  it('reads what a person types', () => {
    expect(parseValue('layerHeight', ' 0,28 ')).toBe(0.28)
    expect(parseValue('wallCount', '4')).toBe(4)
    expect(parseValue('infillPattern', 'lines')).toBe('lines')
  })

  it.each([
    ['layerHeight', '0', 'a number from 0.02 to 1.2 mm'],
    ['wallCount', '2.5', 'a whole number from 0 to 40'],
    ['infillDensity', 'twenty', 'a number from 0 to 100 %'],
    ['infillPattern', 'zebra', 'one of lines, grid'],
    ['travelSpeed', '1e9', 'a number from 1 to 1500 mm/s'],
    ['wallCount', '', 'a whole number'],
  ])('refuses %s = "%s" and says what would do', (name, text, remedy) => {
    const error = refusalOf(() => parseValue(name, text, 'A.json'))
    expect(error.code).toBe('setting-out-of-range')
    expect(error.where).toBe(`A.json, ${name}`)
    expect(error.remedy).toContain(remedy)
  })

  it('refuses an unknown setting and guesses which was meant', () => {
    expect(refusalOf(() => checkValue('perimeters', 3)).remedy).toBe('Did you mean wallCount?')
    expect(refusalOf(() => checkValue('layer_height', 3)).remedy).toBe('Did you mean layerHeight?')
    expect(refusalOf(() => checkValue('zzz', 3)).remedy).toMatch(/Known settings/)
    expect(isSettingName('toString')).toBe(false)
  })
})

describe('profile files', () => {
  it.each([
    ['{', 'file-not-json'],
    ['[]', 'file-malformed'],
    ['{"format":"something/else","version":1}', 'file-other-format'],
    ['{"format":"sable-lantern/profile","version":3,"settings":{}}', 'file-other-version'],
    ['{"format":"sable-lantern/profile","version":1,"settings":[1]}', 'profile-malformed'],
    ['{"format":"sable-lantern/profile","version":1,"settings":{"infilDensity":3}}', 'setting-unknown'],
    ['{"format":"sable-lantern/profile","version":1,"settings":{"wallCount":-1}}', 'setting-out-of-range'],
  ])('refuses %s', (text, code) => {
    const error = refusalOf(() => readProfileFile(text, 'mine.json'))
    expect(error.code).toBe(code)
    expect(error.where).toContain('mine.json')
  })
})

describe('where a value comes from', () => {
  it('is the profile, else the material, else the nozzle, else the printer, else common practice (CP-R7, common practice)', () => {
    const setup = setupOf('dory', 'bore-0.6', 'petg')
    const { settings: values, origins } = resolveSettings(setup, { wallCount: 5 })
    expect([values.wallCount, origins.wallCount]).toEqual([5, 'profile'])
    expect([values.nozzleTemperature, origins.nozzleTemperature]).toEqual([240, 'material'])
    expect([values.lineWidth, origins.lineWidth]).toEqual([0.6, 'nozzle'])
    expect([values.retractLength, origins.retractLength]).toEqual([4.5, 'printer'])
    expect([values.topLayers, origins.topLayers]).toEqual([4, 'fallback'])
  })

  it('is what the profile says for any values, and what lies beneath once they are taken out', () => {
    fc.assert(
      fc.property(anyValues, fc.constantFrom(...settingNames), (values, name) => {
        const setup = setupOf()
        const { [name]: own, ...rest } = values as Record<string, number | string>
        const resolved = resolveSettings(setup, values)
        if (own !== undefined) expect([resolved.settings[name], resolved.origins[name]]).toEqual([own, 'profile'])
        // The flow that may be asked follows the temperature that is.
        const { nozzleTemperature } = rest as SettingValues
        const alone = name === 'flowLimit' && nozzleTemperature !== undefined ? { nozzleTemperature } : {}
        expect(resolveSettings(setup, rest).settings[name]).toBe(resolveSettings(setup, alone).settings[name])
      }),
    )
  })
})
