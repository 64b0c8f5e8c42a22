import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { writeProfileFile } from '@sable/core/formats/profileFile'
import { writeStl } from '@sable/core/formats/writeStl'
import { overrideSchema } from '@sable/core/profile/overrides'
import { blockMesh } from '@sable/core/testing/solids'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { sable } from './testing'

let folder: string
const at = (name: string): string => join(folder, name)
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'sable-plate-'))
  writeFileSync(at('lid.stl'), writeStl(blockMesh(30, 20, 3)))
  writeFileSync(at('post.stl'), writeStl(blockMesh(8, 8, 12)))
  writeFileSync(at('thin.json'), writeProfileFile({ name: 'thin', settings: { layerHeight: 0.12 } }))
  writeFileSync(at('hot.json'), writeProfileFile({ name: 'hot', settings: { nozzleTemperature: 235 } }))
  writeFileSync(at('other.json'), writeProfileFile({ name: 'other', settings: {}, printer: 'cutter' }))
  const half = { create: { width: 20, height: 20, channels: 3, background: '#000000' } } as const
  const black = await sharp(half).png().toBuffer()
  await sharp({ create: { width: 40, height: 20, channels: 3, background: '#ffffff' } })
    .composite([{ input: black, left: 0, top: 0 }])
    .png()
    .toFile(at('halves.png'))
  await sharp({ create: { width: 40, height: 20, channels: 3, background: '#808080' } })
    .jpeg()
    .toFile(at('fog.jpg'))
  await sharp({ create: { width: 10_000, height: 10_000, channels: 3, background: '#808080' } })
    .png({ compressionLevel: 9 })
    .toFile(at('huge.png'))
  writeFileSync(at('poem.png'), 'Gather ye rosebuds')
})
afterAll(() => rmSync(folder, { recursive: true }))

describe('sable plate', () => {
  it('arranges models with profiles of their own, and tells what each and all of it takes', async () => {
    const { status, json } = await sable('plate', at('lid.stl'), `${at('post.stl')}=${at('thin.json')}`, at('post.stl'), '--json')
    expect(status).toBe(0)
    const plate = json()
    expect(plate.parts.map(({ name }: { name: string }) => name)).toEqual(['lid', 'post', 'post 2'])
    const sum = plate.parts.reduce((all: number, { timeS }: { timeS: number }) => all + timeS, plate.sharedS)
    expect(sum).toBeCloseTo(plate.timeS, 1)
    expect(plate.standing).toHaveLength(3)
    expect(plate.problems).toEqual([])
  })

  it('writes a program that the same command line times alike, the lowest part first', async () => {
    const { status, stdout } = await sable('plate', at('post.stl'), at('lid.stl'), '--order', 'inTurn', '--gcode', at('plate.gcode'))
    expect(status).toBe(0)
    expect(stdout.indexOf('lid')).toBeLessThan(stdout.indexOf('post'))
    expect(readFileSync(at('plate.gcode'), 'utf8')).toMatch(/; part 1 {6}lid\n; part 2 {6}post/)
    const told = (await sable('plate', at('post.stl'), at('lid.stl'), '--order', 'inTurn', '--json')).json()
    const timed = (await sable('time', at('plate.gcode'), '--printer', 'lugger', '--json')).json()
    expect(Math.abs(timed.timeS / told.timeS - 1)).toBeLessThan(0.02)
  })

  it('says what keeps it from being printed, and writes no program then', async () => {
    const models = [at('lid.stl'), `${at('post.stl')}=${at('hot.json')}`]
    const told = await sable('plate', ...models)
    expect(told.stdout).toMatch(/! .*the nozzle would heat and cool on every layer/)
    expect(await sable('plate', ...models, '--gcode', at('never.gcode'))).toMatchObject({ status: 1 })
    expect(() => readFileSync(at('never.gcode'))).toThrow()
    const differs = await sable('plate', at('lid.stl'), `${at('post.stl')}=${at('other.json')}`)
    expect(differs).toMatchObject({ status: 1, stderr: expect.stringMatching(/A plate has one printer/) })
    expect((await sable('plate', at('lid.stl'), '--order', 'sideways')).stderr).toMatch(/together or inTurn/)
  })
})

describe('sable picture', () => {
  it('tells a place that a profile file can hold, and the print of it is another', async () => {
    const { status, json } = await sable('picture', at('halves.png'), '--to', '10', '--dark', '20', '--light', '80')
    expect(status).toBe(0)
    const place = overrideSchema.parse(json())
    expect(place).toMatchObject({ fromZ: 0, toZ: 10, picture: { columns: 40, rows: 20, lay: 'wrapped', darkSpeed: 20, lightSpeed: 80 } })
    expect(place.picture!.greys.slice(0, 40)).toBe(`${'0'.repeat(20)}${'f'.repeat(20)}`)
    writeFileSync(at('sign.json'), writeProfileFile({ name: 'sign', settings: {}, overrides: [place] }))
    const plain = (await sable('predict', at('post.stl'), '--json')).json()
    const drawn = (await sable('predict', at('post.stl'), '--profile', at('sign.json'), '--json')).json()
    expect(drawn.pictures).toHaveLength(1)
    expect(drawn.filament.massG).toBeCloseTo(plain.filament.massG, 3)
  })

  it('refuses what is flat, huge or no picture, and a place that cannot be', async () => {
    for (const [args, says] of [
      [[at('fog.jpg'), '--to', '10'], /nearly the same grey everywhere/],
      [[at('huge.png'), '--to', '10'], /100 megapixels/],
      [[at('poem.png'), '--to', '10'], /cannot be read as a picture/],
      [[at('halves.png'), '--to', '5', '--from', '7'], /needs a height that it ends at/],
      [[at('halves.png'), '--to', '5', '--box', '1,2'], /not four numbers/],
    ] as const)
      expect(await sable('picture', ...args)).toMatchObject({ status: 1, stderr: expect.stringMatching(says) })
  })
})
