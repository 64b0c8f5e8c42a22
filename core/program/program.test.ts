import { demoParts } from '@sable/demo/scenario'
import { describe, expect, it } from 'vitest'
import { type Placement, place } from '../mesh/place'
import { planMotion } from '../motion/planMotion'
import { predict } from '../pipeline/predict'
import type { Override } from '../profile/overrides'
import type { SettingValues } from '../profile/settings'
import { hostilePrograms } from '../testing/hostileFiles'
import { testKernel } from '../testing/kernel'
import { layOut } from '../testing/layOut'
import { setupOf } from '../testing/setups'
import { blockMesh, partOf } from '../testing/solids'
import { laidVolume } from '../toolpath/laidVolume'
import { InputError } from '../units/errors'
import { filamentLength } from '../units/flow'
import { programFor } from './programFor'
import { type ProgramFigures, type ProgramOptions, ProgramTimer } from './timeProgram'
import { programText } from './writeProgram'

const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text)

function timed(text: string, printer = setupOf().printer, options: ProgramOptions = {}, piece = 1 << 16): ProgramFigures {
  const timer = new ProgramTimer(printer, options)
  const bytes = bytesOf(text)
  for (let at = 0; at < bytes.length; at += piece) timer.push(bytes.subarray(at, at + piece))
  return timer.finish()
}

async function written(key: string, values: SettingValues = {}, filament: 'relative' | 'absolute' = 'relative', setup = setupOf()) {
  const laid = await layOut(place(demoParts.find((part) => part.key === key)!.make()), { skirtLines: 1, ...values })
  const motion = planMotion(laid.path, () => laid.settings, setup.printer)
  const timeS = motion.layerTime.reduce((sum, time) => sum + time, 0)
  const lengthMm = filamentLength(laidVolume(laid.path).total, setup.printer.filamentDiameter)
  const figures = { timeS, massG: 1, lengthMm }
  const text = programText({ partName: key, path: laid.path, motion, settingsOf: () => laid.settings, setup, figures, filament })
  return { ...laid, motion, timeS, lengthMm, text }
}

describe('programs that are written', () => {
  it.each([
    ['carry-hook', {}, 'relative'],
    ['carry-hook', { wipeLength: 2, coastLength: 0.4, lift: 'always', minLayerTime: 15, fanSpeed: 40 }, 'absolute'],
    ['battery-tray', { outerWallSpeed: 200, innerWallSpeed: 300, acceleration: 3000, infillPattern: 'triangles' }, 'relative'],
    ['finial', { spiralWall: 'on', outerWallSpeed: 60 }, 'relative'],
    ['finial', { supports: 'plain', brim: 'outer', layerTimeWalls: 'allButOuter' }, 'absolute'],
  ] as const)('read back take the same time within 2 parts of 1000, and the same filament within 1: %s %j %s', async (key, values, filament) => {
    const { text, timeS, lengthMm } = await written(key, values, filament)
    const read = timed(text)
    expect(Math.abs(read.timeS / timeS - 1)).toBeLessThan(0.002)
    expect(Math.abs(read.filament.lengthMm / lengthMm - 1)).toBeLessThan(0.001)
    expect(read.unknown).toEqual({})
  })

  it.each([
    ['battery-tray', {}],
    ['finial', {}],
    ['finial', { spiralWall: 'on' }],
  ] as const)('write curves as arcs where the printer takes them: far fewer lines, the same time, filament and places: %s %j', async (key, values) => {
    const arcs = { ...setupOf(), printer: { ...setupOf().printer, arcs: true } }
    const [plain, curved] = [await written(key, values), await written(key, values, 'relative', arcs)]
    const [lines, fewer] = [plain, curved].map(({ text }) => text.split('\n').length)
    expect(plain.text).not.toMatch(/^G[23] /m)
    expect(curved.text).toMatch(/^G3 .*I.*J/m)
    if (key === 'finial') expect(fewer!).toBeLessThan(0.5 * lines!)
    const [a, b] = [timed(plain.text), timed(curved.text)]
    expect(Math.abs(b.timeS / a.timeS - 1)).toBeLessThan(0.005)
    expect(Math.abs(b.filament.lengthMm / a.filament.lengthMm - 1)).toBeLessThan(0.001)
    expect(b.layerCount).toBe(a.layerCount)
  })

  it('heat otherwise from the layer on where an override says so, once, and back where it ends', async () => {
    const part = partOf('post', blockMesh(10, 10, 6))
    const overrides = [{ name: 'hot belt', fromZ: 2, toZ: 4, values: { nozzleTemperature: 225 } }]
    const pieces: string[] = []
    const choice = { kernel: await testKernel, partName: 'post', filament: 'relative', overrides } as const
    programFor(part, { scale: 1, rotateDeg: [0, 0, 0] }, setupOf(), { nozzleTemperature: 205 }, choice, (text) => pieces.push(text))
    const lines = pieces.join('').split('\n')
    const heats = lines.flatMap((line, i) =>
      line.startsWith('M104') && !line.startsWith('M104 S0') ? [[line.split(' ')[1], i] as const] : [],
    )
    expect(heats.map(([heat]) => heat)).toEqual(['S205', 'S225', 'S205'])
    const layerOf = (at: number) =>
      Number(
        lines
          .slice(0, at)
          .findLast((line) => /layer/i.test(line) && / of /.test(line))
          ?.match(/(\d+) of/)?.[1],
      )
    // Layers of 0.2 mm: the eleventh lies from 2.0 to 2.2 mm.
    expect(layerOf(heats[1]![1])).toBeGreaterThanOrEqual(10)
    expect(layerOf(heats[1]![1])).toBeLessThanOrEqual(11)
  })

  it('begin with the heat of the first layer, whoever asks for it, and wait for a change where that is asked', async () => {
    const part = partOf('post', blockMesh(10, 10, 6))
    const kernel = await testKernel
    const heatsOf = (values: SettingValues, overrides: readonly Override[] = []): string[] => {
      const pieces: string[] = []
      const choice = { kernel, partName: 'post', filament: 'relative', overrides } as const
      programFor(part, { scale: 1, rotateDeg: [0, 0, 0] }, setupOf(), values, choice, (text) => pieces.push(text))
      return pieces
        .join('')
        .split('\n')
        .flatMap((line) => /^M1(?:04|09|40|90) S[1-9]\d*/.exec(line)?.[0] ?? [])
    }
    const start = (nozzle: number, bed: number): string[] => [`M140 S${bed}`, `M104 S${nozzle}`, `M190 S${bed}`, `M109 S${nozzle}`]
    const own = { nozzleTemperature: 205, bedTemperature: 60 }
    expect(heatsOf(own)).toEqual(start(205, 60))
    expect(heatsOf({ ...own, firstLayerNozzle: 215, firstLayerBed: 65 })).toEqual([...start(215, 65), 'M104 S205', 'M140 S60'])
    const hotFoot = [{ name: 'hot foot', fromZ: 0, toZ: 1, values: { nozzleTemperature: 225 } }]
    expect(heatsOf(own, hotFoot)).toEqual([...start(225, 60), 'M104 S205'])
    expect(heatsOf({ ...own, heatChange: 'wait' }, hotFoot)).toEqual([...start(225, 60), 'M109 S205'])
  })

  it('for a tilted belt say so, never go below the belt, and read back take the same time', async () => {
    const kernel = await testKernel
    const setup = setupOf('towline')
    const part = partOf('beam', blockMesh(20, 60, 10))
    const placement: Placement = { scale: 1, rotateDeg: [0, 0, 0] }
    const values = { copies: 2, copyOrder: 'oneAtATime', copyGap: 4 } as const
    const pieces: string[] = []
    programFor(part, placement, setup, values, { kernel, partName: 'beam', filament: 'relative' }, (text) => pieces.push(text))
    const text = pieces.join('')
    expect(text).toMatch(/keep fingers, hair and cables away/)
    const numbers = (axis: string) => [...text.matchAll(new RegExp(`^G[01] .*${axis}(-?[\\d.]+)`, 'gm'))].map(([, n]) => Number(n))
    expect(Math.min(...numbers('Y'))).toBeGreaterThan(0)
    expect(Math.max(...numbers('Y'))).toBeLessThan(10 / Math.sin(Math.PI / 4))
    // Two beams of 60 mm, each leaning 10 mm ahead, and the gap between them.
    expect(Math.max(...numbers('Z').slice(0, -1))).toBeCloseTo(2 * (60 + 10) + 4, 0)
    const predicted = predict(part, placement, setup, values, { kernel })
    expect(Math.abs(timed(text, setup.printer).timeS / predicted.timeS - 1)).toBeLessThan(0.002)
  })

  it('name their features and layers, and explain themselves before the first motion', async () => {
    const { text, layers } = await written('carry-hook', {})
    const read = timed(text)
    expect(read.layerCount).toBe(layers.top.length)
    expect(Object.keys(read.timeByFeatureS)).toEqual(expect.arrayContaining(['outerWall', 'innerWall', 'topBottom', 'infill', 'travel']))
    const head = text.slice(0, text.indexOf('G28'))
    for (const word of ['LOOK BEFORE RUNNING', 'layerHeight = 0.2 mm', 'speed X 300', 'predicted', 'M109 S210', 'M190 S60'])
      expect(head).toContain(word)
    expect(head.split('\n').filter((line) => /^G[01] /.test(line))).toEqual([])
    expect(text.trimEnd().endsWith('the nozzle is still hot')).toBe(true)
    // A hot nozzle does not stay over the part.
    expect(text).toMatch(/G0 Z14[^0-9][\s\S]*G0 X0 Y250/)
    expect(text).toMatch(/M104 S0[\s\S]*M140 S0/)
  })

  it('stepped through in small steps of time by something that knows no planning, take as long within 0.5 %', async () => {
    const { text } = await written('carry-hook', { minLayerTime: 0 })
    const some = text.split('\n').slice(0, 2600).join('\n')
    expect(Math.abs(simulate(some, setupOf().printer) / timed(some).timeS - 1)).toBeLessThan(0.005)
  })
})

describe('programs that are read', () => {
  const line = (program: string) => timed(program, setupOf('cutter').printer)

  it('may be in inches or millimetres, absolute or relative', () => {
    const mm = line('G21\nG90\nG1 X25.4 F3000\nG1 Y25.4').timeS
    expect(line('G20\nG90\nG1 X1 F118.1102362\nG1 Y1').timeS).toBeCloseTo(mm, 4)
    expect(line('G21\nG91\nG1 X25.4 F3000\nG1 Y25.4').timeS).toBeCloseTo(mm, 9)
    expect(line('n1 g21*34\r\nN2 G1X25.4F3000*5\r\nG1 Y25.4\r\n').timeS).toBeCloseTo(mm, 9)
  })

  it('run arcs of full length, either way round, by centre or by radius', () => {
    const slow = (program: string) => line(`G1 F60\n${program}`).timeS
    const quarter = (10 * Math.PI) / 2
    expect(slow('G1 X10\nG3 X0 Y10 I-10 J0') - slow('G1 X10')).toBeCloseTo(quarter, 1)
    expect(slow('G1 X10\nG2 X0 Y10 I-10 J0') - slow('G1 X10')).toBeCloseTo(3 * quarter, 1)
    expect(slow('G1 X10\nG3 X0 Y10 R10') - slow('G1 X10')).toBeCloseTo(quarter, 1)
    expect(slow('G1 X10\nG3 X0 Y10 R-10') - slow('G1 X10')).toBeCloseTo(3 * quarter, 1)
    expect(slow('G1 X10\nG3 I-10 J0') - slow('G1 X10')).toBeCloseTo(4 * quarter, 1)
  })

  it('mind G92, both filament modes, and overrides of speed and flow', () => {
    expect(line('M82\nG1 X10 E1 F600\nG92 E0\nG1 X20 E1').filament.lengthMm).toBeCloseTo(2, 9)
    expect(line('M83\nG1 X10 E1 F600\nG1 X20 E1').filament.lengthMm).toBeCloseTo(2, 9)
    expect(line('M83\nM221 S50\nG1 X10 E1 F600').filament.lengthMm).toBeCloseTo(0.5, 9)
    expect(line('G92 X5\nG1 X15 F600').timeS).toBeCloseTo(line('G1 X10 F600').timeS, 9)
    expect(line('M220 S50\nG1 X100 F6000').timeS).toBeCloseTo(line('G1 X100 F3000').timeS, 9)
    expect(line('G1 X10 F600\nG4 P1500\nG4 S2').timeS).toBeCloseTo(line('G1 X10 F600').timeS + 3.5, 6)
  })

  it('tell temperatures, and count what is not understood without stopping', () => {
    const read = line('M104 S215\nM190 R60\nG1 X10 F600\nM999 P1\nG77\nG77\nMACRO_CALL A=1\nT2\nG1 X20')
    expect([read.nozzleTemperature, read.bedTemperature]).toEqual([215, 60])
    expect(read.unknown).toEqual({ G77: 2, M999: 1, MACRO_CALL: 1, T2: 1 })
    expect(read.timeS).toBeGreaterThan(1.9)
  })

  it('take features from comments by a pattern that the user may change, else from the motion', () => {
    const program = 'M83\n;section=shell-deep\nG1 X10 E1 F600\nG0 X0\nG1 E-2 F1800'
    expect(Object.keys(line(program).timeByFeatureS).sort()).toEqual(['laying', 'retraction', 'travel'])
    const own = timed(program, setupOf('cutter').printer, { featurePattern: 'section=(.*)' })
    expect(Object.keys(own.timeByFeatureS).sort()).toEqual(['retraction', 'shell-deep', 'travel'])
  })

  it('come out alike however they are cut into pieces', () => {
    const program = `M83\n${Array.from({ length: 300 }, (_, i) => `G1 X${i % 7} Y${(i * 3) % 11} E0.1 F${3000 + i}`).join('\n')}`
    const whole = timed(program)
    for (const piece of [1, 2, 7, 64]) expect(timed(program, setupOf().printer, {}, piece)).toEqual(whole)
  })

  it('take longer on a machine of 800 than on one of 3000 mm/s² (CP-T5, common practice)', async () => {
    const { text } = await written('battery-tray', { outerWallSpeed: 150, innerWallSpeed: 200, infillSpeed: 200 })
    const free = text.replace(/^M204.*$/gm, '')
    const [slow, fast] = [timed(free, setupOf('dory').printer), timed(free, setupOf('lugger').printer)]
    expect(slow.timeS).toBeGreaterThan(1.15 * fast.timeS)
    expect(slow.limiters.acceleration).toBeGreaterThan(fast.limiters.acceleration)
  })

  it('are read with half a line in them, and refused where nothing is a program', () => {
    expect(timed('G1 X1e5 F-3 Y..2').timeS).toBeGreaterThanOrEqual(0)
    expect(() => timed('')).toThrow(/Nothing in the file moves a machine/)
    expect(() => timed('hello world, this is no program\n')).toThrow(/Nothing in the file moves a machine/)
    expect(() => timed(`G1 X5 F600\n${'Gather ye rosebuds while ye may\n'.repeat(200)}`)).toThrow(/Hardly a word/)
    expect(() => timed('G1 X1\n\u0000\u0001')).toThrow(/no text/)
  })

  it.each(hostilePrograms)('are refused with their line when they are $what', ({ make }) => {
    const timer = new ProgramTimer(setupOf().printer)
    const bytes = make()
    const run = (): void => {
      for (let at = 0; at < bytes.length; at += 1 << 20) timer.push(bytes.subarray(at, at + (1 << 20)))
      timer.finish()
    }
    expect(run).toThrow(InputError)
    expect(run).toThrow(expect.objectContaining({ where: expect.stringMatching(/^line [\d,]+$/) }))
  })
})

/**
 * Steps a machine through a program in small steps of time: it speeds up whenever it could still brake for every corner
 * ahead. Reads the few words that our programs hold by itself and knows nothing of passes or trapezoids.
 */
function simulate(program: string, printer: ReturnType<typeof setupOf>['printer']): number {
  const { limits } = printer
  const own = Number(/@ corner-speed (\S+)/.exec(program)?.[1])
  type Move = { u: number[]; length: number; speed: number; a: number; alone: boolean }
  const moves: Move[] = []
  let at = [0, 0, 0]
  let [feed, a] = [0, 3000]
  for (const text of program.split('\n')) {
    const code = text.replace(/;.*/, '').trim()
    const word = (letter: string): number | undefined => {
      const found = new RegExp(`${letter}(-?[\\d.]+)`).exec(code)
      return found ? Number(found[1]) : undefined
    }
    if (code.startsWith('M204')) a = word('S') ?? a
    if (!/^G[01] /.test(code)) continue
    feed = (word('F') ?? feed * 60) / 60
    const to = [word('X') ?? at[0]!, word('Y') ?? at[1]!, word('Z') ?? at[2]!]
    const d = to.map((value, k) => value - at[k]!)
    at = to
    const length = Math.hypot(...d)
    const e = word('E') ?? 0
    if (length < 1e-9) {
      if (e !== 0)
        moves.push({
          u: [0, 0, 0],
          length: Math.abs(e),
          speed: Math.min(feed, limits.extruderSpeed),
          a: limits.extruderAcceleration,
          alone: true,
        })
      continue
    }
    const u = d.map((value) => value / length)
    const axes = ['x', 'y', 'z'] as const
    let speed = Math.min(feed, ...axes.map((k, i) => limits.speed[k] / Math.abs(u[i]!)))
    let most = Math.min(a, ...axes.map((k, i) => limits.acceleration[k] / Math.abs(u[i]!)))
    if (e !== 0) {
      speed = Math.min(speed, limits.extruderSpeed / (Math.abs(e) / length))
      most = Math.min(most, limits.extruderAcceleration / (Math.abs(e) / length))
    }
    moves.push({ u, length, speed, a: most, alone: false })
  }
  // Largest speed at the end of each move, from its corner.
  const corner = moves.map((move, i) => {
    const next = moves[i + 1]
    if (!next || move.alone || next.alone) return 0
    const cos = move.u.reduce((sum, u, k) => sum + u * next.u[k]!, 0)
    if (cos >= 1) return Infinity
    if (cos <= -1 + 1e-12) return 0
    const sin = Math.sqrt((1 + cos) / 2)
    const byDeviation = (own * own * (Math.SQRT2 - 1) * sin) / (1 - sin)
    return Math.sqrt(Math.min(byDeviation, (0.5 * Math.min(move.a * move.length, next.a * next.length) * sin) / Math.sqrt((1 - cos) / 2)))
  })
  const dt = 2e-5
  let [time, v] = [0, 0]
  for (const [i, move] of moves.entries()) {
    let left = move.length
    while (left > 1e-7) {
      // What may still be braked from: every end of a move ahead, as far as braking could reach.
      let most = move.speed
      let way = left
      let squared = 0
      for (let k = i; k < moves.length && squared < move.speed ** 2; k++) {
        if (k > i) {
          most = Math.min(most, Math.sqrt(moves[k]!.speed ** 2 + squared))
          way = moves[k]!.length
        }
        squared += 2 * moves[k]!.a * way
        most = Math.min(most, Math.sqrt(Math.min(corner[k]!, moves[k + 1]?.speed ?? 0) ** 2 + squared))
      }
      v = Math.min(v + move.a * dt, most)
      const step = Math.max(v, 0.5 * move.a * dt) * dt
      time += step >= left ? dt * (left / step) : dt
      left -= step
    }
  }
  return time
}
