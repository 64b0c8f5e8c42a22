import { readPart } from '@sable/core/formats/readPart'
import { loadPolygonKernel, type PolygonKernel } from '@sable/core/geometry/polygon'
import type { Part } from '@sable/core/mesh/part'
import { StageCache } from '@sable/core/pipeline/stageCache'
import { trialPart } from '@sable/core/trials/plan'
import { loadSolidKernel, type SolidKernel } from '@sable/core/trials/solids/solidKernel'
import { InputError } from '@sable/core/units/errors'
import kernelUrl from 'clipper2-wasm/dist/umd/clipper2z.wasm?url'
import solidsUrl from 'manifold-3d/manifold.wasm?url'
import { fetchPartFile } from '../../api/parts'
import type { PlacedPart } from './request'

/** What a worker keeps between questions. */

let kernel: Promise<PolygonKernel> | undefined
let solids: Promise<SolidKernel> | undefined
const parts = new Map<string, Promise<Part>>()
/** Stages of the columns. */
export const cache = new StageCache(8)
/** Of what is only tried, kept apart: the columns' own stages must not be pushed out. */
export const triedCache = new StageCache(12, 256 << 20)

let turn: Promise<unknown> = Promise.resolve()

/** One after another: what is remembered of one column is there for its drawings. */
export function inTurn<T>(job: () => Promise<T>): Promise<T> {
  const done = turn.then(job, job)
  turn = done.catch(() => {})
  return done
}

export const openKernel = (): Promise<PolygonKernel> => {
  kernel ??= fetch(kernelUrl)
    .then((response) => response.arrayBuffer())
    .then(loadPolygonKernel)
  kernel.catch(() => {
    kernel = undefined
  })
  return kernel
}

const openSolids = (): Promise<SolidKernel> => {
  solids ??= fetch(solidsUrl)
    .then((response) => response.arrayBuffer())
    .then(loadSolidKernel)
  return solids
}

/** @throws InputError when the server does not give it, or it cannot be read */
export function loadPart(placed: Omit<PlacedPart, 'placement'>): Promise<Part> {
  const { contentKey, made } = placed
  const known = parts.get(contentKey)
  if (known) return known
  const loading = made ? openSolids().then((solids) => trialPart(made.spec, made.setup, solids)) : fetchPart(placed)
  parts.set(contentKey, loading)
  loading.catch(() => parts.delete(contentKey))
  return loading
}

const fetchPart = ({ partId, contentKey, fileName }: Omit<PlacedPart, 'placement'>): Promise<Part> =>
  fetchPartFile(partId).then(
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

/** Part and kernel, which all work on toolpaths needs. */
export async function toolsFor(request: PlacedPart): Promise<{ readonly part: Part; readonly polygons: PolygonKernel }> {
  const [part, polygons] = await Promise.all([loadPart(request), openKernel()])
  return { part, polygons }
}

/** Lets what waits in this worker have its turn. Returns whether anybody still wants to know. */
export async function isStillWanted(stop: Int32Array): Promise<boolean> {
  await new Promise((resolve) => setTimeout(resolve))
  return Atomics.load(stop, 0) === 0
}
