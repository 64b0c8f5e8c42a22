import { afterEach, expect, it } from 'vitest'
import { toCsv } from './csv'
import { useDecimalMark } from './decimalMark'
import { fileNameFrom } from './download'

it('writes rows and records alike, rounded to what could be measured, quoted where a comma stands (RFC 4180), marked as Unicode', () => {
  expect(
    toCsv([
      ['Ra, µm', 1 / 3, 12345678],
      ['"so"', 0.1 + 0.2, ''],
    ]),
  ).toBe('\uFEFF"Ra, µm",0.3333333,12345678\r\n"""so""",0.3,')
  expect(toCsv([{ g: 2 / 3, name: 'Dory' }])).toBe('\uFEFFg,name\r\n0.6666667,Dory')
})

afterEach(() => useDecimalMark.setState({ mark: 'point' }))

it('writes a decimal comma where that is chosen, with semicolons between cells', () => {
  useDecimalMark.setState({ mark: 'comma' })
  expect(toCsv([['Layer height; first', 0.2, 1e-7, 12, '0.4 mm']])).toBe('\uFEFF"Layer height; first";0,2;1e-7;12;0.4 mm')
})

it('names files by what they hold, in any language, and by nothing that a file system refuses', () => {
  expect(fileNameFrom('Größe / Øre: 12 %')).toBe('größe-øre-12')
  expect(fileNameFrom('***')).toBe('lineup')
})
