import type { Variant } from '@sable/core/search/explore'
import type { Figures } from '@sable/core/search/figures'
import { choicesOf } from '@sable/core/search/space'
import type { SearchUnit, SearchWork } from '../features/searches/searchUnits'
import type { Lanes, OpenLanes } from '../jobs/lanes'

/**
 * Evaluates variants by arithmetic instead of by printing, so that tests of the runner take no time: thick layers are quick and
 * rough, walls are slow and strong. Every variant takes a turn of the event loop.
 */
export const inProcess =
  (count: number, seen: Variant[] = [], units: SearchUnit[] = []): OpenLanes =>
  <Unit, Result>(_: string, shared: unknown): Lanes<Unit, Result> => ({
    count,
    async run(_, unit) {
      const { variant, isSolved } = unit as unknown as SearchUnit
      const { spec } = shared as SearchWork
      await new Promise((resolve) => setImmediate(resolve))
      units.push(unit as unknown as SearchUnit)
      if (!isSolved) seen.push(variant)
      const of = (name: string, otherwise: number): number => {
        const d = spec.dimensions.findIndex((dimension) => dimension.kind === 'setting' && dimension.name === name)
        return d < 0 ? otherwise : Number(choicesOf(spec.dimensions[d]!)[variant[d]!])
      }
      const [height, walls, density] = [of('layerHeight', 0.2), of('wallCount', 3), of('infillDensity', 15)]
      const figures: Figures = {
        time: (600 * (1 + walls + density / 20)) / height,
        filament: 5 * walls + density / 4,
        cost: walls + density / 20,
        surface: 90 * height,
        gloss: 0.5,
        strength: 20 * walls + density,
        sway: 0,
        strings: 0,
        stops: 0,
        ...(isSolved ? { solvedN: 14 * walls + density } : {}),
      }
      return { ...(walls === 13 ? {} : { figures }), reused: 3, computed: 2 } as Result
    },
    close: async () => {},
  })
