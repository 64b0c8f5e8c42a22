import type { Candidate, LineupContent } from '@sable/contract/lineup'
import type { StoredPart } from '@sable/contract/part'
import { type Shelf, setupOf } from '@sable/contract/shelf'
import { placeOf } from '@sable/core/physics/strength/purpose'
import type { Prediction } from '@sable/core/pipeline/predict'
import type { Stage } from '@sable/core/profile/table/setting'
import { create } from 'zustand'
import { today } from '../ui/today'
import { PredictionPool } from './predictionPool'
import type { PredictRequest } from './worker/request'

/** What is known of one column. The last figures stay in sight, as old ones, while new ones are computed. */
export interface Forecast {
  readonly key: string
  readonly state: 'running' | 'done' | 'stopped' | 'refused'
  readonly prediction?: Prediction | undefined
  readonly startedAt: number
  readonly stage?: Stage
  readonly share?: number
  /** Its worker ended without a word, and it is computed again. */
  readonly again?: boolean
  readonly refusal?: { readonly message: string; readonly where: string; readonly remedy: string }
}

export const useForecasts = create<Record<string, Forecast>>()(() => ({}))

const MOST_REMEMBERED = 200
const remembered = new Map<string, Prediction>()
let pool: PredictionPool | undefined

export const predictionPool = (): PredictionPool => {
  pool ??= new PredictionPool()
  return pool
}

let followed: (() => void) | undefined

/** Makes the figures of every candidate follow the lineup: computes what changed, forgets what is gone. */
export function followLineup(content: LineupContent, part: StoredPart, shelf: Shelf): void {
  followed = () => followLineup(content, part, shelf)
  const wanted = new Map<string, PredictRequest>()
  for (const candidate of content.candidates) {
    const request = requestFor(candidate, content, part, shelf)
    if (request) wanted.set(candidate.id, request)
  }
  for (const id of Object.keys(useForecasts.getState())) {
    if (wanted.has(id)) continue
    predictionPool().cancel(id)
    useForecasts.setState(({ [id]: _, ...rest }) => rest, true)
  }
  for (const [id, request] of wanted) {
    if (useForecasts.getState()[id]?.key !== keyOf(request)) start(id, request)
  }
}

/** What the core needs to compute a candidate; undefined when the shelf lacks what it names. */
export function requestFor(
  candidate: Candidate,
  { placement, purpose }: Pick<LineupContent, 'placement' | 'purpose'>,
  part: StoredPart,
  shelf: Shelf,
): PredictRequest | undefined {
  const setup = setupOf(candidate, shelf, today())
  if (!setup) return undefined
  return {
    partId: part.id,
    contentKey: part.contentKey,
    fileName: part.fileName,
    placement,
    setup,
    values: candidate.values,
    overrides: candidate.overrides,
    load: placeOf(purpose),
  }
}

/** Stops a column's computation; its last figures stay, marked as old. */
export function stopForecast(id: string): void {
  update(id, (forecast) => (forecast.state === 'running' ? { ...forecast, state: 'stopped' } : forecast))
  predictionPool().cancel(id)
}

/** Lets a stopped column be computed after all. */
export function resumeForecast(id: string): void {
  update(id, (forecast) => ({ ...forecast, key: '' }))
  followed?.()
}

function start(id: string, request: PredictRequest): void {
  const key = keyOf(request)
  const before = useForecasts.getState()[id]
  const known = remembered.get(key)
  if (known) {
    predictionPool().cancel(id)
    put(id, { key, state: 'done', prediction: known, startedAt: performance.now() })
    return
  }
  put(id, { key, state: 'running', prediction: before?.prediction, startedAt: performance.now() })
  const ifWanted = (change: (forecast: Forecast) => Forecast): void =>
    update(id, (forecast) => (forecast.key === key ? change(forecast) : forecast))
  predictionPool().submit(id, request, {
    onProgress: (stage, share) => ifWanted((forecast) => (forecast.state === 'running' ? { ...forecast, stage, share } : forecast)),
    onLost: () => ifWanted(({ stage: _, share: __, ...forecast }) => ({ ...forecast, again: true })),
    onAnswer(answer) {
      if (answer.kind === 'done') {
        remember(key, answer.prediction)
        ifWanted(({ startedAt }) => ({ key, state: 'done', prediction: answer.prediction, startedAt }))
      } else if (answer.kind === 'refused') {
        const { message, where, remedy } = answer
        ifWanted(({ startedAt }) => ({ key, state: 'refused', startedAt, refusal: { message, where, remedy } }))
      }
    },
  })
}

/** Says all that a prediction depends on. */
export const keyOf = ({ contentKey, placement, setup, values, overrides, load }: PredictRequest): string =>
  JSON.stringify([contentKey, placement, setup, Object.entries(values).sort(), overrides, load])

const put = (id: string, forecast: Forecast): void => useForecasts.setState({ [id]: forecast })

function update(id: string, change: (forecast: Forecast) => Forecast): void {
  const forecast = useForecasts.getState()[id]
  if (forecast) put(id, change(forecast))
}

function remember(key: string, prediction: Prediction): void {
  remembered.set(key, prediction)
  if (remembered.size > MOST_REMEMBERED) remembered.delete(remembered.keys().next().value as string)
}
