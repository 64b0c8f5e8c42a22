import type { Purpose } from '@sable/core/physics/strength/purpose'
import { placeOf } from '@sable/core/physics/strength/purpose'
import { predict } from '@sable/core/pipeline/predict'
import { StageCache } from '@sable/core/pipeline/stageCache'
import { figuresOf, limitsOf } from '@sable/core/search/figures'
import { suggest, type Tried } from '@sable/core/suggest/suggest'
import { type Try, triesFor } from '@sable/core/suggest/tries'
import { InputError } from '@sable/core/units/errors'
import type { Command } from 'commander'
import { candidateOf, purposeOf } from '../candidate'
import { loadPart } from '../files'
import { openKernel } from '../openKernel'
import { readNumber, type SharedOptions, withLoad } from '../options'
import { Progress } from '../progress'
import { plainJson, print } from '../report'

interface Limits {
  readonly maxMinutes?: number
  readonly maxCost?: number
  readonly maxRa?: number
  readonly minLoad?: number
}

/** What asks for supports, by the ids of checks. */
const hangs: readonly string[] = ['overhangs-without-supports', 'begins-in-mid-air', 'overhang-unheld']

export function addSuggest(program: Command): void {
  withLoad(
    program
      .command('suggest')
      .description('the fastest, the smoothest and the strongest of what practice would try first')
      .argument('<model>', 'STL, 3MF or OBJ file'),
  )
    .option('--max-minutes <minutes>', 'time at most', readNumber('--max-minutes'))
    .option('--max-cost <cost>', 'cost at most', readNumber('--max-cost'))
    .option('--max-ra <um>', 'surface Ra at most, µm', readNumber('--max-ra'))
    .option('--min-load <newtons>', 'load that it bears at least, N', readNumber('--min-load'))
    .action(async (model: string, options: SharedOptions & Limits) => {
      const part = await loadPart(model)
      const kernel = await openKernel()
      const cache = new StageCache()
      const purpose = withLimits(purposeOf(options), options)
      const { setup, values, placement } = candidateOf(undefined, options)
      const progress = new Progress()
      const of = (one: Try, share: number): Tried & { readonly hangs: boolean } => {
        progress.tell(one.name, share)
        try {
          const prediction = predict(part, placement, setup, { ...one.values, ...values }, { kernel, cache, load: placeOf(purpose) })
          return { ...one, figures: figuresOf(prediction, purpose), hangs: prediction.checks.some(({ id }) => hangs.includes(id)) }
        } catch (error) {
          if (!(error instanceof InputError)) throw error
          return { ...one, figures: undefined, hangs: false }
        }
      }
      const [first] = triesFor(setup, false)
      const tries = triesFor(setup, of(first!, 0).hangs)
      const tried = tries.map((one, i) => of(one, (i + 1) / (tries.length + 1)))
      progress.end()
      const found = suggest(tried, limitsOf(purpose))
      if (options.json)
        return print(
          plainJson({
            suggestions: found.map(({ roles, keeps, why, tried: { values: own, figures } }) => ({
              roles,
              keeps,
              why,
              settings: own,
              figures,
            })),
          }),
        )
      if (found.length === 0) return print('Nothing of what was tried can be printed on this machine.')
      for (const { roles, why } of found) print(`${roles.join(', ') || 'nearest'}\n  ${why}`)
    })
}

const withLimits = (purpose: Purpose, { maxMinutes, maxCost, maxRa, minLoad }: Limits): Purpose => ({
  ...purpose,
  limits: {
    ...(maxMinutes === undefined ? {} : { maxTimeS: 60 * maxMinutes }),
    ...(maxCost === undefined ? {} : { maxCost }),
    ...(maxRa === undefined ? {} : { maxRaUm: maxRa }),
    ...(minLoad === undefined ? {} : { minLoadN: minLoad }),
  },
})
