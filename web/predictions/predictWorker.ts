import type { Lever } from '@sable/core/advice/levers'
import type { Constants } from '@sable/core/constants/constants'
import { findSlopes, type Slopes } from '@sable/core/doubt/slopes'
import { valuesOf } from '@sable/core/figures/figures'
import { readPart } from '@sable/core/formats/readPart'
import { write3mf } from '@sable/core/formats/write3mf'
import { writeStl } from '@sable/core/formats/writeStl'
import { loadPolygonKernel, type PolygonKernel } from '@sable/core/geometry/polygon'
import type { Part } from '@sable/core/mesh/part'
import { type Placement, place } from '@sable/core/mesh/place'
import type { LoadPlace, Purpose } from '@sable/core/physics/strength/purpose'
import { Crew, type Line } from '@sable/core/pipeline/crew/crew'
import { type Prediction, predict, predictWork } from '@sable/core/pipeline/predict'
import { StageCache } from '@sable/core/pipeline/stageCache'
import type { Override } from '@sable/core/profile/overrides'
import type { SettingValues } from '@sable/core/profile/settings'
import type { Stage } from '@sable/core/profile/table/setting'
import { programFor } from '@sable/core/program/programFor'
import { type ProgramFigures, ProgramTimer } from '@sable/core/program/timeProgram'
import { knownSetup } from '@sable/core/setup/knownSetup'
import type { Setup } from '@sable/core/setup/resolve'
import type { Printer } from '@sable/core/shelf/printer'
import { Cancelled, InputError } from '@sable/core/units/errors'
import { type DrawnMoves, drawnMoves } from '@sable/core/views/drawnMoves'
import { type LoadMap, loadMap } from '@sable/core/views/loadMap'
import { type SurfaceMap, surfaceMap } from '@sable/core/views/surfaceMap'
import kernelUrl from 'clipper2-wasm/dist/umd/clipper2z.wasm?url'
import * as Comlink from 'comlink'
import { fetchPartFile } from '../api/parts'
import { holdLife } from './workerLife'

export interface PredictRequest {
  readonly partId: string
  readonly contentKey: string
  readonly fileName: string
  readonly placement: Placement
  readonly setup: Setup
  readonly values: SettingValues
  readonly overrides: readonly Override[]
  readonly load: LoadPlace | undefined
}

export type PlacedPart = Pick<PredictRequest, 'partId' | 'contentKey' | 'fileName' | 'placement'>

/** What crosses back: classes do not survive the way between threads. */
export type PredictAnswer =
  | { readonly kind: 'done'; readonly prediction: Prediction }
  | { readonly kind: 'cancelled' }
  | { readonly kind: 'refused'; readonly message: string; readonly where: string; readonly remedy: string }

export type ProgramAnswer =
  | { readonly kind: 'done'; readonly figures: readonly ProgramFigures[] }
  | Exclude<PredictAnswer, { readonly kind: 'done' }>

/** @throws what is no refusal */
function refusalOf(error: unknown, fileName: string): Extract<PredictAnswer, { readonly kind: 'refused' }> {
  if (!(error instanceof InputError)) throw error
  return {
    kind: 'refused',
    message: error.message,
    where: [fileName, error.where].filter((text) => text !== '').join(', '),
    remedy: error.remedy,
  }
}

const PROGRESS_MS = 80
/** A program is read in pieces of this many bytes. */
const PIECE = 1 << 21

let kernel: Promise<PolygonKernel> | undefined
const parts = new Map<string, Promise<Part>>()
const cache = new StageCache(8)
/** Of what is only tried, kept apart: the columns' own stages must not be pushed out. */
const triedCache = new StageCache(12, 256 << 20)

/** The other workers of the page: who has nothing to do helps. */
const crew = new Crew(() => openKernel())
/** Lines to them, by their lives. */
const lines = new Map<string, Line>()

const lineOf = (port: MessagePort): Line => ({
  post: (message, transfer) => port.postMessage(message, [...transfer]),
  listen: (onMessage) => {
    port.onmessage = ({ data }) => onMessage(data)
  },
})

let turn: Promise<unknown> = Promise.resolve()

/** One after another: what is remembered of one column is there for its drawings. */
function inTurn<T>(job: () => Promise<T>): Promise<T> {
  const done = turn.then(job, job)
  turn = done.catch(() => {})
  return done
}

const openKernel = (): Promise<PolygonKernel> => {
  kernel ??= fetch(kernelUrl)
    .then((response) => response.arrayBuffer())
    .then(loadPolygonKernel)
  return kernel
}

function loadPart({ partId, contentKey, fileName }: Pick<PredictRequest, 'partId' | 'contentKey' | 'fileName'>): Promise<Part> {
  const known = parts.get(contentKey)
  if (known) return known
  const loading = fetchPartFile(partId).then(
    (bytes) => readPart(bytes, fileName, contentKey),
    () => {
      throw new InputError(
        'part-unreachable',
        'The model file could not be read from the server.',
        fileName,
        'Start the server again and reload the page.',
      )
    },
  )
  parts.set(contentKey, loading)
  loading.catch(() => parts.delete(contentKey))
  return loading
}

const api = {
  /** Holds a lock for as long as this worker lives, by which the page learns that it has ended. */
  live: holdLife,

  /** A line to another worker, to help it and be helped. @param life the other's */
  meet(port: MessagePort, life: string): void {
    const line = lineOf(port)
    lines.set(life, line)
    crew.join(line)
  },

  /** Another worker has ended: what it was to help with is taken back. */
  lost(life: string): void {
    const line = lines.get(life)
    if (line) crew.leave(line)
    lines.delete(life)
  },

  /** Predicts one candidate. The first entry of `stop` becomes 1 when nobody waits any more. */
  async predict(request: PredictRequest, stop: Int32Array, onProgress: (stage: Stage, share: number) => void): Promise<PredictAnswer> {
    let told = 0
    try {
      const part = await loadPart(request)
      const { placement, setup, values, overrides, load } = request
      const prediction = await inTurn(() =>
        crew.do(predictWork(part, placement, setup, values, { cache, overrides, load }), (stage, share) => {
          if (Atomics.load(stop, 0) === 1) throw new Cancelled('superseded')
          const now = performance.now()
          if (now - told < PROGRESS_MS) return
          told = now
          onProgress(stage, share)
        }),
      )
      return { kind: 'done', prediction }
    } catch (error) {
      if (error instanceof Cancelled) return { kind: 'cancelled' }
      if (error instanceof InputError) return { kind: 'refused', message: error.message, where: error.where, remedy: error.remedy }
      throw error
    }
  },

  /**
   * Predicts a candidate with each single change of `levers`, one after another. Stops when the first entry of `stop`
   * becomes 1. A change that cannot be printed is left out.
   */
  async tryLevers(
    request: PredictRequest,
    levers: readonly Lever[],
    stop: Int32Array,
    onEach: (lever: Lever, prediction: Prediction) => void,
  ): Promise<void> {
    const [part, polygons] = await Promise.all([loadPart(request), openKernel()])
    // The columns' own stages stay remembered: these are kept apart.
    const own = new StageCache(2)
    const { placement, setup, values, overrides, load } = request
    const of = (changed: SettingValues): Prediction =>
      predict(part, placement, setup, { ...values, ...changed }, { kernel: polygons, cache: own, overrides, load })
    of({})
    for (const lever of levers) {
      // Lets what waits in this worker have its turn.
      await new Promise((resolve) => setTimeout(resolve))
      if (Atomics.load(stop, 0) === 1) return
      try {
        onEach(lever, of(lever.values))
      } catch (error) {
        if (!(error instanceof InputError)) throw error
      }
    }
  },

  /** Predicts a candidate as the part lies in each of some ways, in their order, with plain supports where it has none. */
  async tryPlacements(
    request: PredictRequest,
    ways: readonly Pick<PredictRequest, 'placement' | 'load'>[],
    stop: Int32Array,
    onEach: (prediction: Prediction) => void,
  ): Promise<void> {
    const [part, polygons] = await Promise.all([loadPart(request), openKernel()])
    const { setup, values, overrides } = request
    const supported: SettingValues = { ...values, supports: values.supports === 'branching' ? 'branching' : 'plain' }
    for (const { placement, load } of ways) {
      await new Promise((resolve) => setTimeout(resolve))
      if (Atomics.load(stop, 0) === 1) return
      onEach(predict(part, placement, setup, supported, { kernel: polygons, overrides, load }))
    }
  },

  /**
   * Predicts several candidates of one part, one after another, each told by its place in the list. One that cannot be printed
   * tells nothing. Stops when the first entry of `stop` becomes 1.
   */
  async tryAll(
    requests: readonly PredictRequest[],
    stop: Int32Array,
    onEach: (index: number, prediction: Prediction | undefined) => void,
  ): Promise<void> {
    const [first] = requests
    if (!first) return
    const [part, polygons] = await Promise.all([loadPart(first), openKernel()])
    for (const [index, { placement, setup, values, overrides, load }] of requests.entries()) {
      // Lets what waits in this worker have its turn.
      await new Promise((resolve) => setTimeout(resolve))
      if (Atomics.load(stop, 0) === 1) return
      try {
        onEach(index, predict(part, placement, setup, values, { kernel: polygons, cache: triedCache, overrides, load }))
      } catch (error) {
        if (!(error instanceof InputError)) throw error
        onEach(index, undefined)
      }
    }
  },

  /**
   * How the figures of a candidate hang on each constant. Nothing where it was given up, or cannot be printed. Stops when the
   * first entry of `stop` becomes 1.
   */
  async findSlopes(
    request: PredictRequest,
    purpose: Purpose,
    stop: Int32Array,
    onProgress: (share: number) => void,
  ): Promise<Slopes | undefined> {
    const [part, polygons] = await Promise.all([loadPart(request), openKernel()])
    const { placement, setup, values, overrides, load } = request
    const valuesWith = (constants: Constants) =>
      valuesOf(predict(part, placement, { ...setup, constants }, values, { kernel: polygons, cache: triedCache, overrides, load }), purpose)
    const work = findSlopes(valuesWith, knownSetup(setup).constants)
    try {
      for (;;) {
        // Lets what waits in this worker have its turn.
        await new Promise((resolve) => setTimeout(resolve))
        if (Atomics.load(stop, 0) === 1) return undefined
        const { done, value } = work.next()
        if (done) return value
        onProgress(value)
      }
    } catch (error) {
      if (error instanceof InputError) return undefined
      throw error
    }
  },

  /** The program that prints a candidate, as a file. */
  async writeProgram(request: PredictRequest): Promise<Blob> {
    const [part, polygons] = await Promise.all([loadPart(request), openKernel()])
    return inTurn(async () => {
      const pieces: string[] = []
      const { placement, setup, values, overrides, fileName } = request
      programFor(part, placement, setup, values, { kernel: polygons, cache, overrides, partName: fileName, filament: 'relative' }, (text) =>
        pieces.push(text),
      )
      return new Blob(pieces, { type: 'text/plain' })
    })
  },

  /** Times a program on every printer in one pass over the file. Stops when the first entry of `stop` becomes 1. */
  async timeProgram(
    file: File,
    printers: readonly Printer[],
    featurePattern: string | undefined,
    stop: Int32Array,
    onProgress: (share: number) => void,
  ): Promise<ProgramAnswer> {
    const timers = printers.map((printer) => new ProgramTimer(printer, featurePattern === undefined ? {} : { featurePattern }))
    let read = 0
    for (let at = 0; at < file.size; at += PIECE) {
      if (Atomics.load(stop, 0) === 1) return { kind: 'cancelled' }
      const bytes = new Uint8Array(await file.slice(at, at + PIECE).arrayBuffer())
      try {
        for (const timer of timers) timer.push(bytes)
      } catch (error) {
        return refusalOf(error, file.name)
      }
      read += bytes.length
      onProgress(read / file.size)
    }
    try {
      return { kind: 'done', figures: timers.map((timer) => timer.finish()) }
    } catch (error) {
      return refusalOf(error, file.name)
    }
  },

  /** The mended part as it lies on the bed, as a 3MF or STL file. */
  async writeModel(request: PlacedPart, kind: 'stl' | '3mf', name: string): Promise<Blob> {
    const part = await loadPart(request)
    const mesh = place(part.mesh, request.placement)
    const bytes = kind === '3mf' ? write3mf(mesh, name) : writeStl(mesh)
    return new Blob([bytes as Uint8Array<ArrayBuffer>], { type: kind === '3mf' ? 'model/3mf' : 'model/stl' })
  },

  /** Every move of a candidate, for drawing. */
  async drawMoves(request: PredictRequest): Promise<DrawnMoves> {
    const [part, polygons] = await Promise.all([loadPart(request), openKernel()])
    return inTurn(async () => {
      const { placement, setup, values, overrides } = request
      const moves = drawnMoves(part, placement, setup, values, { kernel: polygons, cache, overrides })
      return Comlink.transfer(
        moves,
        Object.values(moves).map(({ buffer }) => buffer),
      )
    })
  },

  /** The surface of a candidate, for drawing. */
  async drawSurface(request: PredictRequest): Promise<SurfaceMap> {
    const [part, polygons] = await Promise.all([loadPart(request), openKernel()])
    return inTurn(async () => {
      const { placement, setup, values, overrides } = request
      const map = surfaceMap(part, placement, setup, values, { kernel: polygons, cache, overrides })
      return Comlink.transfer(
        map,
        Object.values(map).map(({ buffer }) => buffer),
      )
    })
  },

  /** How a candidate bears loads, for drawing. */
  async drawLoads(request: PredictRequest): Promise<LoadMap> {
    const [part, polygons] = await Promise.all([loadPart(request), openKernel()])
    return inTurn(async () => {
      const { placement, setup, values, overrides, load } = request
      return loadMap(part, placement, setup, values, { kernel: polygons, cache, overrides, load })
    })
  },

  /** Triangles of the part as it lies on the bed, for drawing. */
  async meshForView(request: PlacedPart): Promise<{ positions: Float32Array; triangles: Uint32Array }> {
    const part = await loadPart(request)
    const mesh = place(part.mesh, request.placement)
    const answer = { positions: Float32Array.from(mesh.positions), triangles: mesh.triangles.slice() }
    return Comlink.transfer(answer, [answer.positions.buffer, answer.triangles.buffer])
  },
}

export type PredictWorker = typeof api

Comlink.expose(api)
