import type { Prediction } from '@sable/core/pipeline/predict'
import type { Stage } from '@sable/core/profile/table/setting'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { candidateOf, lineupOf, shelf, storedPart } from '../testing/lineups'
import type { PredictAnswer, PredictRequest } from './worker/request'

interface Submitted {
  readonly id: string
  readonly request: PredictRequest
  readonly onProgress: (stage: Stage, share: number) => void
  readonly onAnswer: (answer: PredictAnswer) => void
}
const submitted: Submitted[] = []
const cancelled: string[] = []
vi.mock('./predictionPool', () => ({
  PredictionPool: class {
    submit(id: string, request: PredictRequest, handlers: Pick<Submitted, 'onProgress' | 'onAnswer'>): void {
      submitted.push({ id, request, ...handlers })
    }
    cancel(id: string): void {
      cancelled.push(id)
    }
  },
}))
const { followLineup, keyOf, requestFor, resumeForecast, stopForecast, useForecasts } = await import('./predictionStore')

// What was computed is remembered for the whole page, so every test has values of its own.
let walls = 0
const one = () => candidateOf('one', { wallCount: walls })
const two = () => candidateOf('two', { wallCount: walls, layerHeight: 0.1 })
const follow = (...candidates: ReturnType<typeof one>[]): void => followLineup(lineupOf(candidates), storedPart, shelf)
const forecast = (name: string) => useForecasts.getState()[candidateOf(name).id]
const told = (timeS: number): PredictAnswer => ({ kind: 'done', prediction: { timeS } as Prediction }) as PredictAnswer

beforeEach(() => {
  followLineup(lineupOf([]), storedPart, shelf)
  submitted.length = 0
  cancelled.length = 0
  walls++
})

describe('figures of the columns', () => {
  it('are asked for once for each column, and again only for the one that changed', () => {
    follow(one(), two())
    follow(one(), two())
    expect(submitted.map(({ id }) => id)).toEqual([one().id, two().id])
    follow({ ...one(), values: { wallCount: walls, topLayers: 9 } }, two())
    expect(submitted.slice(2).map(({ request }) => request.values)).toEqual([{ wallCount: walls, topLayers: 9 }])
  })

  it('do not depend on what a column is called, nor on the order of its values', () => {
    const request = (values: object) => requestFor({ ...one(), values }, lineupOf(), storedPart, shelf)!
    expect(keyOf(request({ wallCount: 2, topLayers: 3 }))).toBe(keyOf(request({ topLayers: 3, wallCount: 2 })))
    expect(keyOf(requestFor({ ...one(), name: 'other' }, lineupOf(), storedPart, shelf)!)).toBe(keyOf(request(one().values)))
    expect(keyOf(request({ wallCount: 2 }))).not.toBe(keyOf(request({ wallCount: 3 })))
  })

  it('stay in sight as old ones while new ones are computed', () => {
    follow(one())
    submitted[0]!.onProgress('regions', 0.4)
    expect(forecast('one')).toMatchObject({ state: 'running', stage: 'regions', share: 0.4 })
    submitted[0]!.onAnswer(told(60))
    expect(forecast('one')).toMatchObject({ state: 'done', prediction: { timeS: 60 } })
    follow({ ...one(), values: { wallCount: walls, topLayers: 8 } })
    expect(forecast('one')).toMatchObject({ state: 'running', prediction: { timeS: 60 } })
  })

  it('of an answer that is not wanted any more are passed over, but remembered', () => {
    follow(one())
    follow({ ...one(), values: { wallCount: walls, topLayers: 7 } })
    submitted[0]!.onAnswer(told(60))
    expect(forecast('one')).toMatchObject({ state: 'running', prediction: undefined })
    submitted[1]!.onAnswer(told(90))
    // Undo: the older figures are known already.
    follow(one())
    expect(forecast('one')).toMatchObject({ state: 'done', prediction: { timeS: 60 } })
    expect(submitted).toHaveLength(2)
  })

  it('that cannot be had tell why, in the place of the figures', () => {
    follow(one())
    submitted[0]!.onAnswer({ kind: 'refused', message: 'It is flat.', where: 'block.stl', remedy: 'Turn it.' })
    expect(forecast('one')).toMatchObject({ state: 'refused', refusal: { message: 'It is flat.', where: 'block.stl', remedy: 'Turn it.' } })
    expect(forecast('one')?.prediction).toBeUndefined()
  })

  it('are stopped and asked for again by hand', () => {
    follow(one())
    stopForecast(one().id)
    expect(forecast('one')?.state).toBe('stopped')
    expect(cancelled).toContain(one().id)
    // Nothing has changed, so following the lineup does not start it again.
    follow(one())
    expect(submitted).toHaveLength(1)
    resumeForecast(one().id)
    expect(submitted).toHaveLength(2)
    expect(forecast('one')?.state).toBe('running')
  })

  it('of a column that is gone are forgotten, and its computation is stopped', () => {
    follow(one(), two())
    follow(two())
    expect(forecast('one')).toBeUndefined()
    expect(cancelled).toContain(one().id)
  })

  it('are not asked for where the shelf lacks what a column names', () => {
    follow({ ...one(), printer: 'gone' })
    expect(submitted).toEqual([])
    expect(forecast('one')).toBeUndefined()
  })
})
