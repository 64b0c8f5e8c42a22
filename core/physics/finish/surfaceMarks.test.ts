import { describe, expect, it } from 'vitest'
import { medians } from '../../constants/constants'
import { layOut } from '../../testing/layOut'
import { settingsOf } from '../../testing/setups'
import { blockMesh, meshOf, solids } from '../../testing/solids'
import { type LineMarks, lineMarks } from '../../toolpath/lineMarks'
import { droopOf, sagOf } from './sag'
import { type MarkInput, type SurfaceMark, surfaceMarks } from './surfaceMarks'

const lines: LineMarks = { wallMm: 160_000, corners: 4000, loops: 1000, topBottomMm: 30_000, topBottomLines: 600, hanging: 0, scope: 0 }
const of = (change: Partial<MarkInput> = {}): Record<SurfaceMark['id'], SurfaceMark> =>
  Object.fromEntries(
    surfaceMarks({
      lines,
      settings: settingsOf(),
      ringing: { amplitudeMm: 0.03, wavelengthMm: 1.2, measured: true },
      wallSpeed: 60,
      acceleration: 3000,
      pressureAdvance: undefined,
      extruder: 'direct',
      oozes: 1,
      closure: { gapMm: 5, thicknessMm: 0.8, closure: 1.1 },
      wet: 0,
      constants: medians,
      ...change,
    }).map((mark) => [mark.id, mark]),
  ) as Record<SurfaceMark['id'], SurfaceMark>

describe('what moves the surface beside its layers', () => {
  it('is told apart: waves, seams, pressure, ends of lines, open tops, bubbles', () => {
    expect(Object.keys(of())).toEqual(['waves', 'seams', 'pressure', 'ends', 'openTop', 'bubbles'])
    for (const { sidesUm, topUm } of Object.values(of())) expect(sidesUm + topUm).toBeGreaterThanOrEqual(0)
  })

  it('waves and pressure need corners: a round wall has none of either', () => {
    const round = of({ lines: { ...lines, corners: 0 } })
    expect([round.waves.sidesUm, round.pressure.sidesUm]).toEqual([0, 0])
    expect(of().waves.sidesUm).toBeGreaterThan(0)
    expect(of({ ringing: { amplitudeMm: 0.06, wavelengthMm: 1.2, measured: true } }).waves.sidesUm / of().waves.sidesUm).toBeCloseTo(2, 9)
  })

  it('seams and ends go with coasting and wiping, and are worse of what oozes (CP-S8, common practice)', () => {
    const calm = of({ settings: settingsOf({ coastLength: 0.4, wipeLength: 1 }) })
    expect(calm.seams.sidesUm).toBeLessThan(0.3 * of().seams.sidesUm)
    expect(calm.ends.topUm).toBeLessThan(0.3 * of().ends.topUm)
    expect(of({ oozes: 2.5 }).seams.sidesUm / of().seams.sidesUm).toBeCloseTo(2.5, 9)
  })

  it('fewer, joined lines leave fewer blobs on a top (CP-S5, common practice)', () => {
    expect(of({ lines: { ...lines, topBottomLines: 60 } }).ends.topUm).toBeLessThan(0.2 * of().ends.topUm)
  })

  it('pressure lags far more where nothing is fed ahead, and no more for being told what was taken for granted', () => {
    expect(of({ pressureAdvance: 0 }).pressure.sidesUm / of().pressure.sidesUm).toBeCloseTo(
      medians.finish.wholeLagDirect / medians.finish.lagDirect,
      6,
    )
    expect(of({ pressureAdvance: 0.04 }).pressure.sidesUm).toBe(of().pressure.sidesUm)
    expect(of({ pressureAdvance: 0, extruder: 'tube' }).pressure.sidesUm).toBeGreaterThan(of({ pressureAdvance: 0 }).pressure.sidesUm)
  })

  it('pressure lags more through a tube, and at the pace of a fast wall', () => {
    expect(of({ extruder: 'tube' }).pressure.sidesUm).toBeGreaterThan(3 * of().pressure.sidesUm)
    expect(of({ wallSpeed: 60 }).pressure.sidesUm).toBeGreaterThan(of({ wallSpeed: 20 }).pressure.sidesUm)
  })

  it('a top that does not close sinks over its gap (CP-S6), and water makes bubbles (CP-R1, common practice)', () => {
    expect(of().openTop.topUm).toBe(0)
    expect(of({ closure: { gapMm: 8, thicknessMm: 0.4, closure: 0.5 } }).openTop.topUm).toBeGreaterThan(10)
    expect(of({ wet: 1 }).bubbles.sidesUm).toBeGreaterThan(3)
  })
})

describe('marks of lines that are really laid', () => {
  it('are four corners and one loop a layer of a block, and no corner of a cylinder', async () => {
    const block = lineMarks((await layOut(blockMesh(20, 20, 6), { layerHeight: 0.2 })).path)
    expect(block.loops).toBe(30)
    // One of four corners is the seam's.
    expect(block.corners / block.loops).toBeGreaterThanOrEqual(3)
    expect(block.corners / block.loops).toBeLessThanOrEqual(4)
    expect(block.wallMm / (30 * 4 * 19.6)).toBeCloseTo(1, 2)
    const { Manifold } = await solids
    expect(lineMarks((await layOut(meshOf(Manifold.cylinder(6, 10, 10, 96)))).path).corners).toBe(0)
  })

  it('hang by h·tan θ/w over a slope (CP-S7, common practice: half a line at 45°)', async () => {
    const { Manifold } = await solids
    const cone = async (degrees: number) => {
      const spread = 8 * Math.tan((degrees * Math.PI) / 180)
      const { path } = await layOut(meshOf(Manifold.cylinder(8, 8, 8 + spread, 128)), { layerHeight: 0.2, lineWidth: 0.4 })
      return lineMarks(path).hanging
    }
    expect(await cone(30)).toBe(0)
    expect((await cone(60)) / ((0.2 * Math.tan(Math.PI / 3)) / 0.4)).toBeCloseTo(1, 0)
  })
})

describe('what comes down before it sets', () => {
  const calm = { speed: 30, fan: 1, margin: 2 }
  it('overhangs: nothing at 45°, a tenth of a millimetre at 60° (CP-S7, common practice)', () => {
    const at = (degrees: number, laying = calm) => droopOf((0.2 * Math.tan((degrees * Math.PI) / 180)) / 0.4, 0.2, laying, medians.finish)
    expect(at(45)).toBeLessThan(0.002)
    expect(at(60)).toBeGreaterThan(0.05)
    expect(at(60)).toBeLessThan(0.25)
    expect(at(60, { ...calm, fan: 0 })).toBeGreaterThan(1.5 * at(60))
    expect(at(60, { ...calm, speed: 120 })).toBeGreaterThan(1.5 * at(60))
    expect(at(60, { ...calm, margin: 0.5 })).toBeCloseTo(2 * at(60), 9)
  })

  it('bridges: with the square of their span, slow and cooled least (CP-S7, common practice)', () => {
    const at = (span: number, laying = calm) => sagOf(span, laying, medians.finish)
    expect(at(40) / at(20)).toBeCloseTo(4, 9)
    expect(at(10)).toBeLessThan(0.1)
    expect(at(40)).toBeGreaterThan(0.4)
    expect(at(20, { ...calm, speed: 120 })).toBeCloseTo(2 * at(20), 9)
  })
})
