import { describe, expect, it } from 'vitest'
import { planMotion } from '../motion/planMotion'
import { fanFor, fanShare } from '../physics/cooling/fan'
import type { SettingValues } from '../profile/settings'
import { type LaidOut, layOut } from '../testing/layOut'
import { lengthOf, total } from '../testing/paths'
import { settingsOf, setupOf } from '../testing/setups'
import { blockMesh, joined, meshOf, moved, solids } from '../testing/solids'
import { code } from './toolpath'

/** A plate with holes of 5 and 16 mm, and a pin of 4 mm beside it. */
const plate = async () => {
  const { Manifold } = await solids
  const holed = Manifold.cube([50, 30, 3], false)
    .subtract(Manifold.cylinder(9, 2.5, 2.5, 48).translate([10, 15, -3]))
    .subtract(Manifold.cylinder(9, 8, 8, 96).translate([32, 15, -3]))
  return meshOf(Manifold.compose([holed, Manifold.cylinder(3, 2, 2, 48).translate([60, 15, 0])]))
}
/** Fastest that each outer wall of a layer runs, by its length, mm/s and mm. */
function paces({ path, settings }: LaidOut, layer: number): { readonly mm: number; readonly peak: number }[] {
  const motion = planMotion(path, () => settings, setupOf().printer)
  const found: { mm: number; peak: number }[] = []
  let before = -1
  for (let m = path.layerStart[layer]!; m < path.layerStart[layer + 1]!; m++) {
    if (path.feature[m] !== code.outerWall) continue
    if (before !== m - 1) found.push({ mm: 0, peak: 0 })
    const last = found.at(-1)!
    last.mm += lengthOf(path, m)
    last.peak = Math.max(last.peak, motion.peak[m]!)
    before = m
  }
  return found
}

describe('small loops', () => {
  const values: SettingValues = { outerWallSpeed: 40, smallLoopSpeed: 12, minLayerTime: 0, acceleration: 5000 }

  it('run no faster than they are asked, holes and pins alike, and everything else as before', async () => {
    const laid = await layOut(await plate(), values)
    const loops = paces(laid, 6)
    expect(loops).toHaveLength(4)
    for (const { mm, peak } of loops) {
      // 5 and 4 mm across, a line's width less or more.
      if (mm < 25) expect(peak).toBeCloseTo(12, 2)
      else expect(peak).toBeGreaterThan(30)
    }
    expect(loops.filter(({ mm }) => mm < 25)).toHaveLength(2)
  })

  it('are as long as is told, and none are where no speed is', async () => {
    const slow = (loops: { readonly peak: number }[]): number => loops.filter(({ peak }) => peak < 13).length
    expect(slow(paces(await layOut(await plate(), { ...values, smallLoopLength: 60 }), 6))).toBe(3)
    expect(slow(paces(await layOut(await plate(), { ...values, smallLoopLength: 5 }), 6))).toBe(0)
    expect(slow(paces(await layOut(await plate(), { ...values, smallLoopSpeed: 0 }), 6))).toBe(0)
    // No loop is sped up.
    expect(Math.max(...paces(await layOut(await plate(), { ...values, smallLoopSpeed: 400 }), 6).map(({ peak }) => peak))).toBeLessThan(
      40.1,
    )
  })
})

describe('the fan', () => {
  it('begins on the layer that is told and grows from there', () => {
    const shares = (fanFromLayer: number, fanRampLayers: number) =>
      [0, 1, 2, 3, 4, 5, 6, 7].map((layer) => Math.round(100 * fanShare(layer, { fanFromLayer, fanRampLayers })))
    expect(shares(2, 0)).toEqual([0, 100, 100, 100, 100, 100, 100, 100])
    expect(shares(4, 0)).toEqual([0, 0, 0, 100, 100, 100, 100, 100])
    expect(shares(3, 3)).toEqual([0, 0, 25, 50, 75, 100, 100, 100])
    const settings = settingsOf({ fanFromLayer: 5, overhangFan50: 100, bridgeFan: 90, fanSpeed: 60 })
    // What hangs over air has its own.
    expect([fanFor(code.outerWall, 0, 2, settings), fanFor(code.outerWall, 160, 2, settings), fanFor(code.bridge, 0, 2, settings)]).toEqual(
      [0, 100, 90],
    )
    expect(fanFor(code.infill, 0, 5, settings)).toBe(60)
  })
})

/** Directions of the solid lines of a layer that are longer than some, degrees, 0 to 180. */
const directions = ({ path }: LaidOut, layer: number): number[] => {
  const found = new Set<number>()
  for (let m = path.layerStart[layer]!; m < path.layerStart[layer + 1]!; m++) {
    if (path.feature[m] !== code.topBottom || lengthOf(path, m) < 6) continue
    const angle = (Math.atan2(path.y[m + 1]! - path.y[m]!, path.x[m + 1]! - path.x[m]!) * 180) / Math.PI
    found.add((Math.round(angle) + 360) % 180)
  }
  return [...found].sort((a, b) => a - b)
}

describe('bottoms', () => {
  it('lie on the bed the way that is told, and turn from there as ever', async () => {
    const [usual, along] = [await layOut(blockMesh(30, 20, 4)), await layOut(blockMesh(30, 20, 4), { bottomAngle: 0 })]
    expect(directions(usual, 0)).toEqual([45])
    expect(directions(along, 0)).toEqual([0])
    expect(directions(along, 1)).toEqual(directions(usual, 1))
  })

  it('have lines of their own, tops others', async () => {
    const laid = await layOut(blockMesh(30, 20, 4), { bottomPattern: 'concentric', bottomLayers: 3 })
    for (const layer of [0, 1, 2]) expect(directions(laid, layer)).toEqual([0, 90])
    expect(directions(laid, 19)).toEqual([135])
  })
})

describe('an extra wall', () => {
  const loops = ({ regions: { walls } }: LaidOut, layer: number): number =>
    walls.reduce((sum, { groupStart }) => sum + groupStart[layer + 1]! - groupStart[layer]!, 0)

  it('lies on every second layer, and the infill makes room', async () => {
    const laid = await layOut(blockMesh(30, 20, 4), { wallCount: 2, extraWall: 'everySecond' })
    expect([6, 7, 8, 9].map((layer) => loops(laid, layer))).toEqual([2, 3, 2, 3])
    const plain = await layOut(blockMesh(30, 20, 4), { wallCount: 2 })
    const inside = ({ path }: LaidOut, layer: number): number => {
      let mm = 0
      for (let m = path.layerStart[layer]!; m < path.layerStart[layer + 1]!; m++)
        if (path.feature[m] === code.infill) mm += lengthOf(path, m)
      return mm
    }
    expect(inside(laid, 8)).toBeCloseTo(inside(plain, 8), 6)
    expect(inside(laid, 9)).toBeLessThan(inside(plain, 9))
  })

  it('lies where a place says so, and nowhere else', async () => {
    const laid = await layOut(blockMesh(30, 20, 4), { wallCount: 2 }, [
      { name: 'grip', fromZ: 1, toZ: 2, values: { extraWall: 'everySecond' } },
    ])
    expect([3, 7, 9, 13].map((layer) => loops(laid, layer))).toEqual([2, 3, 3, 2])
  })
})

describe('bodies of a layer', () => {
  const posts = () => joined(...[-20, 0, 20].map((x) => moved(blockMesh(5, 5, 4), x, x / 2, 0)))
  /** The x at which each layer's outer walls begin, in their order, mm. */
  const order = ({ path }: LaidOut, layer: number): number[] => {
    const found: number[] = []
    for (let m = path.layerStart[layer]!; m < path.layerStart[layer + 1]!; m++) {
      const x = 20 * Math.round(path.x[m]! / 20) + 0
      if (path.feature[m] === code.outerWall && found.at(-1) !== x) found.push(x)
    }
    return found
  }

  it('are laid back and forth where the nearest is next, and always from one side where that is told', async () => {
    const nearest = await layOut(posts())
    const layers = [5, 6, 7, 8].map((layer) => order(nearest, layer))
    expect(layers[0]).toEqual([...layers[1]!].reverse())
    for (const bodyOrder of ['leftToRight', 'frontToBack'] as const) {
      const laid = await layOut(posts(), { bodyOrder })
      for (const layer of [5, 6, 7, 8]) expect(order(laid, layer)).toEqual([-20, 0, 20])
      expect(total(laid.path, code.travel)).toBeGreaterThan(total(nearest.path, code.travel))
    }
  })
})
