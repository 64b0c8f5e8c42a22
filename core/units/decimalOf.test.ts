import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { decimalOf } from './decimalOf'

const read = (text: string): number => {
  const bytes = Uint8Array.from(`<${text}>`, (c) => c.charCodeAt(0))
  return decimalOf(bytes, 1, bytes.length - 1)
}

describe('a word of decimal digits', () => {
  it.each([
    '0',
    '-0',
    '+1',
    '.5',
    '5.',
    '1e3',
    '-1.25E-3',
    '1e+2',
    '123456789012345678',
    '9007199254740993',
    '1e23',
    '1e400',
    '4.9e-324',
  ])('%s is what ECMAScript reads (ECMA-262, StringToNumber)', (text) => expect(Object.is(read(text), Number(text))).toBe(true))

  it.each(['', '.', '-', 'e5', '1e', '1e+', '1.2.3', '12x', 'nan', '--1', '1 2', '1'.repeat(70)])('"%s" is no number', (text) =>
    expect(read(text)).toBeNaN())

  it('is read as by the engine itself, whatever the number', () => {
    fc.assert(
      fc.property(fc.double({ noNaN: true, noDefaultInfinity: true }), fc.integer({ min: 0, max: 20 }), (value, digits) => {
        for (const text of [String(value), value.toExponential(digits), Math.abs(value) < 1e15 ? value.toFixed(digits) : '1'])
          expect(read(text)).toBe(Number(text))
      }),
      { numRuns: 2000 },
    )
  })
})
