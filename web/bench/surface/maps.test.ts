import type { Prediction } from '@sable/core/pipeline/predict'
import type { SurfaceMap } from '@sable/core/views/surfaceMap'
import { describe, expect, it } from 'vitest'
import { mapKinds, meansByLayer, rangeOf, readingAt } from './maps'

const kind = (id: string) => mapKinds.find((one) => one.id === id)!
/** A small facet in the first layer, a large and a small one in the second, the last of them without a value. */
const map: SurfaceMap = {
  corners: Float32Array.from([
    0, 0, 0, 1, 0, 0.1, 0, 1, 0.1, 0, 0, 0.3, 3, 0, 0.3, 0, 2, 0.3, 0, 0, 0.3, 1, 0, 0.3, 0, 1, 0.3, 5, 5, 0.3, 6, 5, 0.3, 5, 6, 0.3,
  ]),
  raUm: Float32Array.of(4, 10, 20, Number.NaN),
  leanDeg: Float32Array.of(0, -40, 90, -90),
  offMm: Float32Array.of(0.1, 3, Number.NaN, Number.NaN),
  lostMm2: Float64Array.of(0, 2),
  seams: Float32Array.of(0, 0, 0.1, 0, 0, 0.3, 1, 1, 0.3),
}
const prediction = {
  tracks: {
    z: Float64Array.of(0.2, 0.4),
    timeS: Float64Array.of(12, 9),
    melt: Float64Array.of(0.3, 0.5),
    gloss: Float64Array.of(Number.NaN, 0.8),
    bond: Float64Array.of(1, 0.6),
    swayMm: Float64Array.of(0, 0.01),
  },
  settings: { ironing: 'off', supports: 'off', supportAngle: 50, lineWidth: 0.4 },
} as unknown as Prediction

describe('maps of the surface', () => {
  it('have one scale for all that is compared, which ends where the map says', () => {
    const rougher = { ...map, raUm: Float32Array.of(44) }
    expect(
      rangeOf(kind('roughness'), [
        { prediction, drawing: map },
        { prediction, drawing: rougher },
      ]),
    ).toEqual({ low: 0, high: 44 })
    expect(rangeOf(kind('gloss'), [{ prediction, drawing: map }]).high).toBe(100)
    expect(rangeOf(kind('detail'), [{ prediction, drawing: map }]).high).toBe(1)
    expect(rangeOf(kind('sway'), []).high).toBe(0.05)
  })

  it('are read at a place: the facet’s value or the layer’s, with its cause', () => {
    const rough = readingAt(kind('roughness'), prediction, map, 1, 0.3)
    expect(rough).toMatchObject({ value: 10, layer: 1, leanDeg: -40 })
    expect(rough.cause).toBe('Layers of 0.20 mm stand as steps on a face that leans 40° over.')
    expect(readingAt(kind('bond'), prediction, map, 1, 0.3)).toMatchObject({
      value: 60,
      cause: 'The layer below took 12.0 s and had cooled for as long.',
    })
    expect(readingAt(kind('seam'), prediction, map, 1, 0.3).cause).toMatch(/^2 closed outer walls/)
    expect(readingAt(kind('gloss'), prediction, map, 0, 0.1).value).toBeUndefined()
    expect(readingAt(kind('overhang'), prediction, map, 3, 0.3)).toMatchObject({
      value: undefined,
      cause: 'Lies on the bed and takes its face.',
    })
    // tan 40° of a 0.2 mm layer.
    expect(readingAt(kind('overhang'), prediction, map, 1, 0.3).cause).toContain('0.17 mm beyond')
  })

  it('are told by layer as means over the area', () => {
    // 3 mm² of 10 and half a square millimetre of 20.
    const means = meansByLayer(map.raUm, map, prediction.tracks.z)
    expect(means[0]).toBe(4)
    expect(means[1]).toBeCloseTo((3 * 10 + 0.5 * 20) / 3.5, 6)
    expect(meansByLayer(map.offMm, map, Float64Array.of(0.2, 0.4, 9))[2]).toBeNaN()
  })
})
