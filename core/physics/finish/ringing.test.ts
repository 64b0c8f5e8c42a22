import { describe, expect, it } from 'vitest'
import { medians } from '../../constants/constants'
import { glossAt as glossAtOf } from './gloss'
import { ringingAmplitude, ringingFigures as ringingFiguresOf, ringingWavelength } from './ringing'

const glossAt = (load: number) => glossAtOf(load, medians.finish)

const ringingFigures = (wall: number, corner: number, acceleration: number, frequency: number | undefined) =>
  ringingFiguresOf(wall, corner, acceleration, frequency === undefined ? {} : { frameFrequency: frequency }, medians.finish)

describe('waves behind corners', () => {
  it('have the residual amplitude of a pulse of acceleration: none when it lasts a whole period, most at half of one (any text on vibration)', () => {
    const [a, f] = [3000, 50]
    const omega = 2 * Math.PI * f
    // The pulse lasts Δv/a.
    expect(ringingAmplitude(a, a / f, f)).toBeCloseTo(0, 12)
    expect(ringingAmplitude(a, a / (2 * f), f)).toBeCloseTo((2 * a) / omega ** 2, 12)
  })

  it('agree with a mass on a spring that is stepped through in time', () => {
    const [a, f, change] = [4000, 40, 30]
    const omega = 2 * Math.PI * f
    let [x, v, most] = [0, 0, 0]
    const dt = 1e-6
    // The frame sees −a for as long as the head changes its speed, then swings freely.
    for (let t = 0; t < change / a + 0.1; t += dt) {
      const push = t < change / a ? -a : 0
      v += (push - omega * omega * x) * dt
      x += v * dt
      if (t > change / a) most = Math.max(most, Math.abs(x))
    }
    expect(most / ringingAmplitude(a, change, f)).toBeCloseTo(1, 2)
  })

  it('stand v/f apart, and say whether the frequency was measured', () => {
    expect(ringingWavelength(100, 50)).toBe(2)
    expect(ringingFigures(80, 8, 3000, undefined).measured).toBe(false)
    expect(ringingFigures(80, 8, 3000, 55)).toMatchObject({ measured: true, wavelengthMm: 80 / 55 })
    const of = (printer: Parameters<typeof ringingFiguresOf>[3]) => ringingFiguresOf(80, 8, 3000, printer, medians.finish).amplitudeMm
    // The softer axis swings more, and shaping leaves little of it.
    expect(of({ frameFrequency: 55, frameFrequencyY: 35 })).toBe(of({ frameFrequency: 35 }))
    expect(of({ frameFrequency: 55, shaping: true }) / of({ frameFrequency: 55 })).toBeCloseTo(medians.finish.shaped, 9)
    // Tuned to the frame it leaves what it always does; of another frequency, |cos(π/2 · f/f₀)| beside it (Singer & Seering 1990, from memory).
    const left = (shapedAt: number, shapedAtY?: number, frameFrequencyY?: number) =>
      of({ frameFrequency: 55, frameFrequencyY, shaping: true, shapedAt, shapedAtY }) / of({ frameFrequency: 55, frameFrequencyY })
    expect(left(55)).toBeCloseTo(medians.finish.shaped, 9)
    expect(left(50)).toBeCloseTo(Math.hypot(medians.finish.shaped, Math.cos((Math.PI / 2) * 1.1)), 9)
    expect(left(20)).toBeGreaterThan(left(45))
    expect(left(27.5)).toBe(1)
    // The softer axis has a shaping of its own.
    expect(left(55, 40, 40)).toBeCloseTo(medians.finish.shaped, 9)
    expect(left(55, undefined, 40)).toBeGreaterThan(0.4)
    expect(ringingFigures(80, 8, 6000, 55).amplitudeMm).toBeGreaterThan(ringingFigures(80, 8, 3000, 55).amplitudeMm)
  })
})

describe('gloss', () => {
  it('falls with the melt load, and turns near 0.3', () => {
    expect(glossAt(0)).toBe(1)
    expect(glossAt(1)).toBeCloseTo(0.5, 12)
    for (let load = 0.05; load < 1.2; load += 0.05) expect(glossAt(load + 0.05)).toBeLessThan(glossAt(load))
  })
})
