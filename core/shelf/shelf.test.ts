import { describe, expect, it } from 'vitest'
import { setupOf } from '../testing/setups'
import { misfit, wearOf } from './nozzle'
import { limitChanges, readLimits, withLimits } from './readLimits'
import { daysSinceDrying, isLikelyWet, learnedReel, materialOf, remainingOf, type Spool, spoolToUseUp, stockOf, sufficiency } from './spool'

const spool = (change: Partial<Spool> = {}): Spool => ({
  key: 'reel',
  name: 'Reel',
  material: 'pla',
  maker: 'Ebbwick',
  netG: 1000,
  weighings: [],
  dried: [],
  defaults: {},
  ...change,
})
const weighing = (grossG: number, on = '2026-11-01') => ({ on, grossG })

describe('what is left on a spool', () => {
  it('is gross less reel; an empty 1 kg reel weighs about 200–250 g, a full one about 1.2 kg (CP-A1, common practice)', () => {
    const full = remainingOf(spool({ weighings: [weighing(1225)] }), [], 1.24, 1.75)
    expect(full.grams).toBeCloseTo(1000, 0)
    expect(full.doubtG).toBeGreaterThanOrEqual(25)
    expect(full.from).toBe('weighed, reel assumed')
  })

  it('of a kilogram of 1.75 mm PLA is about 335 m (CP-A2, common practice)', () => {
    expect(remainingOf(spool(), [], 1.24, 1.75)).toMatchObject({ grams: 1000, from: 'label' })
    expect(remainingOf(spool(), [], 1.24, 1.75).metres).toBeCloseTo(335, 0)
  })

  it('is known better once a reel of the same maker was emptied', () => {
    const emptied = spool({ key: 'old', empty: true, weighings: [weighing(400), weighing(210)] })
    const other = spool({ key: 'else', maker: 'Sallowmere', empty: true, weighings: [weighing(300)] })
    const own = spool({ weighings: [weighing(700), weighing(610)] })
    expect(learnedReel('Ebbwick', [emptied, other, own])).toBe(210)
    expect(remainingOf(own, [emptied, other, own], 1.24, 1.75)).toMatchObject({ grams: 400, from: 'weighed' })
    expect(remainingOf(own, [emptied, other, own], 1.24, 1.75).doubtG).toBeLessThan(5)
    expect(learnedReel(undefined, [emptied])).toBeUndefined()
    expect(remainingOf(emptied, [emptied], 1.24, 1.75).grams).toBe(0)
  })

  it('is enough, perhaps enough, or short, with its doubt', () => {
    expect([350, 395, 410].map((needed) => sufficiency({ grams: 400, doubtG: 8 }, needed))).toEqual(['enough', 'perhaps', 'short'])
  })

  it('names the one to use up: the least that is surely enough', () => {
    const left = (grams: number) => ({ remaining: { grams, doubtG: 5, metres: 0, from: 'weighed' as const } })
    const [a, b, c] = [left(40), left(120), left(800)]
    expect(spoolToUseUp([c, b, a], 60)).toBe(b)
    expect(spoolToUseUp([a, b, c], 36)).toBe(b)
    expect(spoolToUseUp([a, b], 500)).toBeUndefined()
  })
})

describe('dryness', () => {
  it('counts days since the last drying, and depends on how fast the material takes up water', () => {
    const dried = spool({ dried: ['2026-11-10', '2026-09-01'] })
    expect(daysSinceDrying(dried, '2026-11-25')).toBe(15)
    expect(isLikelyWet(dried, { moisture: 'fast' }, '2026-11-25')).toBe(true)
    expect(isLikelyWet(dried, { moisture: 'slow' }, '2026-11-25')).toBe(false)
    expect(isLikelyWet(spool(), { moisture: 'slow' }, '2026-11-25')).toBe(true)
  })
})

describe('a spool in a setup', () => {
  it('puts its label, price and ladder in the place of the material’s', () => {
    const { material } = setupOf()
    const own = materialOf(material, spool({ netG: 500, price: 15, nozzleRange: [195, 215], ladder: [{ temperature: 200, flow: 15 }] }))
    expect(own).toMatchObject({ pricePerKg: 30, nozzleRange: [195, 215], bedRange: material.bedRange, ladder: [{ flow: 15 }] })
    expect(materialOf(material, undefined)).toBe(material)
  })

  it('knows its fellows of the same material that are not used up', () => {
    const all = [spool(), spool({ key: 'b' }), spool({ key: 'c', empty: true }), spool({ key: 'd', material: 'petg' })]
    expect(stockOf(all[0]!, all, setupOf().material, 1.75, '2026-11-25').others.map(({ key }) => key)).toEqual(['b'])
  })
})

describe('nozzles', () => {
  it('fit by inlet and thread, as far as these are told', () => {
    const { nozzle, printer } = setupOf()
    expect(misfit(nozzle, printer)).toBeUndefined()
    expect(misfit({ ...nozzle, inlet: 2.85 }, printer)).toMatch(/2\.85 mm/)
    expect(misfit({ ...nozzle, thread: 'M6' }, { ...printer, hotEnd: { ...printer.hotEnd, thread: 'M7' } })).toMatch(/M6.*M7/)
    expect(misfit({ ...nozzle, thread: 'M6' }, printer)).toBeUndefined()
  })

  it('of brass wear far faster than hard ones (CP-N5, common practice)', () => {
    expect(wearOf({ body: 'brass', abrasiveGrams: 150 })).toBeGreaterThan(20 * wearOf({ body: 'hardenedSteel', abrasiveGrams: 150 }))
  })
})

describe('limits that a machine tells', () => {
  const { printer } = setupOf('dory')

  it('are read from its text, with the corner speed that a deviation means: √(a·J·s/(1−s)), s = sin 45°', () => {
    const told = readLimits(`echo:Maximum feedrates (units/s):
echo:  M203 X250.00 Y250.00 Z12.00 E45.00
echo:Maximum Acceleration (units/s2):
echo:  M201 X1000.00 Y900.00 Z100.00 E6000.00
echo:  M204 P1000.00 R1500.00 T1200.00
echo:  M205 B20000.00 S0.00 T0.00 J0.02 ; corners`)
    expect(told).toMatchObject({
      limits: {
        speed: { x: 250, y: 250, z: 12 },
        acceleration: { x: 1000, y: 900, z: 100 },
        extruderSpeed: 45,
        extruderAcceleration: 6000,
      },
      cornerSchool: 'deviation',
      defaults: { acceleration: 1000, travelAcceleration: 1200 },
      remarks: [],
    })
    expect(told.defaults.cornerSpeed).toBeCloseTo(Math.sqrt(1000 * 0.02 * (Math.SQRT1_2 / (1 - Math.SQRT1_2))), 1)
  })

  it('may be told as instant changes, and in mm/min', () => {
    const told = readLimits('M203 X18000 Y18000 Z720 E3000\nM205 X8 Y6 Z0.4 E5')
    expect(told.limits).toMatchObject({ speed: { x: 300, y: 300, z: 12 }, extruderSpeed: 50 })
    expect(told).toMatchObject({ cornerSchool: 'instantChange', defaults: { cornerSpeed: 6 } })
    expect(told.remarks[0]).toMatch(/mm\/min/)
  })

  it('are compared with what is stored, and only they change', () => {
    const told = readLimits('M201 X900 Y800 Z100 E5000\nM205 J0.02')
    expect(limitChanges(printer, told).map(({ label, stored, told: now }) => [label, stored, now])).toEqual([
      ['Acceleration X', '800', '900'],
      ['Corners', 'instantChange', 'deviation'],
      ['Corner speed', '8', '6.6'],
    ])
    const next = withLimits(printer, told)
    expect(next.limits.acceleration).toEqual({ x: 900, y: 800, z: 100 })
    expect(next.limits.speed).toEqual(printer.limits.speed)
    expect(next.defaults.retractLength).toBe(printer.defaults.retractLength)
  })

  it('are read for what they hold, whatever stands around them or is cut off, and what is skipped is told', () => {
    const told = readLimits('; copied at noon\r\n  m201x1500 Y 1400 ;Z9\r\necho:  M92 X80 Y80 Z400 E93\nM301 P22.2\nM2035 X1\nM203 X250 Y2')
    expect(told.limits).toMatchObject({ acceleration: { x: 1500, y: 1400 }, speed: { x: 250, y: 2 } })
    expect(told.limits.acceleration.z).toBeUndefined()
    expect(told.remarks.join()).toMatch(/Passed over: M92 X80.*M301 P22\.2.*M2035 X1/)
    // Cut off in the middle of a word: a letter without its number says nothing.
    expect(readLimits('M205 X8 Y').defaults.cornerSpeed).toBe(8)
    // Shaping of both axes, or line by line, and what is fed ahead; 0 says that neither is done.
    expect(readLimits('M593 F45.5 D0.10\nM900 K0.08').record).toEqual({ shaping: true, shapedAt: 45.5, pressureAdvance: 0.08 })
    expect(readLimits('echo: M593 X F52 D0.1\necho: M593 Y F40.25').record).toEqual({ shaping: true, shapedAt: 52, shapedAtY: 40.25 })
    expect(readLimits('M593 F0\nM900 T0 K0').record).toEqual({ shaping: false, pressureAdvance: 0 })
    expect(readLimits('shaper_freq_x: 51.2\nshaping_frequency_y = 38\npressure_advance: 0.042').record).toEqual({
      shaping: true,
      shapedAt: 51.2,
      shapedAtY: 38,
      pressureAdvance: 0.042,
    })
    const shaped = withLimits(printer, readLimits('M593 F45\nM900 K0'))
    expect(shaped).toMatchObject({ shaping: true, shapedAt: 45, pressureAdvance: 0 })
    expect(limitChanges(printer, readLimits('M593 F45\nM900 K0')).map(({ label }) => label)).toEqual([
      'Input shaping',
      'Shaped at, along X',
      'Feeds ahead by',
    ])
  })

  it('say so when there are none', () => {
    expect(readLimits('ok\nok').remarks[0]).toMatch(/no line/)
    expect(limitChanges(printer, readLimits('ok'))).toEqual([])
    expect(readLimits('M205 J0.01').remarks[0]).toMatch(/acceleration/)
  })
})
