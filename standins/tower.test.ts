import { describe, expect, it } from 'vitest'
import { Machine } from './printer/machine'
import { towerBands, towerProgram } from './testing'
import { lengthOf, runProgram, seenThing } from './thing'
import { drawnTower, type TowerKind } from './tower'
import { truthFrom } from './truth'

function made(kind: TowerKind, lines: readonly string[], values: readonly number[], seed: number) {
  const making = drawnTower(kind, lines, towerBands(values), seed)
  let step = making.next()
  while (!step.done) step = making.next()
  return step.value
}

const run = (lines: readonly string[], truth = truthFrom(5)): Machine => {
  const machine = new Machine(truth)
  for (const _ of runProgram(machine, lines));
  return machine
}

describe('a drawn tower', () => {
  const heat = [180, 190, 200, 210, 220]
  it('is the same for the same seed', () => {
    const lines = towerProgram(5, { heat })
    expect(made('temperature', lines, heat, 6)).toEqual(made('temperature', lines, heat, 6))
    expect(made('temperature', lines, heat, 6).truth).not.toBe(made('temperature', lines, heat, 8).truth)
  })

  it('of temperature has its gaps below what is clean and most strings above, over many of them', () => {
    const lines = towerProgram(5, { heat })
    let [gapsAbove, gapsBelow, stringsAbove, stringsBelow] = [0, 0, 0, 0]
    for (let seed = 0; seed < 30; seed++) {
      const { counts, truth } = made('temperature', lines, heat, seed)
      for (const [i, { strings, gaps }] of counts.entries())
        if (heat[i]! < truth) {
          gapsBelow += gaps
          stringsBelow += strings
        } else {
          gapsAbove += gaps
          stringsAbove += strings
        }
    }
    expect(gapsBelow).toBeGreaterThan(20 * Math.max(1, gapsAbove))
    expect(stringsAbove).toBeGreaterThan(3 * stringsBelow)
  })

  it('of flow is whole up to where it fails by its own truth, and full of holes beyond', () => {
    const flow = [8, 12, 16, 20, 24, 28, 32]
    const lines = towerProgram(7, { flow })
    for (let seed = 0; seed < 12; seed++) {
      const { counts, truth } = made('flowLadder', lines, flow, seed)
      for (const [i, { gaps }] of counts.entries()) {
        // A wall of 150 mm reaches what is asked up to the limits of the machine's speed.
        if (flow[i]! < 0.95 * truth) expect(gaps, `${seed}: ${flow[i]} of ${truth}`).toBeLessThan(12)
        if (flow[i]! > 1.2 * truth && flow[i]! < 400 * 0.2 * 0.4) expect(gaps, `${seed}: ${flow[i]} of ${truth}`).toBeGreaterThan(12)
      }
    }
  })

  it('of retraction strings less the more is pulled back, and its truth lies where it is clean', () => {
    const pull = [0, 0.4, 0.8, 1.2, 1.6]
    const lines = towerProgram(5, { pull })
    let sums = pull.map(() => 0)
    for (let seed = 0; seed < 20; seed++) {
      const { counts, truth } = made('retraction', lines, pull, seed)
      sums = sums.map((sum, i) => sum + counts[i]!.strings)
      if (truth > 1.6) continue
      const under = counts[pull.findIndex((length) => length >= truth)]!
      expect(under.strings, String(seed)).toBeLessThan(6)
    }
    expect(sums[0]).toBeGreaterThan(2 * sums[1]!)
    expect(sums[1]).toBeGreaterThan(2 * sums[3]!)
  })
})

describe('what lies on a table', () => {
  it('has the outline of what was laid, with the opening between its columns', () => {
    const { making } = run(towerProgram(1, {}))
    const thing = seenThing(making)!
    expect(thing.heightMm).toBeCloseTo(4, 6)
    expect(thing.widthMm).toBeCloseTo(36, 0)
    const [[, a], [b]] = thing.rows[5]!.spans as [[number, number], [number, number]]
    expect(b - a).toBeCloseTo(20, -0.5)
  })

  it('is as long by the caliper as it was asked for, less what it shrinks', () => {
    const machine = run(towerProgram(1, {}), { ...truthFrom(5), shrinks: 0.01 })
    expect(lengthOf(machine.making, machine.truth, 'X')).toBeCloseTo(36 * 0.99, 0)
    expect(lengthOf(machine.making, machine.truth, 'Y')).toBeCloseTo(8 * 0.99, 0)
    expect(lengthOf(machine.making, machine.truth, 'Z')).toBeCloseTo(4 * 0.99, 6)
  })

  it('pulled upwards parts at its plastic’s area by what its layers bear', () => {
    const truth = { ...truthFrom(5), strengthMpa: 50, bond: 0.6, flowFactor: 1, thermometer: 0, window: { low: 190, high: 200 } }
    const loads = Array.from({ length: 9 }, (_, seed) => {
      const machine = new Machine(truth, undefined, seed)
      for (const _ of runProgram(machine, towerProgram(1, {})));
      return machine.making.pullN()
    }).sort((a, b) => a - b)
    // Two rings of 32 mm of 0.4 mm lines are 25.6 mm².
    expect(loads[4]).toBeGreaterThan(0.9 * 25.6 * 50 * 0.6)
    expect(loads[4]).toBeLessThan(1.1 * 25.6 * 50 * 0.6)
  })

  it('hangs where a line spans the air, less with a fan', () => {
    const bridge = (fan: number) => [
      ...['G28', 'G90', 'M83', 'M109 S205', `M106 S${fan}`, 'G0 Z0.2', 'G1 X2 E1 F1200', 'G0 X22', 'G1 X24 E1'],
      ...['G0 X0', 'G0 Z0.4', 'G1 X24 E1'],
    ]
    const sag = (fan: number): number => run(bridge(fan)).making.layers[1]!.sagMm
    expect(sag(0)).toBeGreaterThan(2 * sag(255))
    expect(sag(255)).toBeGreaterThan(0.01)
  })
})
