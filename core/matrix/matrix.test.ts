import { describe, expect, it } from 'vitest'
import { bestsOf, isWithin, type MatrixCell, valueIn } from './matrix'

const cell = (time: number, strength = 50, stops = 0): MatrixCell => ({ figures: { time, strength, stops }, cautions: 0, checks: [] })
const refused: MatrixCell = { refused: 'too tall' }
const marks = (cells: (MatrixCell | undefined)[][], figure: 'time' | 'strength' = 'time', limits: Parameters<typeof bestsOf>[2] = []) =>
  bestsOf(cells, figure, limits).map((row) => row.map(({ row: r, column, all }) => `${r ? 'r' : ''}${column ? 'c' : ''}${all ? 'a' : ''}`))

describe('the best of a matrix', () => {
  it('is marked in each row, each column and of all', () => {
    expect(
      marks([
        [cell(30), cell(20), cell(50)],
        [cell(10), cell(40), cell(60)],
      ]),
    ).toEqual([
      ['', 'rc', 'c'],
      ['rca', '', ''],
    ])
  })

  it('goes by what is better of the figure: less time, more strength', () => {
    expect(marks([[cell(30, 40), cell(20, 90)]], 'strength')).toEqual([['c', 'rca']])
  })

  it('is never one that misses a limit, is stopped, cannot be printed, or is not known yet', () => {
    expect(marks([[cell(10, 20), cell(20, 80), cell(5, 90, 1), refused, undefined]], 'time', [{ figure: 'strength', least: 60 }])).toEqual([
      ['', 'rca', '', '', ''],
    ])
    expect(marks([[refused, undefined]])).toEqual([['', '']])
    expect(marks([])).toEqual([])
  })

  it('of equals is each of them', () => {
    expect(marks([[cell(10), cell(10)]])).toEqual([['rca', 'rca']])
  })

  it('tells a figure, or not a number', () => {
    expect(valueIn(cell(10), 'time')).toBe(10)
    for (const nothing of [refused, undefined]) expect(valueIn(nothing, 'time')).toBeNaN()
    expect(valueIn(cell(10), 'cost')).toBeNaN()
    expect(isWithin(refused, [])).toBe(false)
  })
})
