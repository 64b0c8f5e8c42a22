import type { Settings } from '../../profile/settings'
import { code } from '../../toolpath/toolpath'

type FanSettings = Pick<
  Settings,
  'fanSpeed' | 'fanFromLayer' | 'fanRampLayers' | 'bridgeFan' | 'overhangFan25' | 'overhangFan50' | 'overhangFan75'
>

/** Fan of a move, %: none on the bed, and at least that of its class where a line hangs over air (`air`: 0–255). */
export function fanFor(feature: number, air: number, layer: number, settings: FanSettings): number {
  if (layer === 0) return 0
  if (feature === code.bridge) return settings.bridgeFan
  const least = [0, settings.overhangFan25, settings.overhangFan50, settings.overhangFan75][air >> 6]!
  return Math.max(Math.round(fanShare(layer, settings) * settings.fanSpeed), least)
}

/** Share of the fan's speed that a layer has: none before the first that it blows on, then growing. */
export function fanShare(layer: number, { fanFromLayer, fanRampLayers }: Pick<Settings, 'fanFromLayer' | 'fanRampLayers'>): number {
  return Math.max(0, Math.min(1, (layer + 2 - fanFromLayer) / (fanRampLayers + 1)))
}
