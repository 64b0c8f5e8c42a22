import { write3mf } from '@sable/core/formats/write3mf'
import { writeStl } from '@sable/core/formats/writeStl'
import type { Mesh } from '@sable/core/mesh/mesh'
import { place } from '@sable/core/mesh/place'
import { Crew, type Line } from '@sable/core/pipeline/crew/crew'
import { predictWork } from '@sable/core/pipeline/predict'
import type { Stage } from '@sable/core/profile/table/setting'
import { programFor } from '@sable/core/program/programFor'
import { ProgramTimer } from '@sable/core/program/timeProgram'
import type { Printer } from '@sable/core/shelf/printer'
import { Cancelled } from '@sable/core/units/errors'
import * as Comlink from 'comlink'
import { cache, inTurn, loadPart, openKernel, toolsFor } from './atHand'
import { drawing } from './drawing'
import { plating } from './plating'
import { type PlacedPart, type PredictAnswer, type PredictRequest, type ProgramAnswer, refusalOf } from './request'
import { solving } from './solving'
import { trying } from './trying'
import { holdLife } from './workerLife'

const PROGRESS_MS = 80
/** A program is read in pieces of this many bytes. */
const PIECE = 1 << 21

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
      return refusalOf(error)
    }
  },

  ...trying,
  ...solving,
  ...drawing,
  ...plating((work) => crew.do(work, () => {})),

  /** The program that prints a candidate, as a file. */
  async writeProgram(request: PredictRequest, head: readonly string[] = []): Promise<Blob> {
    const { part, polygons } = await toolsFor(request)
    return inTurn(async () => {
      const pieces: string[] = []
      const { placement, setup, values, overrides, fileName } = request
      programFor(
        part,
        placement,
        setup,
        values,
        { kernel: polygons, cache, overrides, partName: fileName, filament: 'relative', head },
        (text) => pieces.push(text),
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

  /** The bare mesh of a part, as it stands. */
  async meshOf(request: PlacedPart): Promise<Mesh> {
    return place((await loadPart(request)).mesh, request.placement)
  },

  /** The mended part as it lies on the bed, as a 3MF or STL file. */
  async writeModel(request: PlacedPart, kind: 'stl' | '3mf', name: string): Promise<Blob> {
    const part = await loadPart(request)
    const mesh = place(part.mesh, request.placement)
    const bytes = kind === '3mf' ? write3mf(mesh, name) : writeStl(mesh)
    return new Blob([bytes as Uint8Array<ArrayBuffer>], { type: kind === '3mf' ? 'model/3mf' : 'model/stl' })
  },
}

export type PredictWorker = typeof api

Comlink.expose(api)
// Every question needs it, and it takes longer to load than a question to come.
void openKernel().catch(() => {})
