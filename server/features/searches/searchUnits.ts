import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import type { SearchContext, SearchSpec } from '@sable/contract/search'
import { setupOf } from '@sable/contract/shelf'
import { readPart } from '@sable/core/formats/readPart'
import { loadPolygonKernel, type PolygonKernel } from '@sable/core/geometry/polygon'
import type { Part } from '@sable/core/mesh/part'
import { placeOf } from '@sable/core/physics/strength/purpose'
import { predict } from '@sable/core/pipeline/predict'
import { StageCache } from '@sable/core/pipeline/stageCache'
import type { Variant } from '@sable/core/search/explore'
import { type Figures, figuresOf } from '@sable/core/search/figures'
import { startOf } from '@sable/core/search/space'

/** Everything that all variants of a search share. */
export interface SearchWork {
  readonly bytes: Uint8Array
  readonly fileName: string
  readonly contentKey: string
  readonly spec: SearchSpec
  readonly context: SearchContext
}

/** Nothing in `figures` where the variant cannot be printed; stages that were at hand and that had to be computed. */
export interface Evaluated {
  readonly figures?: Figures
  readonly reused: number
  readonly computed: number
}

/** Each opened search remembers about this much of what it computed. */
const MEMORY = 600 * 2 ** 20

/** Evaluates variants of a search. Stages are remembered, so neighbours cost only what differs. */
export function openSearchUnits(work: SearchWork): (variant: Variant) => Promise<Evaluated> {
  const { spec, context } = work
  const cache = new StageCache(400, MEMORY)
  let opened: Promise<{ readonly kernel: PolygonKernel; readonly part: Part }> | undefined
  const open = async () => {
    const script = createRequire(import.meta.url).resolve('clipper2-wasm')
    const kernel = await loadPolygonKernel(await readFile(join(dirname(script), 'clipper2z.wasm')))
    return { kernel, part: readPart(work.bytes, work.fileName, work.contentKey) }
  }
  return async (variant) => {
    opened ??= open()
    const { kernel, part } = await opened
    const { base, placement, purpose } = startOf(spec, spec.dimensions, variant)
    const setup = setupOf(base, context.shelf, context.day)
    const before = { ...cache.counts }
    const counted = () => ({ reused: cache.counts.reused - before.reused, computed: cache.counts.computed - before.computed })
    if (!setup) return counted()
    try {
      const prediction = predict(part, placement, setup, base.values, {
        kernel,
        cache,
        overrides: base.overrides,
        load: placeOf(purpose),
      })
      return { figures: figuresOf(prediction, purpose), ...counted() }
    } catch (error) {
      if (error instanceof Error && error.name === 'InputError') return counted()
      throw error
    }
  }
}
