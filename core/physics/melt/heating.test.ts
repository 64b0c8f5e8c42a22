import { describe, expect, it } from 'vitest'
import { medians, withValue } from '../../constants/constants'
import { settingsOf, setupOf } from '../../testing/setups'
import { diffusivity, flowModel, throughLadder } from './flowLimit'
import { fourierFor, leftAtCentre, leftOnAverage, zerosOfJ0 } from './heating'

describe('a plug heated through its wall (Carslaw & Jaeger 1959; values from memory)', () => {
  it('uses the zeros of J0 (Abramowitz & Stegun, table 9.5, from memory)', () => {
    for (const [i, zero] of [2.404825558, 5.52007811, 8.653727913, 11.791534439].entries()) expect(zerosOfJ0[i]).toBeCloseTo(zero, 8)
  })

  it('has 0.50149 of the difference left at its centre at Fo = 0.2, and 0.21785 on average', () => {
    expect(leftAtCentre(0.2)).toBeCloseTo(0.50149, 5)
    expect(leftOnAverage(0.2)).toBeCloseTo(0.21785, 5)
  })

  it('begins cold throughout and ends warm throughout', () => {
    expect(leftAtCentre(0.001)).toBeCloseTo(1, 3)
    // For short times the mean falls as 1 − 4·√(Fo/π) + Fo (the same text).
    expect(leftOnAverage(0.002)).toBeCloseTo(1 - 4 * Math.sqrt(0.002 / Math.PI) + 0.002, 3)
    expect(leftAtCentre(3)).toBeLessThan(1e-6)
    for (const left of [0.9, 0.5, 0.1]) expect(leftAtCentre(fourierFor(left))).toBeCloseTo(left, 9)
  })

  it('knows the diffusivity of PLA: about 0.058 mm²/s', () => expect(diffusivity(setupOf().material)).toBeCloseTo(0.058, 3))
})

describe('flow at which a hot end fails', () => {
  const at = (temperature: number, setup = setupOf()) => flowModel(setup, temperature, medians).failsAt

  it('rises by a quarter to a half for 10 °C (CP-F6 says a third or more; common practice)', () => {
    expect(at(215) / at(205)).toBeGreaterThan(1.25)
    expect(at(215) / at(205)).toBeLessThan(1.5)
  })

  it('is never lower when hotter', () => {
    for (let t = 185; t < 260; t += 3) expect(at(t + 3)).toBeGreaterThan(at(t))
  })

  it('is lower with hardened steel and higher with plated copper, carbide being about brass (CP-N6, common practice)', () => {
    const with_ = (body: 'hardenedSteel' | 'platedCopper' | 'tungstenCarbide') =>
      at(210, { ...setupOf(), nozzle: { ...setupOf().nozzle, body } })
    expect(with_('hardenedSteel')).toBeLessThan(at(210))
    expect(with_('platedCopper')).toBeGreaterThan(at(210))
    expect(with_('tungstenCarbide')).toBe(at(210))
  })

  it('hardly depends on the bore (CP-F5) and grows with the melt zone (CP-N7, common practice)', () => {
    for (const bore of ['bore-0.6', 'bore-0.8']) {
      expect(at(210, setupOf('lugger', bore))).toBeGreaterThanOrEqual(at(210))
      expect(at(210, setupOf('lugger', bore))).toBeLessThan(1.25 * at(210))
    }
    // A 0.25 mm bore fails several times sooner (from memory).
    expect(at(210) / at(210, setupOf('lugger', 'bore-0.25'))).toBeGreaterThan(2)
    expect(at(210, setupOf('cutter'))).not.toBeLessThan(at(210, setupOf('dory')))
  })

  it('is what the user has measured where there is a ladder, one bad point moving little', () => {
    const ladder = [
      { temperature: 200, flow: 12 },
      { temperature: 210, flow: 12 * 1.25 },
      { temperature: 220, flow: 12 * 1.25 ** 2 },
      { temperature: 230, flow: 12 * 1.25 ** 3 },
    ]
    const material = { ...setupOf().material, ladder }
    expect(flowModel({ ...setupOf(), material }, 215, medians)).toEqual({ failsAt: expect.closeTo(12 * 1.25 ** 1.5, 9), basis: 'measured' })
    expect(throughLadder([...ladder, { temperature: 225, flow: 40 }], 215, 0.26) / (12 * 1.25 ** 1.5)).toBeCloseTo(1, 1)
    // One point has the slope of its kind: 10 °C bring a third or so (CP-F6, common practice).
    expect(throughLadder([{ temperature: 210, flow: 15 }], 220, 0.26)).toBeCloseTo(15 * Math.exp(0.26), 9)
  })

  it('belongs to a temperature wherever it is asked for: 0.85 of 23.5 and 29.5 mm³/s', () => {
    const ladder = [
      { temperature: 220, flow: 23.5 },
      { temperature: 230, flow: 29.5 },
    ]
    const setup = { ...setupOf(), material: { ...setupOf().material, ladder } }
    const asked = (nozzleTemperature: number) => settingsOf({ nozzleTemperature }, setup).flowLimit
    expect(asked(220)).toBeCloseTo(20, 1)
    expect(asked(230)).toBeCloseTo(25.1, 1)
    expect(asked(210)).toBeLessThan(asked(220))
    expect(asked(240)).toBeGreaterThan(asked(230))
    // Far beyond the hottest point no more than what is assumed of heating.
    expect(asked(280) / asked(230)).toBeLessThan(Math.exp(5 * Math.log(29.5 / 23.5)))
    // What the profile says itself stays.
    expect(settingsOf({ nozzleTemperature: 230, flowLimit: 11 }, setup).flowLimit).toBe(11)
  })

  it('never passes what heating alone or pushing alone would let through, however hot', () => {
    const free = (id: 'melt.heatingReserve' | 'melt.activation', value: number, t: number) =>
      flowModel(setupOf(), t, withValue(medians, id, value)).failsAt
    for (let t = 190; t <= 280; t += 10) {
      // Without limit by heating; pushing grows as Arrhenius says.
      expect(at(t)).toBeLessThan(1.2 * free('melt.heatingReserve', 50, t))
    }
    // 2.5 times mid-label at 260 °C once; heating alone allows 1.43 times, and here a quarter more than pushing at mid-label.
    expect(at(260) / at(205)).toBeLessThan(1.43 * 1.25 * 1.1)
  })
})
