import type { LineupContent } from '@sable/contract/lineup'
import type { StoredPart } from '@sable/contract/part'
import type { Shelf } from '@sable/contract/shelf'
import type { SolvedPicture } from '@sable/core/physics/solved/picture'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import { type SolvedSway, swayMatters } from '@sable/core/pipeline/solvedSway'
import { notSolved, type SolvedPurpose, solvedKey } from '@sable/core/pipeline/solvedWork'
import * as Comlink from 'comlink'
import { create } from 'zustand'
import { type Forecast, keyOf, predictionPool, requestFor, useForecasts } from './predictionStore'
import type { PredictRequest } from './worker/request'
import type { SolvedAnswer, SwayAnswer } from './worker/solving'

/** A candidate's solved load, how far it is, or why there is none. */
export interface Solving {
  readonly key: string
  readonly solved?: SolvedPurpose
  readonly picture?: SolvedPicture
  /** Of the solving, 0–1. */
  readonly share?: number
  /** In a sentence. */
  readonly why?: string
}

/** By candidate. */
export const useSolving = create<Record<string, Solving>>()(() => ({}))

/** What was solved last is kept, and of pictures, which are large, fewer. */
const [MOST_KEPT, MOST_PICTURES] = [60, 4]
const kept = new Map<string, SolvedPurpose>()
/** By what a forecast was made of. */
const swayed = new Map<string, SolvedSway>()
const pictures = new Map<string, SolvedPicture>()

/** So long figures have stood before their load is solved, ms. */
export const PAUSE_MS = 400

interface Followed {
  readonly content: LineupContent
  readonly part: StoredPart
  readonly shelf: Shelf
}

let followed: Followed | undefined
/** Candidates whose pictures are looked at. */
let drawn: ReadonlySet<string> = new Set()
const running = new Map<string, { readonly key: string; readonly stop: Int32Array }>()
const standing = new Map<string, { readonly key: string; readonly stop: Int32Array }>()

/** Solves the purpose's load on every candidate as soon as its figures are there, and anew whenever it changes. */
export function followSolved(next: Followed | undefined): void {
  followed = next
  step()
}
useForecasts.subscribe(step)

/** Also draws how some candidates look under the load that they just bear. */
export function drawSolved(ids: readonly string[]): void {
  drawn = new Set(ids)
  step()
}

function step(): void {
  if (!followed) return
  const { content, part, shelf } = followed
  const { purpose } = content
  const ids = new Set(content.candidates.map(({ id }) => id))
  for (const [id, { stop }] of running) if (!ids.has(id)) Atomics.store(stop, 0, 1)
  for (const [id, { key, stop }] of standing) if (!ids.has(id) || useForecasts.getState()[id]?.key !== key) Atomics.store(stop, 0, 1)
  const known: Known[] = []
  for (const candidate of content.candidates) {
    const request = requestFor(candidate, content, part, shelf)
    const forecast = useForecasts.getState()[candidate.id]
    if (!request || !forecast) continue
    if (forecast.state === 'running' || forecast.key !== keyOf(request)) known.push({ isLoadWhole: false, isSwayWhole: false })
    if (forecast.state !== 'done' || forecast.key !== keyOf(request)) continue
    const load = loadOf(candidate.id, forecast, request, purpose)
    known.push({ id: candidate.id, forecast, ...load, ...swayOf(candidate.id, forecast, request, load.isLoadWhole) })
  }
  // All at once: candidates whose figures come from different models are not to be compared.
  const [isLoadWhole, isSwayWhole] = [known.every((one) => one.isLoadWhole), known.every((one) => one.isSwayWhole)]
  const attached: Record<string, Forecast> = {}
  for (const { id, forecast, solved, solvedSway } of known) {
    const { prediction } = forecast ?? {}
    if (id === undefined || !prediction) continue
    const fresh = {
      ...(isLoadWhole && solved && prediction.solved !== solved ? { solved } : {}),
      ...(isSwayWhole && solvedSway && prediction.solvedSway !== solvedSway ? { solvedSway } : {}),
    }
    if (Object.keys(fresh).length > 0) attached[id] = { ...forecast!, prediction: { ...prediction, ...fresh } }
  }
  if (Object.keys(attached).length > 0) useForecasts.setState(attached)
}

/** What is solved of a candidate, and whether all of it is that can be. */
interface Known {
  readonly id?: string
  readonly forecast?: Forecast
  readonly solved?: SolvedPurpose | undefined
  readonly solvedSway?: SolvedSway | undefined
  readonly isLoadWhole: boolean
  readonly isSwayWhole: boolean
}

/** A candidate's load, as far as it is solved; else it is begun with. */
function loadOf(id: string, { key: made }: Forecast, request: PredictRequest, purpose: Purpose): Pick<Known, 'solved' | 'isLoadWhole'> {
  if (purpose.kind === 'show') return { isLoadWhole: true }
  const key = `${made} ${solvedKey(purpose)}`
  const why = notSolved(purpose)
  if (why !== undefined) {
    tell(id, { key, why })
    return { isLoadWhole: true }
  }
  const [solved, picture] = [kept.get(key), pictures.get(key)]
  if (solved && (picture || !drawn.has(id))) {
    tell(id, { key, solved, ...(picture ? { picture } : {}) })
    return { solved, isLoadWhole: true }
  }
  const now = useSolving.getState()[id]
  if (now?.key === key && now.why !== undefined) return { isLoadWhole: true }
  if (running.get(id)?.key !== key) start(id, key, request, purpose, drawn.has(id))
  return { solved, isLoadWhole: solved !== undefined }
}

/** How a candidate stands, as far as that is solved; else it is begun with once its load is. */
function swayOf(
  id: string,
  { key, prediction }: Forecast,
  request: PredictRequest,
  isLoadWhole: boolean,
): Pick<Known, 'solvedSway' | 'isSwayWhole'> {
  if (!prediction || !swayMatters(prediction)) return { isSwayWhole: true }
  if (isLoadWhole && !swayed.has(key) && standing.get(id)?.key !== key) startSway(id, key, request)
  return { solvedSway: swayed.get(key), isSwayWhole: swayed.has(key) }
}

function tell(id: string, next: Solving): void {
  const now = useSolving.getState()[id]
  if (now?.key === next.key && now.solved === next.solved && now.picture === next.picture && now.why === next.why && !now.share) return
  useSolving.setState({ [id]: next })
}

function start(id: string, key: string, request: PredictRequest, purpose: Purpose, isDrawn: boolean): void {
  const before = running.get(id)
  if (before) Atomics.store(before.stop, 0, 1)
  const stop = new Int32Array(new SharedArrayBuffer(4))
  running.set(id, { key, stop })
  // Progress comes another way than the answer, and may come after it.
  const put = (next: Solving): void => {
    if (Atomics.load(stop, 0) === 0 && running.get(id)?.stop === stop) useSolving.setState({ [id]: next })
  }
  const known = kept.get(key)
  put({ key, share: 0, ...(known ? { solved: known } : {}) })
  const onProgress = (share: number): void => put({ key, share, ...(known ? { solved: known } : {}) })
  const ask = async (): Promise<SolvedAnswer> => {
    // Who is still typing, or only passes by, keeps no worker busy.
    await new Promise((soon) => setTimeout(soon, isDrawn ? 0 : PAUSE_MS))
    if (Atomics.load(stop, 0) === 1) return { kind: 'cancelled' }
    const worker = predictionPool().workerOf(id)
    return worker.solveLoad(request, { load: purpose.load, cases: purpose.cases }, { isDrawn }, stop, Comlink.proxy(onProgress))
  }
  ask()
    .then((answer) => {
      if (answer.kind === 'done') {
        // One object for one result, so that nothing takes a second solve for a change.
        keep(kept, key, kept.get(key) ?? answer.solved, MOST_KEPT)
        if (answer.picture) keep(pictures, key, answer.picture, MOST_PICTURES)
      } else if (answer.kind === 'refused') put({ key, why: `${answer.message} ${answer.remedy}` })
    })
    .catch((error: unknown) =>
      put({
        key,
        why: `It could not be solved. ${error instanceof Error ? error.message : String(error)} Change anything to begin again.`,
      }),
    )
    .finally(() => {
      if (running.get(id)?.stop === stop) running.delete(id)
      step()
    })
}

/** How a candidate stands; of figures that come after its own nobody waits. */
function startSway(id: string, key: string, request: PredictRequest): void {
  const stop = new Int32Array(new SharedArrayBuffer(4))
  standing.set(id, { key, stop })
  const ask = async (): Promise<SwayAnswer> => {
    await new Promise((soon) => setTimeout(soon, PAUSE_MS))
    if (Atomics.load(stop, 0) === 1) return { kind: 'cancelled' }
    return predictionPool()
      .workerOf(id)
      .solveSway(
        request,
        stop,
        Comlink.proxy(() => {}),
      )
  }
  ask()
    // What cannot be solved stays with its beams.
    .then((answer) => answer.kind !== 'cancelled' && keep(swayed, key, answer.kind === 'done' ? answer.sway : {}, MOST_KEPT))
    .catch(() => keep(swayed, key, {}, MOST_KEPT))
    .finally(() => {
      if (standing.get(id)?.stop === stop) standing.delete(id)
      step()
    })
}

function keep<T>(all: Map<string, T>, key: string, value: T, most: number): void {
  all.delete(key)
  all.set(key, value)
  if (all.size > most) all.delete(all.keys().next().value as string)
}
