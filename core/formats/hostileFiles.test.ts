import { describe, expect, it } from 'vitest'
import { archiveOf, binaryStl, largeHostileModels, modelXml, smallHostileModels } from '../testing/hostileFiles'
import { mutate } from '../testing/mutate'
import { readerSeeds } from '../testing/readerSeeds'
import { InputError } from '../units/errors'
import { seeded } from '../units/seeded'
import { read3mf } from './read3mf'
import { readPart } from './readPart'
import { readStl } from './readStl'

/** What reading gives: a refusal that says what, where and what to do, or a result of finite numbers. Anything else is a fault. */
function outcome(read: () => unknown): string {
  let result: unknown
  try {
    result = read()
  } catch (error) {
    if (!(error instanceof InputError)) throw error
    if (error.message === '' || error.remedy === '') throw new Error(`${error.code} says too little: ${error.sentence}`)
    return error.code
  }
  JSON.stringify(result, (key, value) => {
    if (typeof value === 'number' && !Number.isFinite(value)) throw new Error(`${key} is ${value}`)
    return value
  })
  return 'read'
}

describe('a file that means harm', () => {
  it.each(smallHostileModels)('$what is refused in a sentence', ({ fileName, make }) => {
    expect(outcome(() => readPart(make(), fileName, 'key').report)).not.toBe('read')
  })

  it.each(largeHostileModels.filter(({ isLong }) => !isLong))('$what is read or refused in a sentence', ({ fileName, make }) => {
    expect(outcome(() => readPart(make(), fileName, 'key').report)).toMatch(/^[\w-]+$/)
  })

  it('of triangles between hardly any corners is read: repeats are left out', () => {
    const random = seeded(2)
    const tangle = binaryStl(60_000, (_, out) => {
      for (let k = 0; k < 9; k++) out[k] = Math.floor(2 * random())
    })
    expect(outcome(() => readPart(tangle, 'tangle.stl', 'key').report)).toBe('read')
  })

  it('of triangles that share nothing is refused by the pieces that it falls into', () => {
    const random = seeded(1)
    const soup = binaryStl(30_000, (_, out) => {
      for (let k = 0; k < 9; k++) out[k] = 100 * random()
    })
    expect(outcome(() => readPart(soup, 'soup.stl', 'key').report)).toBe('model-in-pieces')
  })

  it('whose rim is longer than can be closed keeps it open', () => {
    const count = 30_000
    const fan = binaryStl(count, (t, out) => {
      const [a, b] = [(2 * Math.PI * t) / count, (2 * Math.PI * ((t + 1) % count)) / count]
      out.set([0, 0, 5, 50 * Math.cos(a), 50 * Math.sin(a), 0, 50 * Math.cos(b), 50 * Math.sin(b), 0])
    })
    expect(readPart(fan, 'fan.stl', 'key').report).toMatchObject({ openEdges: count, shells: 1 })
  })
})

describe('components of a 3MF file', () => {
  const tetrahedron =
    '<mesh><vertices><vertex x="0" y="0" z="0"/><vertex x="9" y="0" z="0"/><vertex x="0" y="9" z="0"/><vertex x="0" y="0" z="9"/></vertices><triangles><triangle v1="0" v2="2" v3="1"/><triangle v1="0" v2="1" v3="3"/><triangle v1="1" v2="2" v3="3"/><triangle v1="2" v2="0" v3="3"/></triangles></mesh>'
  const chain = (levels: number, times: number): Uint8Array =>
    archiveOf(
      modelXml(
        `<object id="0">${tetrahedron}</object>${Array.from({ length: levels }, (_, i) => `<object id="${i + 1}"><components>${`<component objectid="${i}"/>`.repeat(times)}</components></object>`).join('')}`,
        `<item objectid="${levels}"/>`,
      ),
    )

  it('are placed as often as they are named, of four triangles each', () => {
    expect(read3mf(chain(0, 1)).corners.length).toBe(36)
    expect(read3mf(chain(6, 2)).corners.length).toBe(36 * 2 ** 6)
    expect(read3mf(chain(3, 5)).corners.length).toBe(36 * 5 ** 3)
  })

  it('may stand 31 deep in one another and no deeper', () => {
    expect(outcome(() => read3mf(chain(31, 1)))).toBe('read')
    expect(outcome(() => read3mf(chain(32, 1)))).toBe('3mf-circle')
  })

  it('are told when they are missing, a few by name and the rest by number', () => {
    const { notes } = read3mf(
      archiveOf(modelXml(`<object id="1">${tetrahedron}</object>`, `<item objectid="1"/>${'<item objectid="7"/>'.repeat(500)}`)),
    )
    expect(notes.length).toBeLessThan(30)
    expect(notes.join()).toContain('480 more placed objects are not in the file')
  })
})

describe('text of an STL file', () => {
  const facet = 'facet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1 1\nendloop\nendfacet\n'
  const read = (text: string) => readStl(new TextEncoder().encode(text), 'x.stl')

  it('is read with line ends of each kind, capitals, indents and exponents', () => {
    for (const text of [
      facet,
      facet.replaceAll('\n', '\r\n'),
      facet.replaceAll('\n', '\r'),
      facet.toUpperCase(),
      facet.replaceAll('\n', '\n\t  '),
    ])
      expect([...read(`solid x\n${text}endsolid x\n`).corners]).toEqual([0, 0, 0, 1, 0, 0, 0, 1, 1])
    expect(read(`solid x\n${facet.replace('1 0 0', '1.0E+0 -0e5 .0')}endsolid x\n`).corners[3]).toBe(1)
  })

  it('names the line of what is wrong', () => {
    expect(() => read(`solid x\n${facet}${facet.replace('vertex 1 0 0', 'vertex 1 0')}endsolid`)).toThrow(
      expect.objectContaining({ where: 'x.stl, line 12' }),
    )
  })
})

describe('two thousand damaged files', () => {
  const each = Math.ceil(2000 / readerSeeds.length)

  it.each(readerSeeds)('of $kind are read or refused, and nothing else', ({ kind, bytes, read }) => {
    expect(outcome(() => read(bytes))).toBe('read')
    const random = seeded(kind.length)
    const seen = new Map<string, number>()
    for (let i = 0; i < each; i++) {
      const changed = mutate(bytes, random)
      const told = outcome(() => read(changed))
      seen.set(told, (seen.get(told) ?? 0) + 1)
    }
    // Changes that all end alike, or that nothing notices, would test nothing.
    expect(seen.size).toBeGreaterThan(1)
    expect(seen.get('read') ?? 0).toBeLessThan(each)
  })
})
