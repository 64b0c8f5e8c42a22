import { describe, expect, it } from 'vitest'
import { filled, problemsOf } from './ownText'

const printer = { buildVolume: [250, 250, 260] as [number, number, number], kinematics: 'movingBed' as const }
const good = 'M140 S{bed}\nM104 S{nozzle}\nM190 S{bed}\nM109 S{nozzle}\nG28 ; home\nG0 X5 Y5 Z0.3\nG91\nG1 X-3 F600\nG90'

describe('a printer’s own start text', () => {
  it('gets the numbers of its print', () => {
    const values = { nozzle: 208, bed: 60, layer: 0.2, left: 104.96, right: 145, front: 100, back: 150, top: 71.000_04 }
    expect(filled('M109 S{nozzle}\nG0 X{left} Z{top} ; {colour}', values)).toBe('M109 S208\nG0 X104.96 Z71 ; {colour}')
  })

  it('that heats, waits, homes and stays inside is right', () => {
    expect(problemsOf(good, 'start', printer)).toEqual([])
  })

  it.each([
    ['G28', 'G29', 'never homes'],
    ['M109 S{nozzle}', 'M105', 'never waits for the nozzle'],
    ['M109 S{nozzle}', 'M109 S215', 'heats to 215 °C whatever is asked: write {nozzle}'],
    ['M190 S{bed}', 'M190 S60', 'write {bed}'],
    ['X5 Y5', 'X5 Y300', 'drives to Y 300, outside 0 to 250'],
    ['X5 Y5', 'X-4 Y5', 'drives to X -4'],
    ['M140 S{bed}', 'M140 S{bett}', 'nothing stands for {bett}'],
  ])('with %s written %s: %s', (was, is, words) => {
    expect(problemsOf(good.replace(was, is), 'start', printer).join(' ')).toContain(words)
  })

  it('at its end leaves nothing hot', () => {
    expect(problemsOf('M104 S0\nM140 S0\nM84', 'end', printer)).toEqual([])
    expect(problemsOf('M84', 'end', printer)).toHaveLength(2)
  })
})
