import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { writeProfileFile } from '@sable/core/formats/profileFile'
import { writeStl } from '@sable/core/formats/writeStl'
import { limiters } from '@sable/core/motion/limiters'
import { smallHostileModels } from '@sable/core/testing/hostileFiles'
import { blockMesh } from '@sable/core/testing/solids'
import { carryHook } from '@sable/demo/parts/carryHook'
import { servePrinter } from '@sable/standins/printer/serve'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { sable } from './testing'

const root = join(import.meta.dirname, '..')
let folder: string
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'sable-cli-'))
  writeFileSync(join(folder, 'hook.stl'), writeStl(carryHook()))
  writeFileSync(join(folder, 'cube.stl'), writeStl(blockMesh(20, 20, 20)))
  writeFileSync(join(folder, 'A.json'), writeProfileFile({ name: 'thin', settings: { layerHeight: 0.12 } }))
  writeFileSync(
    join(folder, 'B.json'),
    writeProfileFile({ name: 'thick', settings: { layerHeight: 0.28 }, printer: 'cutter', nozzle: 0.6, material: 'petg' }),
  )
  writeFileSync(join(folder, 'zero.stl'), smallHostileModels.find(({ fileName }) => fileName === 'zero.stl')!.make())
  writeFileSync(join(folder, 'poem.txt'), 'Gather ye rosebuds while ye may, old time is still a-flying.\n'.repeat(40))
  const profile = { format: 'sable-lantern/profile', version: 1 }
  writeFileSync(join(folder, 'noNozzle.json'), JSON.stringify({ ...profile, nozzle: 'nonsense' }))
  writeFileSync(join(folder, 'noKey.json'), JSON.stringify({ ...profile, nozle: 0.4 }))
  writeFileSync(join(folder, 'noSetting.json'), JSON.stringify({ ...profile, settings: { layerHigth: 0.2 } }))
  writeFileSync(join(folder, 'hard.json'), JSON.stringify({ ...profile, nozzle: 'hard-0.4' }))
  writeFileSync(join(folder, 'old.json'), '{"format":"sable-lantern/profile","version":0}')
})
afterAll(() => rmSync(folder, { recursive: true }))

describe('sable predict', () => {
  it('prints one documented object', async () => {
    const { status, json } = await sable('predict', join(folder, 'hook.stl'), '--set', 'wallCount=4', '--json')
    expect(status).toBe(0)
    const p = json()
    expect(p.timeS).toBeGreaterThan(60)
    expect(Object.values(p.timeByFeatureS as Record<string, number>).reduce((sum, t) => sum + t, 0)).toBeCloseTo(p.timeS, 1)
    expect(p.layerCount).toBe(45)
    expect(p.filament).toEqual(
      expect.objectContaining({
        lengthMm: expect.any(Number),
        volumeMm3: expect.any(Number),
        massG: expect.any(Number),
        cost: expect.any(Number),
      }),
    )
    const roughness = { raMeanUm: expect.any(Number), ra95Um: expect.any(Number) }
    expect(p.surface).toMatchObject({ ...roughness, sides: roughness, top: roughness })
    for (const load of ['pullX', 'pullY', 'pullZ', 'bendX', 'bendY', 'bendZ'])
      expect(p.strength[load]).toMatchObject({ loadN: p.strength[load].unfit ? null : expect.any(Number), basis: 'assumed' })
    expect(p.statedLoad.loadN).toBeGreaterThan(0)
    expect(Object.keys(p.limiters)).toEqual([...limiters])
    expect(p.mesh).toMatchObject({ triangles: 760, watertight: true, notes: [] })
    expect(p.checks).toEqual([])
    for (const figure of ['time', 'strength', 'gloss', 'cooling']) expect(p.doubts[figure]).toBeGreaterThan(0)
    expect(p.melt).toMatchObject({ failsAt: expect.any(Number), basis: 'assumed' })
    expect(p.gloss.mean).toBeLessThanOrEqual(1)
    expect(p.settings.wallCount).toBe(4)
  })

  it('fills a 20 mm cube at 100 % with 8000 mm³ within 3 %', async () => {
    const { filament } = (await sable('predict', join(folder, 'cube.stl'), '--set', 'infillDensity=100', '--json')).json()
    expect(Math.abs(filament.volumeMm3 / 8000 - 1)).toBeLessThan(0.03)
  })

  it('tells the load that is asked for, along any direction, and says what a load looks like', async () => {
    const model = join(folder, 'cube.stl')
    const { statedLoad, oblique } = (await sable('predict', model, '--load', 'pull:0,90', '--json')).json()
    expect(statedLoad).toMatchObject({ ...oblique.pull, along: '0°, 90° up', acrossLayers: true })
    const further = (await sable('predict', model, '--load', 'bend:x', '--grip', '0,100', '--json')).json()
    const usual = (await sable('predict', model, '--load', 'bend:x', '--json')).json()
    expect(further.statedLoad.loadN).toBeLessThan(usual.statedLoad.loadN)
    expect((await sable('predict', model, '--load', 'twist:x')).stderr).toContain('--load bend:x')
    expect((await sable('predict', model, '--grip', '60')).stderr).toContain('--grip 10,90')
  })

  it('reads a profile, its machine, and what the command says over it', async () => {
    const { json } = await sable(
      'predict',
      join(folder, 'cube.stl'),
      '--profile',
      join(folder, 'B.json'),
      '--set',
      'layerHeight=0,2',
      '--json',
    )
    expect(json().settings).toMatchObject({ layerHeight: 0.2, lineWidth: 0.6, nozzleTemperature: 240 })
  })

  it('takes a nozzle by its key, from the command or from the profile', async () => {
    const byKey = await sable('predict', join(folder, 'cube.stl'), '--nozzle', 'hard-0.4', '--json')
    const byProfile = await sable('predict', join(folder, 'cube.stl'), '--profile', join(folder, 'hard.json'), '--json')
    expect(byKey.status).toBe(0)
    expect(byProfile.json().melt).toEqual(byKey.json().melt)
    expect(byKey.json().melt.failsAt).not.toBe((await sable('predict', join(folder, 'cube.stl'), '--json')).json().melt.failsAt)
  })

  it('is one npm command, finds files from where it was called, and prints a table for people', () => {
    const args = ['--prefix', root, 'run', '-s', 'sable', '--', 'predict', 'cube.stl', '--rotate', '90,0,0', '--scale', '0.5']
    const { stdout, status } = spawnSync('npm', args, { cwd: folder, encoding: 'utf8' })
    expect(status).toBe(0)
    expect(stdout).toMatch(/^Time +[\d.]+ (s|min) ± \d+ %/m)
    expect(stdout).toMatch(/never a rating/)
  })
})

describe('sable compare and shelf', () => {
  it('put profiles side by side in the given order', async () => {
    const { candidates } = (
      await sable('compare', join(folder, 'hook.stl'), join(folder, 'A.json'), join(folder, 'B.json'), '--json')
    ).json()
    expect(candidates.map(({ name }: { name: string }) => name)).toEqual(['thin', 'thick'])
    expect(candidates[0].timeS).toBeGreaterThan(candidates[1].timeS)
    expect(candidates[0].surface.raMeanUm).toBeLessThan(candidates[1].surface.raMeanUm)
  })

  it('lists the starter records with their keys', async () => {
    const shelf = (await sable('shelf', '--json')).json()
    expect(shelf.printers.map(({ key }: { key: string }) => key)).toEqual(['dory', 'lugger', 'cutter', 'towline'])
    expect(shelf.materials).toHaveLength(8)
    expect((await sable('shelf')).stdout).toMatch(/wood-pla +Wood-filled PLA/)
  })
})

describe('sable trial', () => {
  it('makes a thing and its program, and tells its bands, cost and questions', async () => {
    const [stl, gcode] = [join(folder, 'tower.stl'), join(folder, 'tower.gcode')]
    const { status, json } = await sable(
      'trial',
      'temperature',
      '--from',
      '200',
      '--to',
      '210',
      '--step',
      '5',
      '--stl',
      stl,
      '--gcode',
      gcode,
      '--json',
    )
    expect(status).toBe(0)
    const made = json()
    expect(made.bands.map(({ label, fromZMm }: { label: string; fromZMm: number }) => [label, fromZMm])).toEqual([
      ['200', 0],
      ['205', 11],
      ['210', 21],
    ])
    expect(made.bands[1].settings).toEqual({ nozzleTemperature: 205 })
    expect(made.timeS).toBeGreaterThan(300)
    expect(made.questions.band[0]).toMatchObject({ id: 'seen', as: 'choice' })
    expect(readFileSync(gcode, 'utf8')).toContain('TRIAL: Temperature')
    // What was written is a model like any other, and takes as long.
    const predicted = (await sable('predict', stl, '--set', 'wallCount=2', '--json')).json()
    expect(predicted.mesh.watertight).toBe(true)
    expect(predicted.mesh.sizeMm[2]).toBeCloseTo(31, 1)
  })

  it('reads one: constants before and after, and what comes next', async () => {
    const file = join(folder, 'reading.json')
    const before = [{ on: 'ladder', temperature: 220, flow: 22 }]
    writeFileSync(file, JSON.stringify({ kind: 'flowLadder', from: 10, to: 24, step: 1, whole: { front: 10.2, back: 11.5 }, before }))
    const { status, json } = await sable('trial', 'read', file, '--json')
    expect(status).toBe(0)
    expect(json().result).toContain('Fails at 17 mm³/s')
    const [flow] = json().constants
    expect(flow).toMatchObject({ id: 'melt.ladder', unit: 'mm³/s', after: { basis: 'measured' } })
    expect(flow.after.low).toBeLessThan(flow.after.value)
    expect(flow.after.high - flow.after.low).toBeLessThan(flow.before.high - flow.before.low)
    expect(json().next).toMatchObject({ kind: 'flowLadder', values: { nozzleTemperature: 220 } })
    expect((await sable('trial', 'read', file)).stdout).toContain('Next: Flow ladder')
  })

  it.each([
    [['trial', 'towers'], 'no trial "towers"'],
    [['trial', 'temperature', '--step', '-5'], 'does not come to'],
    [['trial', 'temperature', '--bands', '200,x'], '"x" is not a number'],
    [['trial', 'flowLadder', '--printer', 'dory', '--to', '28'], '150 mm would do'],
    [['trial', 'fan', '--form', 'spiral'], 'no form "spiral"'],
    [['trial', 'read', 'nowhere.json'], 'no such file'],
  ])('%j is refused in a sentence', async (args, words) => {
    const { status, stderr } = await sable(...args)
    expect(status).toBe(1)
    expect(stderr).toContain(words)
  })

  it('a reading that is none, or above the print, is refused with its place', async () => {
    const file = join(folder, 'wrong.json')
    for (const [text, words] of [
      ['{', 'This is no JSON'],
      ['{"kind":"tower"}', 'kind'],
      ['{"kind":"flowLadder","whole":{"front":300}}', 'above the top of the print'],
      ['{"kind":"flowLadder","whole":{"side":3}}', 'Nothing asks for "side"'],
    ] as const) {
      writeFileSync(file, text)
      const { status, stderr } = await sable('trial', 'read', file)
      expect(status).toBe(1)
      expect(stderr).toContain(words)
    }
  })
})

describe('what cannot be done', () => {
  it.each([
    ['a file that is not there', ['predict', 'nowhere.stl'], /nowhere\.stl: There is no such file\./],
    ['a model that is none', ['predict', 'A.json'], /A\.json: This is a text file, but not an STL/],
    [
      'a value out of range',
      ['predict', 'cube.stl', '--set', 'layerHeight=7'],
      /layerHeight: 7 is not a possible layer height\. Give a number from 0\.02 to 1\.2 mm\./,
    ],
    ['an unknown setting', ['predict', 'cube.stl', '--set', 'perimeters=7'], /Did you mean wallCount\?/],
    ['a setting without a value', ['predict', 'cube.stl', '--set', 'wallCount'], /not of the form name=value/],
    [
      'a printer that is not on the shelf',
      ['predict', 'cube.stl', '--printer', 'ark'],
      /--printer: The shelf has no "ark"\. Known keys: dory, lugger, cutter, towline\./,
    ],
    ['a model without a solid triangle', ['predict', 'zero.stl'], /zero\.stl: All corners of the model lie in one place\. Export it again/],
    ['a program that is English', ['time', 'poem.txt'], /poem\.txt: Nothing in the file moves a machine/],
    ['a program that is a model', ['time', 'cube.stl'], /cube\.stl, line 1: The file holds bytes that are no text/],
    [
      'a nozzle that there is not',
      ['predict', 'cube.stl', '--nozzle', 'nonsense'],
      /--nozzle: The shelf has no "nonsense"\. Known keys: bore-/,
    ],
    ['a nozzle that is nearly there', ['predict', 'cube.stl', '--nozzle', 'hrd-0.4'], /Did you mean hard-0\.4/],
    ['a bore that there is not', ['predict', 'cube.stl', '--nozzle', '0.37'], /The shelf has no "0\.37 mm"/],
    ['a profile with a nozzle that there is not', ['predict', 'cube.stl', '--profile', 'noNozzle.json'], /The shelf has no "nonsense"/],
    ['a profile with a key that there is not', ['predict', 'cube.stl', '--profile', 'noKey.json'], /no "nozle"\. Did you mean nozzle\?/],
    [
      'a profile with a setting that there is not',
      ['predict', 'cube.stl', '--profile', 'noSetting.json'],
      /layerHigth.*Did you mean layerHeight/,
    ],
    [
      'a profile of another version',
      ['predict', 'cube.stl', '--profile', 'old.json'],
      /old\.json: The file is of version 0; this program reads version 1 to 2\./,
    ],
    ['no command at all', ['dance'], /unknown command/],
  ])('%s goes to stderr with a sentence and a status', async (_what, args, sentence) => {
    const { status, stdout, stderr } = await sable(...args.map((arg) => (/^[\w.]+\.(stl|json|txt)$/.test(arg) ? join(folder, arg) : arg)))
    expect(status).not.toBe(0)
    expect(stdout).toBe('')
    expect(stderr).toMatch(sentence)
    expect(stderr).not.toMatch(/\n\s+at /)
  })
})

describe('sable learn', () => {
  const learn = async (evidence: object) => {
    const path = join(folder, 'evidence.json')
    writeFileSync(path, JSON.stringify(evidence))
    return sable('learn', path, '--json')
  }

  it('tells what is known of a machine and a spool, and by what', async () => {
    const { status, json } = await learn({
      prints: [
        { predictedS: 600, slope: 0.4, actualS: 796 },
        { predictedS: 1800, slope: 0.35, actualS: 2086.2 },
        { predictedS: 3600, slope: 0.2, actualS: 3904.3 },
        { predictedS: 7200, slope: 0.1, actualS: 7502.5 },
      ],
      weights: [
        { predictedG: 20, actualG: 21 },
        { predictedG: 45, actualG: 47 },
        { predictedG: 80, actualG: 83 },
      ],
      ladders: [{ temperature: 210, failsAt: 21 }],
      barsLying: [44, 47.5, 42.8],
      barsStanding: [0.52, 0.47],
      scores: [0.1, 0.2, 0.4, 0.5],
    })
    expect(status).toBe(0)
    const { constants, q } = json()
    expect(constants.accelerationFactorLn).toMatchObject({
      value: expect.closeTo(-0.18, 3),
      sd: expect.closeTo(0.084, 3),
      basis: 'measured',
      from: '4 prints',
    })
    expect(constants.timeFactorLn.value).toBeCloseTo(0.006, 4)
    expect(constants.startS.value).toBeCloseTo(148.4, 1)
    expect(constants.flowFactorPercent).toMatchObject({ value: expect.closeTo(3.33, 2), sd: expect.closeTo(1.19, 2) })
    expect(constants.failingFlowAt210).toMatchObject({ value: expect.closeTo(21.58, 2), sd: expect.closeTo(0.074, 3), from: '1 ladder' })
    expect(constants.flowSlopePer10.value).toBeCloseTo(0.26, 2)
    expect(constants.strengthWithin.value).toBeCloseTo(45.36, 1)
    expect(constants.bond.value).toBeCloseTo(0.519, 3)
    // Nine scores, of which five are those expected beforehand: the eighth.
    expect(q).toBe(1.036)
  })

  it('without evidence says what is assumed; of a named material what its record says', async () => {
    const { constants, q } = (await learn({})).json()
    expect(constants.failingFlowAt210).toMatchObject({ value: expect.closeTo(25.6, 9), basis: 'assumed' })
    expect(constants.strengthWithin.value).toBe(50)
    expect(q).toBe(1.645)
    const petg = (await learn({ material: 'petg' })).json()
    expect(petg.constants.strengthWithin.value).not.toBe(50)
  })

  it.each([
    [{ prints: [{ predictedS: 600, slope: 0.4 }] }, 'prints.0.actualS'],
    [{ ladder: [] }, 'ladder'],
    [{ material: 'marzipan' }, 'marzipan'],
  ])('%j is refused, naming what is wrong', async (evidence, words) => {
    const { status, stderr } = await learn(evidence)
    expect(status).toBe(1)
    expect(stderr).toContain(words)
  })
})

describe('sable print', () => {
  const program = ['M83', 'M109 S200', 'G28', 'G1 Z0.2 F600', 'G1 X30 E1 F3000', 'G1 Y30 E1', 'G1 X0 E1', 'G1 Y0 E1', 'M104 S0'].join('\n')

  it('sends a program to a machine and waits until it is done', async () => {
    const machine = await servePrinter({ seed: 2, port: 0, times: 400 })
    const path = join(folder, 'square.gcode')
    writeFileSync(path, program)
    const { status, stdout } = await sable('print', path, '--to', `127.0.0.1:${machine.port}`)
    expect(status).toBe(0)
    expect(stdout).toContain('Done: 11 lines.')
    expect(machine.machine.making.layers.reduce((sum, { feed }) => sum + feed, 0)).toBeCloseTo(4, 6)
    expect(machine.machine.nozzle.target).toBe(0)
    await machine.close()
  })

  it.each([
    ['127.0.0.1', 'is no address'],
    ['192.0.2.7:4000', 'beyond this computer'],
    ['127.0.0.1:9', 'Nothing answers'],
  ])('to %s it says what is wrong', async (to, words) => {
    const { status, stderr } = await sable('print', join(folder, 'square.gcode'), '--to', to)
    expect(status).toBe(1)
    expect(stderr).toContain(words)
  })
})

describe('programs and other files', () => {
  it('a model becomes a program, which is timed as it was predicted, and as another format', async () => {
    const stl = join(folder, 'block.stl')
    writeFileSync(stl, writeStl(blockMesh(20, 20, 6)))
    const predicted = (await sable('predict', stl, '--json')).json()
    const gcode = join(folder, 'block.gcode')
    expect((await sable('toolpath', stl, '--gcode', gcode)).stdout).toMatch(/Read what stands at its beginning/)
    const timed = (await sable('time', gcode, '--printer', 'lugger', '--json')).json()
    expect(Math.abs(timed.timeS / predicted.timeS - 1)).toBeLessThan(0.01)
    expect(timed.layerCount).toBe(30)
    expect((await sable('time', gcode, '--printer', 'dory')).stdout).toMatch(/Printer +Dory 220/)
    const other = join(folder, 'block.3mf')
    expect((await sable('convert', stl, other)).stdout).toMatch(/12 triangles/)
    expect((await sable('predict', other, '--json')).json().timeS).toBeCloseTo(predicted.timeS, 6)
  })

  it('every move of a layer can be had with its numbers and its reason', async () => {
    const cube = join(folder, 'cube.stl')
    const { moves } = (await sable('toolpath', cube, '--layer', '50', '--json')).json()
    const predicted = (await sable('predict', cube, '--json')).json()
    expect(moves[0].layer).toBe(49)
    expect(moves.every((m: { why: string; durationS: number }) => m.why.length > 5 && m.durationS >= 0)).toBe(true)
    const seconds = moves.reduce((sum: number, m: { durationS: number }) => sum + m.durationS, 0)
    expect(seconds / (predicted.timeS / predicted.layerCount)).toBeGreaterThan(0.5)
    expect((await sable('toolpath', cube, '--layer', '2')).stdout).toMatch(/^ *\d+ +outerWall .*runs as asked$/m)
    expect((await sable('toolpath', cube, '--layer', '9000')).stderr).toMatch(/no layer 9000.*from 1 to \d+/)
    expect((await sable('toolpath', cube)).stderr).toMatch(/--gcode FILE or --layer NUMBER/)
  })

  it('a value may carry a unit: a wall thickness is a count (CP-N8, common practice)', async () => {
    const set = ['lineWidth=0.4', 'wallCount=1.6 mm', 'travelSpeed=9000 mm/min'].flatMap((value) => ['--set', value])
    const { settings } = (await sable('predict', join(folder, 'cube.stl'), ...set, '--json')).json()
    expect(settings).toMatchObject({ wallCount: 4, travelSpeed: 150 })
  })

  it('what cannot be done is said with its place', async () => {
    expect((await sable('time', join(folder, 'none.gcode'))).stderr).toMatch(/none\.gcode: There is no such file/)
    const stl = join(folder, 'block.stl')
    expect((await sable('convert', stl, join(folder, 'x.step'))).stderr).toMatch(/"\.step" is no kind of file/)
    expect((await sable('time', join(folder, 'block.gcode'), '--feature-pattern', '(')).stderr).toMatch(/no regular expression/)
  })
})
