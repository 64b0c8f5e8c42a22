import { expect, it } from 'vitest'
import { readDamaged } from './readDamaged'

it('files of each kind that are damaged at random are read or refused in a sentence', () => {
  const { read, refused, faults } = readDamaged(600, 7)
  expect(faults).toEqual([])
  expect(read).toBeGreaterThan(30)
  expect(refused).toBeGreaterThan(100)
})
