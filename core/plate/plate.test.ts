import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Mesh } from '../mesh/mesh'
import { asModelled } from '../mesh/place'
import { layDown } from '../pipeline/layDown'
import { predict } from '../pipeline/predict'
import type { Override } from '../profile/overrides'
import type { SettingValues } from '../profile/settings'
import { ProgramTimer } from '../program/timeProgram'
import type { Setup } from '../setup/resolve'
import { starterPrinters } from '../shelf/starter'
import { testKernel } from '../testing/kernel'
import { lengthOf } from '../testing/paths'
import { setupOf } from '../testing/setups'
import { blockMesh, meshOf, partOf, solids } from '../testing/solids'
import { code, isLaid, type Toolpath } from '../toolpath/toolpath'
import { doAlone } from '../work/doAlone'
import { arranged } from './arrange'
import { extentOf, footprintOf, gapBetween, placedFootprint } from './footprint'
import { layPart } from './layPart'
import { SHARED } from './mergePaths'
import type { PlateOrder, PlatePart, Standing } from './platePart'
import { plateProgram } from './plateProgram'
import { type ForetoldPlate, plateWork, problemsOf } from './plateWork'

const laidPart = async (name: string, mesh: Mesh, values: SettingValues = {}, overrides: readonly Override[] = [], setup = setupOf()) =>
  layPart(name, partOf(name, mesh), asModelled, setup, { skirtLines: 0, ...values }, { kernel: await testKernel, overrides })
const at = (x: number, y = 0, turn = 0): Standing => ({ x, y, turn })
const foretold = async (
  parts: readonly PlatePart[],
  standing: readonly Standing[],
  order: PlateOrder,
  setup: Setup = setupOf(),
): Promise<ForetoldPlate> => doAlone(plateWork(parts, standing, order, setup), await testKernel)

const volumeOf = ({ area }: Toolpath, path: Toolpath, of: (m: number) => boolean): number =>
  [...path.feature.keys()].filter((m) => isLaid(path.feature[m]!) && of(m)).reduce((sum, m) => sum + area[m]! * lengthOf(path, m), 0)

describe('a plate', () => {
  it('lays of every part what it lays of it alone, turned and moved, and tells whose each move is', async () => {
    const { Manifold } = await solids
    const parts = [
      await laidPart('block', blockMesh(20, 12, 4)),
      await laidPart('pin', meshOf(Manifold.cylinder(9, 3, 3, 64)), { layerHeight: 0.1, wallCount: 3 }),
    ]
    for (const order of ['together', 'inTurn'] as const) {
      const { merged } = await foretold(parts, [at(-30, 5, 30), at(25)], order)
      const { path, owner } = merged
      for (const [i, part] of parts.entries()) {
        const alone = volumeOf(part.path, part.path, () => true)
        expect(volumeOf(path, path, (m) => owner[m] === i) / alone).toBeCloseTo(1, 9)
        // Nothing of it lies outside of where it stands.
        const { minX, maxX, minY, maxY } = extentOf(placedFootprint(part.footprint, [at(-30, 5, 30), at(25)][i]!))
        for (const m of path.feature.keys()) {
          if (owner[m] !== i || !isLaid(path.feature[m]!)) continue
          expect(path.x[m + 1]! > minX - 1e-6 && path.x[m + 1]! < maxX + 1e-6).toBe(true)
          expect(path.y[m + 1]! > minY - 1e-6 && path.y[m + 1]! < maxY + 1e-6).toBe(true)
        }
      }
      for (const m of path.feature.keys()) if (owner[m] === SHARED) expect(path.area[m]).toBe(0)
    }
  })

  it('of one part is that part: the same time, to the way there', async () => {
    const setup = setupOf()
    const part = partOf('block', blockMesh(20, 12, 6))
    const options = { kernel: await testKernel }
    const alone = predict(part, asModelled, setup, {}, options)
    const { figures } = await foretold([layPart('block', part, asModelled, setup, {}, options)], [at(0)], 'together')
    expect(figures.timeS / alone.timeS).toBeCloseTo(1, 2)
    expect(figures.massG).toBeCloseTo(alone.filament.massG, 6)
    expect(figures.parts[0]!.timeS + figures.sharedS).toBeCloseTo(figures.timeS, 3)
  })

  it('of two alike is their copies, laid the same two ways by what repeats one part', async () => {
    const setup = setupOf()
    const part = partOf('block', blockMesh(20, 12, 6))
    const options = { kernel: await testKernel }
    const one = layPart('block', part, asModelled, setup, { skirtLines: 0 }, options)
    for (const [order, copyOrder] of [
      ['together', 'together'],
      ['inTurn', 'oneAtATime'],
    ] as const) {
      const values = { skirtLines: 0, copies: 2, copyOrder, copyGap: 8 } as const
      const copies = predict(part, asModelled, setup, values, options)
      const laid = layDown(part, asModelled, setup, values, options)
      const { figures, merged } = await foretold([one, one], [at(0, -10), at(0, 10)], order)
      expect(figures.timeS / copies.timeS, order).toBeCloseTo(1, 2)
      expect(merged.path.rank.length, order).toBe(laid.path.rank.length)
    }
  })

  it('keeps each part’s own speeds, places and first layers, also of what is begun after another', async () => {
    const slow = await laidPart('slow', blockMesh(12, 12, 4), { outerWallSpeed: 20, firstLayerSpeed: 10, minLayerTime: 0 })
    const quick = await laidPart('quick', blockMesh(12, 12, 4), { outerWallSpeed: 60, firstLayerSpeed: 15, minLayerTime: 0 }, [
      { name: 'top', fromZ: 3, values: { outerWallSpeed: 40 } },
    ])
    const { merged, motion } = await foretold([slow, quick], [at(-15), at(15)], 'inTurn')
    const { path, owner } = merged
    const asked = (part: number, z: number): number =>
      Math.max(
        ...[...path.feature.keys()]
          .filter((m) => owner[m] === part && path.feature[m] === code.outerWall && Math.abs(path.z[m + 1]! - z) < 0.05)
          .map((m) => motion.asked[m]!),
      )
    expect([asked(0, 0.2), asked(1, 0.2)]).toEqual([10, 15])
    expect([asked(0, 2), asked(1, 2), asked(1, 3.4)]).toEqual([20, 60, 40])
  })

  it('gives layers that are laid together the longest of their least times, and spares the wait of small parts', async () => {
    const post = blockMesh(6, 6, 8)
    const one = await laidPart('post', post, { minLayerTime: 15, floorSpeed: 2 })
    const other = await laidPart('other post', post, { minLayerTime: 5, floorSpeed: 2 })
    const [together, inTurn] = [
      await foretold([one, other], [at(-10), at(10)], 'together'),
      await foretold([one, other], [at(-10), at(10)], 'inTurn'),
    ]
    const { layerTime } = together.motion
    for (let layer = 1; layer < layerTime.length; layer++) expect(layerTime[layer]!).toBeGreaterThan(14.9)
    expect(together.figures.timeS).toBeLessThan(0.85 * inTurn.figures.timeS)
  })

  it('begins with what is lowest in turn, rises over what is done, and never comes down on it', async () => {
    const [high, low] = [await laidPart('high', blockMesh(10, 10, 18)), await laidPart('low', blockMesh(10, 10, 6))]
    const { merged, figures } = await foretold([high, low], [at(-40), at(40)], 'inTurn')
    expect(figures.turns).toEqual([1, 0])
    expect(figures.parts[1]!.doneAtS).toBeLessThan(figures.parts[0]!.doneAtS)
    const { path, owner } = merged
    let done = 0
    for (const m of path.feature.keys()) {
      if (owner[m] === 1) done = Math.max(done, path.z[m + 1]!)
      const moves = Math.hypot(path.x[m + 1]! - path.x[m]!, path.y[m + 1]! - path.y[m]!) > 20
      if (owner[m] === SHARED && moves && done > 5) expect(path.z[m]!).toBeGreaterThan(done)
    }
  })

  it('with layers of two heights lays each at its own, and lifts over the one that is ahead', async () => {
    const [fine, coarse] = [
      await laidPart('fine', blockMesh(10, 10, 3), { layerHeight: 0.12 }),
      await laidPart('coarse', blockMesh(10, 10, 3), { layerHeight: 0.3 }),
    ]
    const { merged } = await foretold([fine, coarse], [at(-12), at(12)], 'together')
    const { path, owner } = merged
    const top = [0, 0]
    for (const m of path.feature.keys()) {
      const own = owner[m]!
      if (own !== SHARED) top[own] = Math.max(top[own]!, path.z[m + 1]!)
      const isFar = Math.hypot(path.x[m + 1]! - path.x[m]!, path.y[m + 1]! - path.y[m]!) > 5
      if (own === SHARED && isFar) expect(path.z[m]!).toBeGreaterThanOrEqual(Math.min(...top) - 1e-9)
    }
    for (const height of top) expect(Math.abs(height - 3)).toBeLessThan(0.16)
    // Never more than a layer ahead of each other.
    let [a, b] = [0, 0]
    for (const m of path.feature.keys()) {
      if (owner[m] === 0) a = Math.max(a, path.z[m + 1]!)
      if (owner[m] === 1) b = Math.max(b, path.z[m + 1]!)
      if (owner[m] !== SHARED && a > 0.2 && b > 0.3 && a < 2.8 && b < 2.8) expect(Math.abs(a - b)).toBeLessThan(0.31)
    }
  })

  it.each(starterPrinters)('on $name is told, and its program, planned anew, takes as long; a belt has no plate', async (printer) => {
    const setup = { ...setupOf(), printer }
    const parts = [
      await laidPart('block', blockMesh(40, 24, 6), {}, [], setup),
      await laidPart('post', blockMesh(12, 12, 14), {}, [], setup),
    ]
    const plate = await foretold(parts, [at(-25), at(25, 5, 45)], 'together', setup)
    if (printer.kinematics === 'tiltedBelt') {
      expect(plate.figures.problems.map(({ code }) => code)).toEqual(['plate-on-belt'])
      expect(() => plateProgram('plate', plate, setup, { filament: 'relative' }, () => {})).toThrow(/belt without end/)
      return
    }
    expect(plate.figures.problems).toEqual([])
    const timer = new ProgramTimer(printer)
    plateProgram('plate', plate, setup, { filament: 'relative' }, (text) => timer.push(new TextEncoder().encode(text)))
    expect(Math.abs(timer.finish().timeS / plate.figures.timeS - 1)).toBeLessThan(0.005)
  })
})

describe('what keeps a plate from being printed', () => {
  const part = async (name: string, heightMm: number, values: SettingValues = {}) => {
    const one = await laidPart(name, blockMesh(10, 10, 2), values)
    return { ...one, heightMm }
  }
  const codes = async (order: PlateOrder, standing: readonly Standing[], heights = [2, 2], values: SettingValues = {}): Promise<string[]> =>
    problemsOf([await part('one', heights[0]!), await part('other', heights[1]!, values)], standing, order, setupOf('lugger')).map(
      ({ code }) => code,
    )

  it('is told in a sentence each: bodies in each other, off the bed, too high', async () => {
    expect(await codes('together', [at(0), at(30)])).toEqual([])
    expect(await codes('together', [at(0), at(6)])).toEqual(['bodies-collide'])
    expect(await codes('together', [at(0), at(10.2)])).toEqual(['bodies-collide'])
    expect(await codes('together', [at(0), at(500)])).toEqual(['off-the-bed'])
    expect(await codes('together', [at(0), at(30)], [2, 4000])).toEqual(['too-high'])
    const [told] = problemsOf([await part('cup', 2), await part('lid', 2)], [at(0), at(3)], 'together', setupOf('lugger'))
    expect(told!.sentence).toMatch(/cup and lid stand in each other\. Move one of them/)
  })

  it('is the head, of two that are both higher than it clears and too near; never of one', async () => {
    const { clearance } = setupOf('lugger').printer
    const near = [at(-7), at(7)]
    const [radius, height] = [clearance!.radius, clearance!.height]
    expect(await codes('inTurn', near, [height + 1, height + 5])).toEqual(['head-collides'])
    expect(await codes('inTurn', near, [height - 1, height + 5])).toEqual([])
    expect(await codes('together', near, [height + 1, height + 5])).toEqual([])
    expect(await codes('inTurn', [at(0), at(radius + 11)], [height + 1, height + 5])).toEqual([])
    const { clearance: _, ...printer } = setupOf('lugger').printer
    const parts = [await part('one', 2), await part('other', 2)]
    expect(problemsOf(parts, [at(0), at(30)], 'inTurn', { printer }).map(({ code }) => code)).toEqual(['head-unknown'])
  })

  it('is what they cannot share: a bed, and together a nozzle’s heat or a wall that rises', async () => {
    const apart = [at(0), at(40)]
    expect(await codes('inTurn', apart, [2, 2], { bedTemperature: 75 })).toContain('plate-beds-differ')
    expect(await codes('together', apart, [2, 2], { nozzleTemperature: 235 })).toEqual(['plate-nozzles-differ'])
    expect(await codes('inTurn', apart, [2, 2], { nozzleTemperature: 235 })).toEqual([])
    const pot = await laidPart('pot', meshOf((await solids).Manifold.cylinder(6, 10, 10, 64)), { spiralWall: 'on' })
    const parts = [pot, await part('other', 2)]
    expect(problemsOf(parts, apart, 'together', setupOf()).map(({ code }) => code)).toEqual(['plate-spiral'])
    expect(problemsOf(parts, apart, 'inTurn', setupOf())).toEqual([])
  })

  it('is that there is nothing, or more than can be told apart', async () => {
    await expect(foretold([], [], 'together')).rejects.toThrow(/no part on the plate/)
    const one = await laidPart('bit', blockMesh(2, 2, 0.4))
    const many = Array.from({ length: 65 }, () => one)
    await expect(
      foretold(
        many,
        many.map(() => at(0)),
        'together',
      ),
    ).rejects.toThrow(/65 parts with 0 places/)
  })
})

describe('parts that are arranged', () => {
  it('stand on the bed, apart, as they are turned, and as far as the head needs; or are refused by name', async () => {
    const kinds = [
      await laidPart('block', blockMesh(30, 20, 2)),
      await laidPart('disc', meshOf((await solids).Manifold.cylinder(2, 8, 8, 64)), { brim: 'outer' }),
      await laidPart('rod', blockMesh(60, 4, 2)),
    ]
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 2 }), fc.integer({ min: 0, max: 179 })), { minLength: 1, maxLength: 12 }),
        fc.constantFrom<PlateOrder>('together', 'inTurn'),
        (chosen, order) => {
          const parts = chosen.map(([kind, turn]) => ({ ...kinds[kind]!, turn }))
          const standing = arranged(parts, order, setupOf().printer)
          const placed = parts.map(({ footprint }, i) => placedFootprint(footprint, standing[i]!))
          expect(problemsOf(parts, standing, order, setupOf())).toEqual([])
          for (const [i, a] of placed.entries()) for (const b of placed.slice(i + 1)) expect(gapBetween(a, b)).toBeGreaterThan(3.9)
          expect(standing.map(({ turn }) => turn)).toEqual(chosen.map(([, turn]) => turn))
        },
      ),
      { numRuns: 30 },
    )
    const big = { ...(await laidPart('slab', blockMesh(150, 150, 2))), turn: 0 }
    expect(() => arranged([big, big, big], 'together', setupOf().printer)).toThrow(/no room is left for slab/)
    const tall = { ...kinds[0]!, turn: 0, heightMm: 120 }
    const { clearance } = setupOf().printer
    const [a, b] = arranged([tall, tall], 'inTurn', setupOf().printer) as [Standing, Standing]
    expect(gapBetween(placedFootprint(tall.footprint, a), placedFootprint(tall.footprint, b))).toBeGreaterThanOrEqual(
      clearance!.radius - 1e-6,
    )
  })

  it('cover what they lay, within a thousandth for what is round', async () => {
    const disc = await laidPart('disc', meshOf((await solids).Manifold.cylinder(2, 20, 20, 256)))
    const { minX, maxX } = extentOf(footprintOf(disc.path))
    expect((maxX - minX) / 40).toBeGreaterThan(0.995)
    expect((maxX - minX) / 40).toBeLessThan(1.002)
    const [a, b] = [placedFootprint(disc.footprint, at(0)), placedFootprint(disc.footprint, at(30, 40))]
    expect(gapBetween(a, b)).toBeCloseTo(10, 0)
    expect(gapBetween(a, placedFootprint(disc.footprint, at(30)))).toBe(0)
  })
})
