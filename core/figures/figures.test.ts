import { beforeAll, describe, expect, it } from 'vitest'
import { noPurpose } from '../physics/strength/purpose'
import { type Prediction, predict } from '../pipeline/predict'
import { figuresOf, figuresSchema, usually } from '../search/figures'
import { knownSetup } from '../setup/knownSetup'
import { testKernel } from '../testing/kernel'
import { setupOf } from '../testing/setups'
import { blockMesh, partOf } from '../testing/solids'
import { figureOf, figureRows, figures, limitedBy, limitNames } from './figures'
import { figureIds } from './table/figure'
import { matters, unslowedNote } from './table/unslowed'

let small: Prediction
let free: Prediction
let large: Prediction
beforeAll(async () => {
  const kernel = await testKernel
  const of = (size: number, minLayerTime: number, printer = 'lugger'): Prediction =>
    predict(
      partOf(`cube ${size}`, blockMesh(size, size, 8)),
      { scale: 1, rotateDeg: [0, 0, 0] },
      setupOf(printer),
      { minLayerTime },
      { kernel },
    )
  small = of(12, 8)
  free = of(12, 0)
  large = of(60, 8)
})

describe('the table of figures', () => {
  it('names each once, under its own id, with words for every place', () => {
    expect(figures.map(({ id }) => id)).toEqual([...figureIds])
    expect(new Set(figures.map(({ label }) => label)).size).toBe(figures.length)
    for (const figure of figures) {
      expect(figureOf[figure.id]).toBe(figure)
      expect(figure.help).toMatch(/\.$/)
      expect(figure.noun).not.toBe('')
      expect(figure.plain.per).toBeGreaterThan(0)
    }
  })

  it('tells every figure of a prediction the same way wherever it is read', () => {
    const found = figuresOf(small, noPurpose)
    expect(figuresSchema.parse(found)).toEqual(found)
    for (const { id, value, of, shown, explain } of figures) {
      const told = of(small, noPurpose)
      expect(found[id]).toBe(value(small, noPurpose))
      if (id !== 'sway') expect(told.value).toBe(found[id])
      expect(`${told.text} ${told.unit} ${shown(found[id]!)}`).not.toMatch(/NaN|undefined|Infinity/)
      expect(explain(small, knownSetup(setupOf()), noPurpose).terms.length).toBeGreaterThan(1)
    }
  })

  it('has one row for each figure that is read by itself, and the others beneath one', () => {
    const beneath = figureRows.flatMap(({ parts }) => parts ?? []).map(({ id }) => id)
    for (const { id, beside } of figures)
      expect(beside === undefined ? figureRows.some((row) => row.id === id) : beneath.includes(id)).toBe(true)
    const all = [...figureRows.map(({ id }) => id), ...beneath]
    expect(new Set(all).size).toBe(all.length)
  })

  it('answers for every limit of a purpose, in the way that is better', () => {
    expect([...limitNames].sort()).toEqual(['maxCost', 'maxMassG', 'maxRaUm', 'maxTimeS', 'minLoadN'])
    for (const name of limitNames) expect(usually(limitedBy(name).id).better).toBe(name.startsWith('max') ? 'less' : 'more')
  })
})

describe('the time without the least layer time', () => {
  it('is what planning without one gives', () => {
    expect(small.layersSlowed).toBeGreaterThan(10)
    expect(free.layersSlowed).toBe(0)
    expect(free.unslowedS).toBe(free.timeS)
    // A slowed layer hands the next one over a little slower: all that the two plans may differ by.
    expect(small.unslowedS / free.timeS).toBeCloseTo(1, 2)
  })

  // CP-T11, common practice: on small parts the least layer time takes back most of what speed brings.
  it('is far less on a small part, and told beside the time; the same on a large one, and not told', () => {
    expect(small.timeS / small.unslowedS).toBeGreaterThan(1.5)
    expect(matters(small)).toBe(true)
    expect(figureOf.time.of(small, noPurpose).note).toBe(unslowedNote(small))
    expect(large.unslowedS).toBe(large.timeS)
    expect(matters(large)).toBe(false)
    expect(figureOf.time.of(large, noPurpose).note).toBeUndefined()
  })
})
