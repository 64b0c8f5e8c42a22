import type { Prediction } from '../../pipeline/predict'
import { formatDuration } from '../../units/format'
import { asPercent, type Figure, timeRow } from './figure'

/** A share of the time that layers wait for; less is not worth telling. */
const SHOWS = 0.05

/** Whether the least layer time takes enough to be told beside the time (CP-T11). */
export const matters = ({ timeS, unslowedS }: Pick<Prediction, 'timeS' | 'unslowedS'>): boolean => timeS > unslowedS * (1 + SHOWS)

/** "12 min unslowed" */
export const unslowedNote = ({ unslowedS }: Pick<Prediction, 'unslowedS'>): string => `${formatDuration(unslowedS)} unslowed`

export const unslowed: Figure = {
  ...timeRow(
    'unslowed',
    'Unslowed time',
    (p) => p.unslowedS,
    'The same moves without the least layer time: what printing several parts at once, or a fan that cools better, would give back.',
  ),
  id: 'unslowed',
  noun: 'unslowed time',
  beside: 'time',
  plain: { unit: 'min', per: 60, digits: 0 },
  value: (p) => p.unslowedS,
  shown: formatDuration,
  explain: (p) => ({
    equation: 't = Σ over layers of their time before any was slowed',
    terms: [
      { label: 'time as it will be printed', value: formatDuration(p.timeS) },
      { label: 'of it waiting for layers to take their least time', value: formatDuration(p.timeS - p.unslowedS) },
      { label: 'layers slowed', value: `${p.layersSlowed} of ${p.layerCount}` },
      { label: 'least layer time', value: `${p.settings.minLayerTime} s` },
    ],
    place: matters(p)
      ? `The least layer time adds ${asPercent(p.timeS / p.unslowedS - 1)}: speed alone will hardly shorten this print.`
      : 'The least layer time adds next to nothing here.',
    basis: 'calculated',
    source: 'The plan of motion of each layer at the speeds that are asked, before it is slowed.',
  }),
}
