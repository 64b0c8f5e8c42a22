import type { Rule } from './check'
import { widerBrim } from './widerBrim'

/** What pulls a part off its bed, or off its size. */
export const warpChecks: readonly Rule[] = [
  {
    id: 'corners-lift',
    severity: 'caution',
    setting: 'brim',
    find: ({ warp, setup: { material, printer }, resolved: { settings }, belt }) => {
      if (belt || warp.risk < 1) return
      const bed = Math.max(settings.bedTemperature, Math.round((material.bedRange[0] + material.bedRange[1]) / 2))
      return {
        evidence: `Shrinking by ${(100 * warp.strain).toFixed(2)} %, ${warp.contactMm.toFixed(0)} mm of foot pull up at their ends with ${warp.risk.toFixed(1)} times what the bed is taken to hold.`,
        means: 'Corners lift and the part warps.',
        todo: `Give it a brim and the bed the middle of its label${printer.enclosed ? '' : ', or print it in an enclosure'}.`,
        fix: {
          values: {
            ...widerBrim(settings),
            bedTemperature: bed,
          },
        },
      }
    },
  },
]
