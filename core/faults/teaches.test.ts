import { describe, expect, it } from 'vitest'
import { flowAt, flowLine, withLadder } from '../learning/flowLine'
import type { Scene } from './spec/scene'
import { taughtBy } from './teaches'

/** Layers of 1 mm with the flow that is asked in each, mm³/s, of a hot end that is thought to fail at 20. */
const layers = (flows: readonly number[], atZ?: number): Scene =>
  ({
    atZ,
    settings: { nozzleTemperature: 210 },
    prediction: {
      tracks: { z: Float64Array.from(flows, (_, i) => i + 1), melt: Float64Array.from(flows, (flow) => flow / 20) },
      melt: { failsAt: 20 },
    },
  }) as never

describe('a case that came to the flow', () => {
  it('says that the limit lies between what failed and what held', () => {
    const { evidence, words } = taughtBy('splitBand', 'flowOver', layers([8, 8, 8, 12, 8, 8, 8], 4))!
    expect(evidence).toMatchObject([{ on: 'ladder', temperature: 210 }])
    const [{ flow, noise }] = evidence as unknown as readonly [{ flow: number; noise: number }]
    expect(flow).toBeCloseTo(Math.sqrt(96), 6)
    expect(noise).toBeCloseTo(Math.log(1.5) / 2, 6)
    expect(words).toContain('failed at 12.0 mm³/s and held at 8.0')
    // It moves what was thought, and less than a ladder that was read would.
    const before = flowLine(20, 0.3, 0.26, 0.06)
    const after = (as?: number) => flowAt(withLadder(before, { temperature: 210, flow, noise: as }), 210).median
    expect(after(noise)).toBeLessThan(20)
    expect(after(noise)).toBeGreaterThan(after())
    expect(after()).toBeGreaterThan(flow)
  })

  it('of which nothing near was asked elsewhere knows one side only, and says so by its doubt', () => {
    const [{ noise, flow }] = taughtBy('gaps', 'flowOver', layers([2, 2, 2, 12, 2, 2, 2], 4))!.evidence as unknown as readonly [
      { flow: number; noise: number },
    ]
    expect(noise).toBe(0.25)
    expect(flow).toBeLessThan(12)
  })

  it('says nothing where as much was asked of layers that held, at no height, of another cause or fault', () => {
    expect(taughtBy('splitBand', 'flowOver', layers([8, 13, 8, 12, 8, 8, 8], 6.5))).toBeUndefined()
    expect(taughtBy('splitBand', 'flowOver', layers([8, 12, 8]))).toBeUndefined()
    expect(taughtBy('splitBand', 'cold', layers([8, 8, 8, 12, 8], 4))).toBeUndefined()
    expect(taughtBy('openTop', 'flowOver', layers([8, 8, 8, 12, 8], 4))).toBeUndefined()
  })
})
