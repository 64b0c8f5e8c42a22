import type { Limiter } from '@sable/core/motion/limiters'
import type { TimeFigures } from '@sable/core/motion/timeFigures'
import type { SettingName } from '@sable/core/profile/settings'
import type { Forecast } from '../../predictions/predictionStore'
import type { LedgerRow } from './rows'

const featureOf: Partial<Readonly<Record<SettingName, keyof TimeFigures['realSpeeds']>>> = {
  outerWallSpeed: 'outerWall',
  innerWallSpeed: 'innerWall',
  infillSpeed: 'infill',
  topBottomSpeed: 'topBottom',
  bridgeSpeed: 'bridge',
  ironingSpeed: 'ironing',
  supportSpeed: 'support',
  travelSpeed: 'travel',
}

const words: Readonly<Record<Limiter, string>> = {
  asked: '',
  firstLayer: 'first layer',
  override: 'override',
  flow: 'flow',
  axis: 'axis limit',
  extruder: 'extruder feed',
  acceleration: 'acceleration',
  corner: 'corners',
  layerTime: 'layer time',
}

/** "gets 150: flow" for a speed that is asked and not reached; undefined when it is. */
export function heldBack(row: LedgerRow, forecast: Forecast | undefined): string | undefined {
  if (row.kind !== 'setting' || forecast?.state !== 'done' || !forecast.prediction) return undefined
  const feature = featureOf[row.id]
  if (feature === undefined) return undefined
  const { speedMmS, limiter } = forecast.prediction.realSpeeds[feature]
  const asked = forecast.prediction.settings[row.id]
  if (limiter === 'asked' || speedMmS === 0 || typeof asked !== 'number' || speedMmS > 0.99 * asked) return undefined
  return `gets ${Math.round(speedMmS)}: ${words[limiter]}`
}
