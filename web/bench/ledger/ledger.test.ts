import type { LineupContent } from '@sable/contract/lineup'
import { compareRow } from '@sable/core/figures/compareRow'
import { figures } from '@sable/core/figures/figures'
import { noPurpose } from '@sable/core/physics/strength/purpose'
import { InputError } from '@sable/core/units/errors'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { shelf } from '../../testing/lineups'
import { lineupCsv } from '../shell/lineupCsv'
import { clearCells, fillCells, fillRight, pasteCells, typeInto, untaken } from './cellEdits'
import { cellsOf, filterRows, formatValue, ledgerRows } from './rows'
import { at, clamp, contains, move } from './selection'

const timeRows = figures.find(({ id }) => id === 'time')?.parts ?? []

const candidate = (id: string, values = {}) => ({
  id,
  name: id,
  printer: 'lugger',
  nozzle: 'bore-0.4',
  material: 'pla',
  values,
  overrides: [],
})
const content: LineupContent = {
  name: 'Hook',
  partId: 'p',
  placement: { scale: 1, rotateDeg: [0, 0, 0] },
  purpose: noPurpose,
  candidates: [candidate('a', { wallCount: 3 }), candidate('b', { wallCount: 5 }), candidate('c')],
}
const rows = ledgerRows(shelf).flatMap((group) => group.rows)
const rowOf = (id: string): number => rows.findIndex((row) => row.id === id)
const columns = content.candidates.map((one) => cellsOf(one, content.candidates[0], shelf)!)
const walls = (of: LineupContent) => of.candidates.map(({ values }) => values.wallCount)

describe('cells', () => {
  it('take what is typed, with a comma or a point, and give back what is emptied', () => {
    expect(typeInto(content, rows[rowOf('layerHeight')]!, 'a', '0,28', columns[0]).candidates[0]?.values.layerHeight).toBe(0.28)
    expect(walls(typeInto(content, rows[rowOf('wallCount')]!, 'a', ' ', columns[0]))).toEqual([undefined, 5, undefined])
    expect(typeInto(content, rows[rowOf('material')]!, 'b', 'fast pla', columns[1]).candidates[1]?.material).toBe('fast-pla')
    expect(() => typeInto(content, rows[rowOf('wallCount')]!, 'a', '-1', columns[0])).toThrow(InputError)
    expect(() => typeInto(content, rows[rowOf('printer')]!, 'a', 'nowhere', columns[0])).toThrow(/no printer/)
  })

  it('work out sums and changes, take µm, and ask what can be read in two ways', () => {
    const height = (text: string): unknown =>
      typeInto(content, rows[rowOf('layerHeight')]!, 'a', text, columns[0]).candidates[0]?.values.layerHeight
    const walls3 = (text: string): unknown =>
      typeInto(content, rows[rowOf('wallCount')]!, 'a', text, columns[0]).candidates[0]?.values.wallCount
    expect(height('=0.4/2')).toBe(0.2)
    expect(height('= (0,1 + .1) * 1.5')).toBe(0.3)
    expect(height('280 µm')).toBe(0.28)
    // Half the bore is what stands there.
    expect(height('+10 %')).toBeCloseTo(0.22, 9)
    expect(walls3('*2')).toBe(6)
    expect(walls3('-34 %')).toBe(2)
    const density = typeInto(content, rows[rowOf('infillDensity')]!, 'a', '+10 %', columns[0]).candidates[0]?.values.infillDensity
    expect(density).toBe(Number(columns[0]?.infillDensity?.value) + 10)
    expect(() => typeInto(content, rows[rowOf('travelSpeed')]!, 'a', '1,200', columns[0])).toThrow(/can be 1\.2 or 1200/)
    expect(() => height('=1/0')).toThrow(/comes to no number/)
    expect(() => height('=alert(1)')).toThrow(/comes to no number/)
  })

  it('take a labelled block of a spreadsheet by its labels, quoted or not, and tell what they do not know', () => {
    const text = 'Setting\tunit\tA\tB\n"Layer height"\tmm\t0.16\t0.24\nWalls\t\t2\t4\nGhosts\t\t1\t1\n'
    const pasted = pasteCells(content, rows, columns, at(rowOf('flow'), 0), text)
    expect(pasted.candidates.map(({ values }) => [values.layerHeight, values.wallCount])).toEqual([
      [0.16, 2],
      [0.24, 4],
      [undefined, undefined],
    ])
    expect(untaken(text, rows)).toEqual(['Setting', 'Ghosts'])
    expect(() => pasteCells(content, rows, columns, at(0, 0), text.replace('0.16', 'thin'))).toThrow(InputError)
  })

  it('of a whole selection are filled with one text', () => {
    const filled = fillCells(
      content,
      rows,
      columns,
      { row: rowOf('wallCount'), column: 2, fromRow: rowOf('wallCount'), fromColumn: 0 },
      '*2',
    )
    expect(walls(filled)).toEqual([6, 10, 6])
  })

  it('take a spool with its material, and let it go when another material is chosen', () => {
    const withSpool = typeInto(content, rows[rowOf('spool')]!, 'a', 'lamp amber petg', columns[0])
    expect(withSpool.candidates[0]).toMatchObject({ spool: 'lamp-amber', material: 'petg' })
    expect(typeInto(withSpool, rows[rowOf('nozzle')]!, 'a', 'bore-0.6', columns[0]).candidates[0]?.spool).toBe('lamp-amber')
    expect(typeInto(withSpool, rows[rowOf('material')]!, 'a', 'abs', columns[0]).candidates[0]?.spool).toBeUndefined()
    expect(typeInto(withSpool, rows[rowOf('spool')]!, 'a', 'none', columns[0]).candidates[0]).not.toHaveProperty('spool')
    const cells = cellsOf({ ...candidate('d'), spool: 'storm-black' }, undefined, shelf)!
    expect(cells.retractLength).toMatchObject({ value: 0.7, origin: 'spool' })
    // 85 % of the flow at which its ladder failed at 210 °C.
    expect(Number(cells.flowLimit?.value)).toBeCloseTo(0.85 * 22, 9)
  })

  it('take a wall thickness for a count, and tell how thick so many walls are (CP-N8, common practice)', () => {
    expect(typeInto(content, rows[rowOf('wallCount')]!, 'a', '1.6 mm', columns[0]).candidates[0]?.values.wallCount).toBe(
      Math.round(1.6 / Number(columns[0]?.lineWidth?.value)),
    )
    expect(columns[1]?.wallCount?.also).toBe(`${Number((5 * Number(columns[1]?.lineWidth?.value)).toFixed(2))} mm`)
    expect(columns[0]?.layerHeight?.also).toBeUndefined()
  })

  it('fill right from the leftmost column, or over all columns when one is selected', () => {
    expect(walls(fillRight(content, rows, { row: rowOf('wallCount'), column: 1, fromRow: rowOf('wallCount'), fromColumn: 0 }))).toEqual([
      3,
      3,
      undefined,
    ])
    expect(walls(fillRight(content, rows, at(rowOf('wallCount'), 1)))).toEqual([3, 5, 5])
    expect(walls(fillRight(content, rows, at(rowOf('wallCount'), 0)))).toEqual([3, 3, 3])
  })

  it('paste a block, or one value over the selection; all of it or nothing', () => {
    const top = at(rowOf('wallCount'), 0)
    const pasted = pasteCells(content, rows, columns, top, '1\t2\t4\n6\t7\t8\n')
    expect(walls(pasted)).toEqual([1, 2, 4])
    expect(pasted.candidates.map(({ values }) => values.topLayers)).toEqual([6, 7, 8])
    expect(walls(pasteCells(content, rows, columns, { ...top, column: 2 }, '9'))).toEqual([9, 9, 9])
    expect(pasteCells(content, rows, columns, at(rowOf('layerHeight'), 0), '0.3 mm').candidates[0]?.values.layerHeight).toBe(0.3)
    expect(() => pasteCells(content, rows, columns, top, '1\t2\tmany')).toThrow(InputError)
  })

  it('are given back to the shelf over a whole selection, but never lose their printer', () => {
    const all = { row: rows.length - 1, column: 2, fromRow: 0, fromColumn: 0 }
    const cleared = clearCells(content, rows, all)
    expect(cleared.candidates.every(({ values }) => Object.keys(values).length === 0)).toBe(true)
    expect(cleared.candidates.map(({ printer }) => printer)).toEqual(['lugger', 'lugger', 'lugger'])
  })

  it('say where their value comes from and whether it differs from the first column', () => {
    const cells = cellsOf(content.candidates[1]!, content.candidates[0], shelf)!
    expect(cells.wallCount).toMatchObject({ value: 5, origin: 'profile', differs: true })
    expect(cells.lineWidth).toMatchObject({ origin: 'nozzle', differs: false, text: '0.40' })
    expect(cellsOf({ ...content.candidates[0]!, printer: 'gone' }, undefined, shelf)).toBeUndefined()
  })

  it('show as many decimals as their step, but never hide a finer value', () => {
    const [layerHeight] = rows.filter((row) => row.id === 'layerHeight')
    if (layerHeight?.kind !== 'setting') throw new Error('no such row')
    expect([formatValue(layerHeight.setting, 0.2), formatValue(layerHeight.setting, 0.125)]).toEqual(['0.20', '0.125'])
  })
})

describe('finding rows', () => {
  const groups = ledgerRows(shelf)
  const found = (search: string): string[] => filterRows(groups, search, undefined).flatMap((group) => group.rows.map(({ id }) => id))
  it('goes by label, by name and by what others call it', () => {
    expect(found('perimeter')).toEqual(expect.arrayContaining(['wallCount', 'innerWallSpeed']))
    expect(found('layerHeight')).toEqual(expect.arrayContaining(['layerHeight', 'firstLayerHeight']))
    expect(found('layerHeight')).not.toContain('wallCount')
    expect(found('zzz')).toEqual([])
  })
  it('leaves out what means nothing in any column, until it is searched for', () => {
    const hidden = new Set(['supportDensity'])
    const shown = (search: string): string[] =>
      filterRows(groups, search, undefined, hidden).flatMap((group) => group.rows.map(({ id }) => id))
    expect(shown('')).not.toContain('supportDensity')
    expect(shown('')).toContain('supports')
    expect(shown('support density')).toContain('supportDensity')
  })
  it('shows only what differs', () => {
    expect(filterRows(groups, '', new Set(['wallCount'])).flatMap((group) => group.rows.map(({ id }) => id))).toEqual(['wallCount'])
  })
})

describe('the selection', () => {
  const sizes = fc.record({ rows: fc.integer({ min: 1, max: 40 }), columns: fc.integer({ min: 1, max: 8 }) })
  it('never leaves the table', () => {
    fc.assert(
      fc.property(
        sizes,
        fc.array(fc.tuple(fc.integer({ min: -12, max: 12 }), fc.integer({ min: -3, max: 3 }), fc.boolean())),
        (size, moves) => {
          const end = moves.reduce(
            (selection, [row, column, extend]) => move(selection, size.rows, size.columns, row, column, extend),
            at(0, 0),
          )
          expect(clamp(end, size.rows, size.columns)).toEqual(end)
          expect(contains(end, end.row, end.column)).toBe(true)
        },
      ),
    )
  })
})

describe('comparing with the first column', () => {
  it('tells change, sense and length of bar', () => {
    const [first, less, more, none] = compareRow([100, 68, 150, undefined], { better: 'less' })
    expect(first).toEqual({ bar: 100 / 150, change: '', sense: 'same' })
    expect(less).toEqual({ bar: 68 / 150, change: '−32 %', sense: 'better' })
    expect(more).toEqual({ bar: 1, change: '+50 %', sense: 'worse' })
    expect(none?.change).toBe('')
    expect(compareRow([100, 68], { better: 'more' })[1]?.sense).toBe('worse')
    expect(compareRow([0, 5], { better: 'less' })[1]?.change).toBe('')
  })
})

describe('the ledger as CSV', () => {
  it('has a row a setting and a column a candidate, and quotes what needs it', () => {
    const csv = lineupCsv(
      { ...content, candidates: content.candidates.map((c, i) => (i === 0 ? { ...c, name: 'thin, slow' } : c)) },
      shelf,
      [undefined, undefined, undefined],
    )
    const lines = csv.split('\r\n')
    expect(lines[0]).toBe('\uFEFF,unit,"thin, slow",b,c')
    expect(lines).toContain('Walls,,3,5,3')
    expect(lines).toContain('Layer height,mm,0.2,0.2,0.2')
    expect(lines.filter((line) => line.startsWith('Time'))).toHaveLength(1 + timeRows.length)
  })
})
