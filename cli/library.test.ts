import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { writeProfileFile } from '@sable/core/formats/profileFile'
import { writeStl } from '@sable/core/formats/writeStl'
import { starterMaterials, starterPrinters } from '@sable/core/shelf/starter'
import { blockMesh } from '@sable/core/testing/solids'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { plainJson } from './report'
import { sable } from './testing'

const root = join(import.meta.dirname, '..')
let folder: string
const path = (name: string): string => join(folder, name)
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'sable-library-'))
  writeFileSync(path('block.stl'), writeStl(blockMesh(24, 16, 8)))
  writeFileSync(
    path('everyday.json'),
    writeProfileFile({ name: 'everyday', settings: { layerHeight: 0.2, wallCount: 3, infillSpeed: 120 } }),
  )
  writeFileSync(path('sturdy.json'), writeProfileFile({ name: 'sturdy', settings: { layerHeight: 0.2, wallCount: 5 } }))
  const { key: _, ...lugger } = starterPrinters.find(({ key }) => key === 'lugger')!
  writeFileSync(
    path('shelf.json'),
    JSON.stringify({
      format: 'sable-lantern/shelf',
      version: 3,
      printers: [
        { ...lugger, key: 'mine', name: 'Mine' },
        { ...lugger, key: 'sold', name: 'Sold', archived: true },
      ],
      materials: starterMaterials,
      spools: [{ key: 'jade', name: 'Jade', material: 'petg', netG: 1000, weighings: [], dried: [], defaults: { nozzleTemperature: 236 } }],
    }),
  )
})
afterAll(() => rmSync(folder, { recursive: true }))

describe('sable suggest', () => {
  it('tells the fastest, the smoothest and the strongest, each with its settings and a line of why', async () => {
    const { suggestions } = JSON.parse((await sable('suggest', path('block.stl'), '--json')).stdout)
    const of = (role: string) => suggestions.find(({ roles }: { roles: string[] }) => roles.includes(role))
    expect(suggestions.flatMap(({ roles }: { roles: string[] }) => roles).sort()).toEqual(['fastest', 'smoothest', 'strongest'])
    expect(of('fastest').figures.time).toBeLessThan(of('smoothest').figures.time)
    expect(of('smoothest').figures.surface).toBeLessThan(of('fastest').figures.surface)
    expect(of('strongest').figures.strength).toBeGreaterThanOrEqual(of('fastest').figures.strength)
    expect(of('strongest').why).toMatch(/strongest at .* N/i)
    expect(of('fastest').settings.layerHeight).toBeGreaterThan(0.2)
  })

  it('says that there is none that keeps the limits, and how near the nearest comes', async () => {
    const { stdout: out } = await sable('suggest', path('block.stl'), '--max-minutes', '0.5')
    expect(out).toMatch(/^nearest\n {2}Nothing that was tried keeps all limits\. The nearest misses with time /)
  })
})

describe('sable matrix', () => {
  it('has a row a profile and a column a material, carried over unless told otherwise, and marks the best', async () => {
    const args = ['matrix', path('block.stl'), path('everyday.json'), path('sturdy.json'), '--materials', 'pla,flexible']
    const { columns, rows } = JSON.parse((await sable(...args, '--json')).stdout)
    expect(columns).toEqual(['pla', 'flexible'])
    const [everyday] = rows
    expect(everyday.cells[1].figures.time).toBeGreaterThan(1.3 * everyday.cells[0].figures.time)
    const asIs = JSON.parse((await sable(...args, '--as-is', '--json')).stdout)
    expect(asIs.rows[0].cells[1].figures.time).toBeLessThan(everyday.cells[1].figures.time)
    const { stdout: out } = await sable(...args)
    expect(out.trimEnd().split('\n')).toHaveLength(3)
    expect(out).toMatch(/everyday +\* .* min/)
  })

  it('refuses what has no column, and a figure that there is not', async () => {
    const { status: code, stderr: err } = await sable('matrix', path('block.stl'), path('everyday.json'))
    expect([code, err]).toEqual([1, expect.stringContaining('Nothing is named to go across')])
    expect((await sable('matrix', path('block.stl'), path('everyday.json'), '--nozzles', '0.4', '--figure', 'tme')).stderr).toContain(
      'Did you mean time?',
    )
  })
})

describe('an exported shelf', () => {
  it('is where printers and reels are found; what was put away is not', async () => {
    const shelf = JSON.parse((await sable('--shelf', path('shelf.json'), 'shelf', '--json')).stdout)
    expect(shelf.printers.map(({ key }: { key: string }) => key)).toEqual(['mine'])
    expect(shelf.nozzles.length).toBeGreaterThan(3)
    const { stdout: out } = await sable(
      '--shelf',
      path('shelf.json'),
      'predict',
      path('block.stl'),
      '--printer',
      'mine',
      '--spool',
      'jade',
      '--json',
    )
    expect(JSON.parse(out).settings.nozzleTemperature).toBe(236)
    expect((await sable('--shelf', path('shelf.json'), 'predict', path('block.stl'), '--printer', 'sold')).stderr).toContain(
      'The shelf has no "sold"',
    )
    // The next command is back with the starters.
    expect((await sable('shelf')).stdout).toContain('lugger')
  })

  it('that is none is refused', async () => {
    expect((await sable('--shelf', path('everyday.json'), 'shelf')).stderr).toContain('This is no shelf')
  })
})

describe('at a terminal', () => {
  it('tells its version, completes commands and options, and knows what was nearly typed', async () => {
    const { version } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8'))
    expect((await sable('--version')).stdout.trim()).toBe(version)
    for (const shell of ['bash', 'zsh', 'fish']) expect((await sable('completion', shell)).stdout, shell).toContain('suggest')
    expect((await sable('completion', 'tcl')).stderr).toContain('bash, zsh, fish')
    expect((await sable('predct')).stderr).toContain('Did you mean predict?')
  })

  it('a script for bash is one that bash takes, and that completes', async () => {
    const { stdout: out } = await sable('completion', 'bash')
    const asked = `${out}\nCOMP_LINE="sable matrix --mat"; COMP_WORDS=(sable matrix --mat); COMP_CWORD=2; _sable sable --mat matrix; echo "\${COMPREPLY[@]}"`
    const { stdout, stderr } = spawnSync('bash', ['-c', asked], { encoding: 'utf8' })
    expect(stderr).toBe('')
    expect(stdout.trim().split(/\s+/).sort()).toEqual(['--material', '--materials'])
  })

  it('a model comes through a pipe, and a program goes out through one', () => {
    const model = readFileSync(path('block.stl'))
    const run = (...args: string[]) => spawnSync('npm', ['run', '-s', 'sable', '--', ...args], { cwd: root, input: model })
    expect(JSON.parse(String(run('predict', '-', '--json').stdout)).timeS).toBeGreaterThan(60)
    expect(String(run('toolpath', '-', '--gcode', '-').stdout)).toContain('G28')
  })

  it('numbers are written out, to what they were', () => {
    const numbers = { a: 1e-7, b: -2.5e-9, c: 1.5e21, d: 0.1, e: [3e-8, 12], f: 'a 1e-7 in words' }
    const text = plainJson(numbers)
    expect(text.replace(/"f".*/s, '')).not.toMatch(/\de[+-]?\d/)
    expect(JSON.parse(text)).toEqual(numbers)
  })
})
