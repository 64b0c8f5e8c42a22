import { expect, it } from 'vitest'
import { seeded } from '../../units/seeded'
import { orthotropic } from '../elasticity'
import { cellsOf, type Loaded, loaded } from '../testing/blocks'
import { openKernel } from './kernel'
import { PlainKernel } from './plainKernel'

const layered = orthotropic({ modulus: [2400, 2100, 1700], poisson: 0.35, shear: [600, 650, 800] })

/** Lumps of random shares, some of whose feet slide. */
function lump(seed: number, isPlain: boolean, enough: number): Loaded {
  const own = seeded(seed)
  const cells = cellsOf([9, 8, 11], [0.9, 0.8, 0.7], (x, y) => own() < 0.7 || (Math.abs(x - 4) < 1.1 && Math.abs(y - 3) < 1.1))
  return loaded(
    { ...cells, share: cells.share.map(() => 0.2 + 0.8 * own()) },
    layered,
    ([x, , z]) => (z > 0 ? [false, false, false] : x > 4 ? [false, true, true] : [true, true, true]),
    ([, , z]) => (z > 5 && own() < 0.2 ? [own() - 0.5, own() - 0.5, own() - 0.5] : [0, 0, 0]),
    enough,
    isPlain,
  )
}

it('is WebAssembly here, and plain where it is asked for', () => {
  expect(openKernel(4096)).not.toBeInstanceOf(PlainKernel)
  expect(openKernel(4096, true)).toBeInstanceOf(PlainKernel)
})

it('moves a solid alike with vectors and in plain TypeScript, within a millionth, in as many steps', () => {
  for (let seed = 1; seed <= 5; seed++) {
    const [vectors, plain] = [false, true].map((isPlain) => lump(seed, isPlain, 1e-8)) as [Loaded, Loaded]
    expect(Math.abs(vectors.iterations - plain.iterations)).toBeLessThanOrEqual(1)
    const most = plain.moved.reduce((sum, one) => Math.max(sum, Math.abs(one)), 0)
    for (const [i, one] of vectors.moved.entries()) expect(Math.abs(one - plain.moved[i]!) / most).toBeLessThan(1e-6)
  }
})

it('gives the same to the last digit whenever it is asked', () => {
  expect(lump(3, false, 3e-3).moved).toEqual(lump(3, false, 3e-3).moved)
})
