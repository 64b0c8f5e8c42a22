import { describe, expect, it } from 'vitest'
import { medians } from '../../constants/constants'
import { knownSetup } from '../../setup/knownSetup'
import { heatOf } from '../../shelf/heat'
import { slice } from '../../slicing/slice'
import { testKernel } from '../../testing/kernel'
import { settingsOf, setupOf } from '../../testing/setups'
import { blockMesh, meshOf, solids } from '../../testing/solids'
import { fitOf } from './fit'
import { smallestHole } from './smallestHole'
import { footOf, warpOf } from './warp'

const setup = (material = 'pla', printer = 'lugger') => knownSetup(setupOf(printer, 'bore-0.4', material))
const sizeMm = [100, 40, 20] as const
const hole = { diameterMm: 5, chordMm: 0.02 }

describe('off its size', () => {
  const of = (values = {}, material = 'pla') => fitOf({ settings: settingsOf(values), setup: setup(material), sizeMm, hole })

  it('PLA shrinks by two or three tenths of a per cent, ABS by clearly more (handbook values, from memory)', () => {
    expect(of().shrinkShare).toBeGreaterThan(0.0015)
    expect(of().shrinkShare).toBeLessThan(0.0035)
    expect(of().shrinkMm).toBeCloseTo(100 * of().shrinkShare, 12)
    expect(of({}, 'abs').shrinkShare).toBeGreaterThan(2 * of().shrinkShare)
    expect(of({}, 'fibre-nylon').shrinkShare).toBeLessThan(of({}, 'abs').shrinkShare)
  })

  it('a hole of 5 mm comes out one or two tenths too narrow (common practice)', () => {
    expect(of().hole!.underMm).toBeGreaterThan(0.1)
    expect(of().hole!.underMm).toBeLessThan(0.25)
    expect(of({ flow: 105 }).hole!.underMm).toBeCloseTo(of().hole!.underMm + 0.05 * 0.4, 9)
  })

  it('the foot spreads on a bed near softening, and by what the first layer gets too much', () => {
    const { softening } = heatOf(setup().material)
    expect(of({ bedTemperature: softening }).flareMm).toBeCloseTo(medians.fit.flare, 9)
    expect(of({ bedTemperature: 30 }).flareMm).toBeLessThan(0.3 * medians.fit.flare)
    expect(of({ firstLayerFlow: 120 }).flareMm - of().flareMm).toBeCloseTo((0.4 * 0.2) / 2, 9)
  })

  it('is what is worst of the three', () => {
    expect(of()).toMatchObject({ worst: 'shrinkage', worstMm: of().shrinkMm })
    const small = fitOf({ settings: settingsOf(), setup: setup(), sizeMm: [10, 10, 10], hole })
    expect(small).toMatchObject({ worst: 'hole', worstMm: small.hole!.underMm })
  })
})

describe('the smallest hole', () => {
  it('is found with what its chords take off: d·(1 − cos(π/n))', async () => {
    const { Manifold } = await solids
    const corners = 12
    const plate = Manifold.cube([30, 20, 4], true)
      .subtract(Manifold.cylinder(10, 3, 3, corners, true))
      .subtract(Manifold.cylinder(10, 4, 4, 64, true).translate([9, 0, 0]))
      .translate([0, 0, 2])
    const found = smallestHole(slice(meshOf(plate), () => settingsOf(), await testKernel).outlines)!
    expect(found.diameterMm).toBeGreaterThan(5.6)
    expect(found.diameterMm).toBeLessThan(6)
    expect(found.chordMm).toBeCloseTo(6 * (1 - Math.cos(Math.PI / corners)), 2)
  })

  it('is no slot and no outline', async () => {
    const { Manifold } = await solids
    const slotted = Manifold.cube([30, 20, 4], true)
      .subtract(Manifold.cube([20, 2, 10], true))
      .translate([0, 0, 2])
    expect(smallestHole(slice(meshOf(slotted), () => settingsOf(), await testKernel).outlines)).toBeUndefined()
  })
})

describe('warping', () => {
  const of = (change: { values?: object; material?: string; enclosed?: boolean; length?: number; height?: number } = {}) => {
    const { values = {}, material = 'pla', enclosed = false, length = 100, height = 20 } = change
    const known = setup(material)
    return warpOf({
      settings: settingsOf(values, setupOf('lugger', 'bore-0.4', material)),
      setup: { ...known, printer: { ...known.printer, enclosed } },
      foot: { lengthMm: length },
      sizeMm: [length, 20, height],
      solidShare: 0.4,
    }).risk
  }

  it('PLA of 100 mm lies flat, ABS of it lifts in the open and hardly in an enclosure (CP-M1, CP-M6, common practice)', () => {
    expect(of()).toBeLessThan(1)
    expect(of({ material: 'abs' })).toBeGreaterThan(1)
    expect(of({ material: 'abs', enclosed: true })).toBeLessThan(0.8 * of({ material: 'abs' }))
  })

  it('grows with length and, up to a few millimetres, height; a brim and a warm bed hold it', () => {
    expect(of({ length: 200 })).toBeGreaterThan(1.8 * of())
    expect(of({ height: 2 })).toBeLessThan(0.4 * of())
    expect(of({ values: { brim: 'outer', brimWidth: 10 } })).toBeCloseTo(of() / 2, 6)
    expect(of({ values: { bedTemperature: 30 } })).toBeGreaterThan(2 * of())
  })

  it('reaches from one corner of the foot to the other', async () => {
    expect(footOf(slice(blockMesh(30, 40, 5), () => settingsOf(), await testKernel)).lengthMm).toBeCloseTo(50, 6)
  })
})
