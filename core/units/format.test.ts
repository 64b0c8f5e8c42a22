import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { formatDuration, formatForce, inWords, signed, signedPercent, threeDigits } from './format'
import { typedNumber } from './typedNumber'

describe('a stretch of time', () => {
  it.each([
    [0, '0 s'],
    [59.4, '59 s'],
    [59.6, '1.0 min'],
    [342, '5.7 min'],
    [596, '9.9 min'],
    [598, '10 min'],
    [3569, '59 min'],
    [3571, '1 h 00 min'],
    [3600, '1 h'],
    [6720, '1 h 52 min'],
    [86_400, '24 h'],
  ])('of %d s is said as %s', (seconds, words) => {
    expect(formatDuration(seconds)).toBe(words)
  })

  it('is never told farther off than a twentieth, from a second on', () => {
    fc.assert(
      fc.property(fc.double({ min: 20, max: 400_000, noNaN: true }), (seconds) => {
        const words = formatDuration(seconds)
        const parts = [/(\d+) h/, /([\d.]+) min/, /(\d+) s/].map((part) => Number(part.exec(words)?.[1] ?? 0))
        const told = parts[0]! * 3600 + parts[1]! * 60 + parts[2]!
        expect(Math.abs(told - seconds)).toBeLessThanOrEqual(0.05 * seconds)
      }),
    )
  })
})

describe('a load', () => {
  it.each([
    [0.34, '0.3 N'],
    [80.81, '80.8 N'],
    [80, '80 N'],
    [99.96, '100 N'],
    [999.4, '999 N'],
    [1234, '1.23 kN'],
    [13_341, '13.3 kN'],
  ])('of %d N is told as %s', (newtons, words) => {
    expect(formatForce(newtons)).toBe(words)
  })
})

describe('a difference', () => {
  it('has a true minus, and no sign where it does not show', () => {
    expect([signed(3.14, 1), signed(-0.4, 1), signed(0.04, 1), signed(-0.04, 1)]).toEqual(['+3.1', '−0.4', '0.0', '0.0'])
    expect([signedPercent(0.123), signedPercent(-1), signedPercent(0.001)]).toEqual(['+12 %', '−100 %', '0 %'])
    expect(signedPercent(Number.POSITIVE_INFINITY)).toBe('–')
  })
})

describe('a typed number', () => {
  it('takes a comma or a point, and nothing that is none', () => {
    expect([typedNumber('0,4'), typedNumber(' 12.5 '), typedNumber('-3')]).toEqual([0.4, 12.5, -3])
    for (const text of ['', '  ', 'wide', '1,2,3', '3 mm']) expect(typedNumber(text)).toBeNaN()
  })
})

describe('a name', () => {
  it('is said in words', () => {
    expect(inWords('insideFirst')).toBe('inside first')
  })
})

it('a number to three digits has no zeros that say nothing', () => {
  expect([50.00680839346937, 3000, 0.18842, 0.5, 1].map(threeDigits)).toEqual(['50', '3000', '0.188', '0.5', '1'])
})
