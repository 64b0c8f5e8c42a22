import { expect, it } from 'vitest'
import { currencies, symbolOf } from './currency'

it('knows a sign of its own for every currency that can be chosen', () => {
  expect(new Set(currencies.map(symbolOf)).size).toBe(currencies.length)
  expect(symbolOf('EUR')).toBe('€')
  for (const code of currencies) expect(symbolOf(code)).not.toContain('¤')
})
