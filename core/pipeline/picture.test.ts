import { describe, expect, it } from 'vitest'
import { valuesOf } from '../figures/figures'
import { asModelled } from '../mesh/place'
import { planMotion } from '../motion/planMotion'
import { picturesSeen } from '../physics/finish/pictureSeen'
import { noPurpose } from '../physics/strength/purpose'
import type { Override } from '../profile/overrides'
import type { SettingValues } from '../profile/settings'
import { programFor } from '../program/programFor'
import { ProgramTimer } from '../program/timeProgram'
import { starterPrinters } from '../shelf/starter'
import { coverageOf } from '../testing/coverage'
import { testKernel } from '../testing/kernel'
import { type LaidOut, layOut } from '../testing/layOut'
import { lengthOf, movesOf } from '../testing/paths'
import { setupOf } from '../testing/setups'
import { blockMesh, meshOf, partOf, solids } from '../testing/solids'
import { code } from '../toolpath/toolpath'
import { layDown } from './layDown'
import { predict } from './predict'
import { StageCache } from './stageCache'

/** Left half black, right half white; or so many stripes of each. */
const stripes = (count: number): string => Array.from({ length: 2 * count }, (_, i) => (i % 2 === 0 ? '0' : 'f')).join('')
const pictureOf = (over: Partial<NonNullable<Override['picture']>> = {}): NonNullable<Override['picture']> => {
  const greys = over.greys ?? stripes(1)
  return { columns: greys.length, rows: 1, greys, lay: 'wrapped', times: 1, darkSpeed: 30, lightSpeed: 90, ...over }
}
const place = (over: Partial<Override> = {}): Override => ({ name: 'sign', fromZ: 1, toZ: 5, values: {}, picture: pictureOf(), ...over })
const calm: SettingValues = { minLayerTime: 0, slowFirstLayers: 0, outerWallAcceleration: 6000, topLayers: 0, bottomLayers: 0 }

const speedAt = ({ path, scopes }: LaidOut, m: number): number => scopes.settingsOf(path.scope[m]!).outerWallSpeed
const middleOf = ({ path }: LaidOut, m: number): [number, number] => [(path.x[m]! + path.x[m + 1]!) / 2, (path.y[m]! + path.y[m + 1]!) / 2]
const layerOf = ({ path }: LaidOut, m: number): number => path.layerStart.findLastIndex((start) => start <= m)
const seenOf = (laid: LaidOut, setup = setupOf()) => {
  const motion = planMotion(laid.path, (scope) => laid.scopes.settingsOf(scope), setup.printer)
  return picturesSeen({ layers: laid.layers, path: laid.path, motion, scopes: laid.scopes, places: [[0, 0]] })
}

describe('a picture on a part', () => {
  it('wrapped round it is read from outside: its left half on the left of the front, dark', async () => {
    const laid = await layOut(blockMesh(30, 20, 6), calm, [place()])
    for (const m of movesOf(laid.path, code.outerWall)) {
      const [x] = middleOf(laid, m)
      const z = laid.layers.top[layerOf(laid, m)]!
      const isIn = z > 1.1 && z < 5.1
      if (Math.abs(x) < 0.3) continue
      expect(speedAt(laid, m)).toBe(isIn ? (x < 0 ? 30 : 90) : laid.settings.outerWallSpeed)
    }
    // Inner walls and infill go on as before.
    for (const feature of [code.innerWall, code.infill])
      for (const m of movesOf(laid.path, feature)) expect(speedAt(laid, m)).toBe(laid.settings.outerWallSpeed)
  })

  it('begins at the top, turns with its box, and is repeated as often as is asked', async () => {
    const { Manifold } = await solids
    const pot = meshOf(Manifold.cylinder(6, 15, 15, 128))
    const picture = pictureOf({ columns: 2, rows: 2, greys: '00ff', times: 3 })
    const whole = await layOut(pot, calm, [place({ fromZ: 0, toZ: 6, picture })])
    for (const m of movesOf(whole.path, code.outerWall))
      expect(speedAt(whole, m)).toBe(whole.layers.top[layerOf(whole, m)]! > 3.1 ? 30 : 90)
    const box = { minX: -20, maxX: 20, minY: -20, maxY: 20, turn: 90 }
    const turned = await layOut(pot, calm, [place({ box, picture: pictureOf({ greys: stripes(1) }) })])
    for (const m of movesOf(turned.path, code.outerWall)) {
      const [, y] = middleOf(turned, m)
      // The front now looks to +x, and its left is at −y.
      if (turned.path.sets[turned.path.scope[m]!]!.length > 1 && Math.abs(y) > 0.3) expect(speedAt(turned, m)).toBe(y < 0 ? 30 : 90)
    }
    // Six changes on the way round with three repeats.
    const thrice = await layOut(pot, calm, [place({ picture: pictureOf({ times: 3 }) })])
    const [from, to] = [thrice.path.layerStart[10]!, thrice.path.layerStart[11]!]
    const speeds = movesOf(thrice.path, code.outerWall)
      .filter((m) => m >= from && m < to)
      .map((m) => speedAt(thrice, m))
    const changes = speeds.filter((speed, i) => speed !== speeds[(i + speeds.length - 1) % speeds.length]).length
    expect(changes).toBe(6)
  })

  it('laid on lies on the half of its box that faces the front, and nowhere else', async () => {
    const box = { minX: -10, maxX: 10, minY: -12, maxY: 12 }
    const laid = await layOut(blockMesh(30, 20, 6), calm, [place({ box, picture: pictureOf({ lay: 'laid', greys: stripes(2) }) })])
    for (const m of movesOf(laid.path, code.outerWall)) {
      const [x, y] = middleOf(laid, m)
      const isOn = laid.layers.top[layerOf(laid, m)]! > 1.1 && laid.layers.top[layerOf(laid, m)]! < 5.1 && y < 0 && Math.abs(x) < 10
      if (!isOn) expect(speedAt(laid, m)).toBe(laid.settings.outerWallSpeed)
      else if (Math.abs((x % 5) - 0) > 0.3) expect(speedAt(laid, m)).toBe(Math.floor((x + 10) / 5) % 2 === 0 ? 30 : 90)
    }
  })

  it('divides lines and moves none: the same is laid, on round, thin, tiny and large parts', async () => {
    const { Manifold } = await solids
    const parts = [
      blockMesh(30, 20, 6),
      meshOf(Manifold.cylinder(6, 15, 15, 128)),
      meshOf(Manifold.cylinder(6, 2, 2, 48)),
      blockMesh(40, 0.9, 6),
      meshOf(Manifold.cylinder(6, 70, 60, 256)),
    ]
    const picture = pictureOf({ columns: 64, rows: 8, greys: Array.from({ length: 512 }, (_, i) => ((7 * i) % 16).toString(16)).join('') })
    for (const mesh of parts) {
      const [plain, drawn] = [await layOut(mesh, calm), await layOut(mesh, calm, [place({ picture })])]
      for (const feature of [code.outerWall, code.innerWall, code.infill]) {
        const length = ({ path }: LaidOut): number => movesOf(path, feature).reduce((sum, m) => sum + lengthOf(path, m), 0)
        expect(length(drawn)).toBeCloseTo(length(plain), 3)
      }
      for (const m of movesOf(drawn.path, code.outerWall)) expect(lengthOf(drawn.path, m)).toBeGreaterThan(1e-4)
    }
    const laid = await layOut(blockMesh(30, 20, 6), { ...calm, infillDensity: 100 }, [place({ picture })])
    const { part, laid: area, outside } = coverageOf(laid, 10, await testKernel)
    expect(area / part).toBeGreaterThan(0.98)
    expect(area / part).toBeLessThan(1.02)
    expect(outside).toBeLessThan(0.01)
  })

  it('is seen as it is asked for where stripes are wide, and flattened where a machine cannot follow', async () => {
    const left = async (count: number, acceleration: number) => {
      const picture = pictureOf({ greys: stripes(count) })
      const mesh = meshOf((await solids).Manifold.cylinder(6, 20, 20, 256))
      const laid = await layOut(mesh, { ...calm, outerWallAcceleration: acceleration }, [place({ picture })])
      return seenOf(laid)[0]!.figures
    }
    expect((await left(2, 6000)).contrastLeft).toBeGreaterThan(0.95)
    const [coarse, fine] = [await left(8, 500), await left(40, 500)]
    expect(fine.contrastLeft).toBeLessThan(coarse.contrastLeft)
    expect(fine.contrastLeft).toBeLessThan(0.4)
    expect(fine.heldBy).toBe('acceleration')
    expect(fine.addedS).toBeGreaterThan(0)
  })

  it('runs up from dark to light within (v² − v₀²) ∕ 2a of the edge (any text on kinematics)', async () => {
    const mesh = meshOf((await solids).Manifold.cylinder(6, 30, 30, 720))
    const picture = pictureOf({ columns: 360, greys: `${'0'.repeat(180)}${'f'.repeat(180)}` })
    const laid = await layOut(mesh, { ...calm, outerWallAcceleration: 1000, cornerSpeed: 20 }, [place({ picture })])
    const { seenMmS, columns } = seenOf(laid)[0]!
    const row = 8
    const at = (column: number): number => seenMmS[row * columns + column]!
    // A degree of a circle of 29.8 mm is 0.52 mm; from 30 to 90 mm/s takes 3.6 mm, seven columns, all on the light side.
    const step = (Math.PI / 180) * 29.8
    expect(at(179)).toBeCloseTo(30, 0)
    for (const n of [1, 3, 5]) expect(at(180 + n) / Math.sqrt(900 + 2 * 1000 * (n + 0.5) * step)).toBeCloseTo(1, 1)
    expect(at(180 + 9)).toBeCloseTo(90, 0)
  })

  it('that waits for the least layer time loses its contrast, and says why', async () => {
    const mesh = meshOf((await solids).Manifold.cylinder(6, 10, 10, 128))
    const prediction = predict(
      partOf('pot', mesh),
      asModelled,
      setupOf(),
      { ...calm, minLayerTime: 30, floorSpeed: 5 },
      {
        kernel: await testKernel,
        overrides: [place()],
      },
    )
    expect(prediction.pictures[0]).toMatchObject({ name: 'sign', heldBy: 'layerTime' })
    const check = prediction.checks.find(({ id }) => id === 'picture-flattened')!
    expect(check.message).toMatch(/Of the contrast of the picture of “sign” \d+ % is left\..*least time/)
  })

  it.each(
    starterPrinters,
  )('on $name has every figure; its program, read back, takes as long; a tilted belt says that none is laid', async (printer) => {
    const setup = { ...setupOf(), printer }
    const part = partOf('block', blockMesh(24, 24, 6))
    const choice = { kernel: await testKernel, cache: new StageCache(), overrides: [place({ picture: pictureOf({ greys: stripes(6) }) })] }
    const prediction = predict(part, asModelled, setup, {}, choice)
    for (const value of Object.values(valuesOf(prediction, noPurpose))) expect(Number.isFinite(value)).toBe(true)
    const isBelt = printer.kinematics === 'tiltedBelt'
    expect(prediction.checks.some(({ id }) => id === 'picture-off-part')).toBe(isBelt)
    if (isBelt) return
    const timer = new ProgramTimer(printer)
    programFor(part, asModelled, setup, {}, { ...choice, partName: 'block', filament: 'relative' }, (text) =>
      timer.push(new TextEncoder().encode(text)),
    )
    expect(Math.abs(timer.finish().timeS / prediction.timeS - 1)).toBeLessThan(0.005)
  })

  it('lays no path anew when only its speeds change, and cuts no slice anew when its greys do', async () => {
    const cache = new StageCache()
    const part = partOf('block', blockMesh(24, 24, 6))
    const lay = async (picture: NonNullable<Override['picture']>) =>
      layDown(part, asModelled, setupOf(), {}, { kernel: await testKernel, cache, overrides: [place({ picture })] })
    const first = await lay(pictureOf())
    const faster = await lay(pictureOf({ lightSpeed: 120 }))
    expect(faster.path).toBe(first.path)
    const other = await lay(pictureOf({ greys: stripes(3) }))
    expect(other.path).not.toBe(first.path)
    expect(other.regions).toBe(first.regions)
  })

  it('of a place beside the part is told of', async () => {
    const { checks } = predict(
      partOf('block', blockMesh(24, 24, 6)),
      asModelled,
      setupOf(),
      {},
      {
        kernel: await testKernel,
        overrides: [
          place({ name: 'above', fromZ: 20, toZ: 30 }),
          { name: 'beside', fromZ: 0, box: { minX: 40, maxX: 50, minY: 0, maxY: 5 }, values: { wallCount: 4 } },
        ],
      },
    )
    expect(checks.find(({ id }) => id === 'place-off-part')?.message).toContain('“above”, “beside”')
  })
})
