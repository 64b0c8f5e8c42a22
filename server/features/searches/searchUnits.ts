import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import type { SearchContext, SearchSpec } from '@sable/contract/search'
import { setupOf } from '@sable/contract/shelf'
import { readPart } from '@sable/core/formats/readPart'
import { loadPolygonKernel, type PolygonKernel } from '@sable/core/geometry/polygon'
import type { Part } from '@sable/core/mesh/part'
import { type Purpose, placeOf } from '@sable/core/physics/strength/purpose'
import { layDown } from '@sable/core/pipeline/layDown'
import { predict } from '@sable/core/pipeline/predict'
import { rankingVoxel, type SolvedOptions, solvedForPurpose } from '@sable/core/pipeline/solvedWork'
import { StageCache } from '@sable/core/pipeline/stageCache'
import type { Variant } from '@sable/core/search/explore'
import { type Figures, figuresOf } from '@sable/core/search/figures'
import { startOf } from '@sable/core/search/space'
import { runToEnd } from '@sable/core/units/steps'

/** Everything that all variants of a search share. */
export interface SearchWork {
  readonly bytes: Uint8Array
  readonly fileName: string
  readonly contentKey: string
  readonly spec: SearchSpec
  readonly context: SearchContext
}

/** A variant to be evaluated, or to be solved as well. */
export interface SearchUnit {
  readonly variant: Variant
  readonly isSolved?: true
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
export function openSearchUnits(work: SearchWork): (unit: SearchUnit) => Promise<Evaluated> {
  const { spec, context } = work
  const cache = new StageCache(400, MEMORY)
  let opened: Promise<{ readonly kernel: PolygonKernel; readonly part: Part }> | undefined
  const open = async () => {
    const script = createRequire(import.meta.url).resolve('clipper2-wasm')
    const kernel = await loadPolygonKernel(await readFile(join(dirname(script), 'clipper2z.wasm')))
    return { kernel, part: readPart(work.bytes, work.fileName, work.contentKey) }
  }
  return async ({ variant, isSolved }) => {
    opened ??= open()
    const { kernel, part } = await opened
    const { base, placement, purpose } = startOf(spec, spec.dimensions, variant)
    const setup = setupOf(base, context.shelf, context.day)
    const before = { ...cache.counts }
    const counted = () => ({ reused: cache.counts.reused - before.reused, computed: cache.counts.computed - before.computed })
    if (!setup) return counted()
    try {
      const options = { kernel, cache, overrides: base.overrides, load: placeOf(purpose) }
      const prediction = predict(part, placement, setup, base.values, options)
      const figures = figuresOf(prediction, purpose)
      if (!isSolved) return { figures, ...counted() }
      // Of a soft part it counts how far it gives way, and it does so further than a solve follows.
      if (prediction.flexible) return { figures: { ...figures, solvedN: null }, ...counted() }
      const laid = layDown(part, placement, setup, base.values, options)
      // Infill may be ranked against walls here.
      const solving = { voxelMm: rankingVoxel(prediction.settings) }
      return { figures: { ...figures, solvedN: solvedN({ part, placement, laid, prediction, setup }, purpose, solving) }, ...counted() }
    } catch (error) {
      if (error instanceof Error && error.name === 'InputError') return counted()
      throw error
    }
  }
}

/** The force at which a variant fails, N; nothing where there is none to be told. */
function solvedN(of: Parameters<typeof solvedForPurpose>[0], purpose: Purpose, options: SolvedOptions): number | null {
  try {
    const { failureN } = runToEnd(solvedForPurpose(of, purpose, options)).solved
    return Number.isFinite(failureN) ? failureN : null
  } catch (error) {
    if (error instanceof Error && error.name === 'InputError') return null
    throw error
  }
}
