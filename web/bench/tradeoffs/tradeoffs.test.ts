import type { FoundVariant } from '@sable/contract/search'
import type { AllFigures } from '@sable/core/search/figures'
import { describe, expect, it } from 'vitest'
import { difference, shown } from './figureWords'
import { parseChoices } from './parseChoices'
import {
  beatenBy,
  extentOf,
  frontAlong,
  isIn,
  limitOn,
  limitsFrom,
  limitsText,
  namedOf,
  nearestPoint,
  pointsOf,
  solvedPointsOf,
  withLimit,
} from './plot'

const figures = (time: number, strength: number, surface = 10): AllFigures => ({
  time,
  unslowed: time,
  cooling: 1,
  strength,
  surface,
  filament: 1,
  cost: 1,
  gloss: 0.5,
  sway: 0,
  strings: 0,
  fit: 0.1,
  warp: 0.3,
  stops: 0,
})
const variants: FoundVariant[] = [
  figures(100, 50, 20),
  figures(200, 90, 12),
  figures(150, 40, 8),
  figures(300, 90, 30),
  figures(250, 95, 9),
].map((own, position) => ({ position, choices: [position], figures: own }))
const points = pointsOf([...variants, { position: 5, choices: [5] }])
const [time, strength] = [
  { figure: 'time', better: 'less' },
  { figure: 'strength', better: 'more' },
] as const
const places = (list: readonly { variant: FoundVariant }[]) => list.map(({ variant }) => variant.position)

describe('choices of a setting', () => {
  it('are listed, or run from one number to another', () => {
    expect(parseChoices('layerHeight', '0.2, 0.12, 0.2')).toEqual({ values: [0.12, 0.2] })
    expect(parseChoices('layerHeight', '0.1 to 0.3 by 0.05')).toEqual({ values: [0.1, 0.15, 0.2, 0.25, 0.3] })
    expect(parseChoices('wallCount', '2 to 5')).toEqual({ values: [2, 3, 4, 5] })
    expect(parseChoices('layerHeight', '0,12; 0,2')).toEqual({ values: [0.12, 0.2] })
    expect(parseChoices('infillPattern', 'grid, gyroid')).toEqual({ values: ['grid', 'gyroid'] })
  })

  it('that cannot be are refused in a sentence', () => {
    const wrong = (name: Parameters<typeof parseChoices>[0], text: string) => (parseChoices(name, text) as { wrong: string }).wrong
    expect(wrong('layerHeight', '0.2, thick')).toBe('"thick" is no number.')
    expect(wrong('layerHeight', '0.2, 9')).toMatch(/^9 is outside/)
    expect(wrong('wallCount', '2.5')).toMatch(/whole/)
    expect(wrong('wallCount', '5 to 2')).toMatch(/upward/)
    expect(wrong('outerWallSpeed', '10 to 300 by 1')).toMatch(/more than 60/)
    expect(wrong('infillPattern', 'grid, lace')).toMatch(/^"lace" is none of/)
    expect(wrong('wallCount', ' ')).toMatch(/at least one/)
  })
})

describe('points of a search', () => {
  it('that were solved bear what that says, and the others are not among them', () => {
    const [first, second, third, ...rest] = variants
    const solved = (variant: FoundVariant | undefined, solvedN: number | null): FoundVariant => ({
      ...variant!,
      figures: { ...variant!.figures!, solvedN },
    })
    const found = solvedPointsOf(pointsOf([solved(first, 31), solved(second, null), solved(third, 28), ...rest]))
    expect(places(found)).toEqual([0, 2])
    expect(found.map((point) => point.figures.strength)).toEqual([31, 28])
    expect(found[0]!.figures.time).toBe(100)
  })

  it('leave out what cannot be printed, and have a front in any two figures', () => {
    expect(points).toHaveLength(5)
    expect(places(frontAlong(points, time, strength))).toEqual([0, 1, 4])
    expect(places(frontAlong(points, time, { figure: 'surface', better: 'less' }))).toEqual([0, 2])
    expect(places(frontAlong(points, strength, time))).toEqual([4, 1, 0])
  })

  it('beat what lies behind the staircase of their front', () => {
    const corners = beatenBy(frontAlong(points, time, strength), time, strength, [0, 400], [0, 100])
    expect(corners).toEqual([
      [100, 0],
      [100, 50],
      [200, 50],
      [200, 90],
      [250, 90],
      [250, 95],
      [400, 95],
      [400, 0],
    ])
  })

  it('have names: the fastest, the smoothest and the strongest of those that meet all limits', () => {
    const all = namedOf(points, [
      { figure: 'time', most: 260 },
      { figure: 'strength', least: 60 },
    ])
    expect(all.map(({ id, point }) => [id, point.variant.position])).toEqual([
      ['fastest', 1],
      ['smoothest', 4],
      ['strongest', 4],
    ])
    const tie = [...points].reverse().concat({ variant: { position: 9, choices: [9] }, figures: figures(90, 95) })
    expect(namedOf(tie, [])[2]!.point.variant.position).toBe(9)
    expect(all[1]!.label).toBe('Smoothest within the time')
    expect(namedOf(points, [{ figure: 'time', most: 1 }])).toEqual([])
    expect(namedOf([{ ...points[0]!, figures: { ...points[0]!.figures, stops: 1 } }], [])).toEqual([])
  })

  it('that were found before a figure was thought of are read, and left out where they have no place', () => {
    const { cooling: _, ...old } = figures(50, 99)
    const all = pointsOf([...variants, { position: 6, choices: [6], figures: old }])
    expect(all.at(-1)!.figures).toMatchObject({ time: 50, cooling: Number.NaN })
    const ids = (front: typeof all): number[] => front.map(({ variant }) => variant.position)
    expect(ids(frontAlong(all, time, strength))).toEqual([6])
    expect(ids(frontAlong(all, { figure: 'cooling', better: 'more' }, time))).toEqual([0])
    expect(extentOf(all.map((point) => point.figures.cooling)).every(Number.isFinite)).toBe(true)
    expect(shown('cooling', all.at(-1)!.figures.cooling)).toBe('–')
  })

  it('are found near the pointer, and within a brush', () => {
    const at = (point: (typeof points)[number]): [number, number] => [point.figures.time, point.figures.strength]
    expect(nearestPoint(points, at, [153, 44])?.variant.position).toBe(2)
    expect(nearestPoint(points, at, [20, 20])).toBeUndefined()
    expect(places(points.filter((point) => isIn({ x: 'time', y: 'strength', low: [90, 45], high: [210, 100] }, point)))).toEqual([0, 1])
  })

  it('keep one limit a figure, on its worse side', () => {
    const limits = withLimit(withLimit([], time, 200), strength, 60)
    expect(limits).toEqual([
      { figure: 'time', most: 200 },
      { figure: 'strength', least: 60 },
    ])
    expect(limitOn(withLimit(limits, time, 100), 'time')).toBe(100)
    expect(withLimit(limits, time, undefined)).toHaveLength(1)
  })

  it('have limits that an address keeps', () => {
    const limits = [
      { figure: 'time', most: 3600 },
      { figure: 'strength', least: 80.5 },
    ] as const
    expect(limitsText(limits)).toBe('time<3600,strength>80.5')
    expect(limitsFrom(limitsText(limits))).toEqual(limits)
    expect(limitsFrom(limitsText([]))).toEqual([])
    expect(limitsFrom('time<soon,colour>3,sway<1e-3')).toEqual([{ figure: 'sway', most: 0.001 }])
  })

  it('lie within scales', () => {
    expect(extentOf([10, 20])).toEqual([9.5, 20.5])
    expect(extentOf([0, 0])[1]).toBeGreaterThan(0)
    expect(extentOf([])).toEqual([0, 1])
  })
})

it('figures are told in units that read well', () => {
  expect([shown('time', 4320), shown('gloss', 0.42), shown('cost', 1.5)]).toEqual(['1 h 12 min', '42 %', '1.50 €'])
  expect([difference('time', -720), difference('surface', 0.01), difference('strength', 4)]).toEqual(['−12.0 min', 'same', '+4 N'])
})
