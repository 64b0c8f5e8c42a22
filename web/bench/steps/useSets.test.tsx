import type { Prediction } from '@sable/core/pipeline/predict'
import { act, renderHook } from '@testing-library/react'
import { beforeEach, expect, it, vi } from 'vitest'
import type { PredictRequest } from '../../predictions/worker/request'
import { predictionOf, useSets } from './useSets'

/** What is asked of the workers: a prediction is answered by the name of what was asked for. */
const pool = vi.hoisted(() => ({ tryAll: vi.fn() }))
vi.mock('../../predictions/predictionStore', () => ({ predictionPool: () => pool }))
let answer: () => void
beforeEach(() => {
  pool.tryAll.mockReset()
  pool.tryAll.mockImplementation((requests: string[], _stop: Int32Array, onEach: (i: number, prediction: unknown) => void) => {
    answer = () => requests.forEach((request, i) => void onEach(i, `prediction of ${request}`))
  })
})
const requestFor = (taken: ReadonlySet<string>) => ([...taken].sort().join(' and ') || 'nothing') as unknown as PredictRequest
const setsOf = (...all: string[][]): ReadonlySet<string>[] => all.map((one) => new Set(one))
const told = (sets: ReturnType<typeof useSets>, wanted: readonly ReadonlySet<string>[]) =>
  wanted.map((taken) => predictionOf(sets, taken) as Prediction | string | undefined)

it('what was found for one order is never told of another: a set that is new waits for its own figures', () => {
  const [first, second] = [setsOf([], ['walls'], ['walls', 'infill']), setsOf([], ['infill'], ['infill', 'walls'])]
  const { result, rerender } = renderHook(({ wanted }) => useSets('hook', wanted, requestFor), { initialProps: { wanted: first } })
  act(() => answer())
  expect(told(result.current, first)).toEqual(['prediction of nothing', 'prediction of walls', 'prediction of infill and walls'])
  rerender({ wanted: second })
  expect(told(result.current, second)).toEqual(['prediction of nothing', undefined, 'prediction of infill and walls'])
  expect(result.current).toMatchObject({ done: 2, wanted: 3 })
  // Only what is not known yet is asked for.
  expect(pool.tryAll.mock.lastCall?.[0]).toEqual(['infill'])
  act(() => answer())
  expect(told(result.current, second)).toEqual(['prediction of nothing', 'prediction of infill', 'prediction of infill and walls'])
})

it('of other candidates everything is asked anew, and what was asked of the first is told to stop', () => {
  const wanted = setsOf([], ['walls'])
  const { result, rerender } = renderHook(({ ends }) => useSets(ends, wanted, requestFor), { initialProps: { ends: 'hook' } })
  const [, stop] = pool.tryAll.mock.lastCall as [unknown, Int32Array]
  const late = answer
  rerender({ ends: 'finial' })
  expect(stop[0]).toBe(1)
  act(() => late())
  expect(told(result.current, wanted)).toEqual([undefined, undefined])
  act(() => answer())
  expect(told(result.current, wanted)).toEqual(['prediction of nothing', 'prediction of walls'])
})
