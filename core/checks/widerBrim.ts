import { outerBrim } from '../profile/outerBrim'
import type { Settings, SettingValues } from '../profile/settings'

/** A brim this wide holds, and one wider than that is not worth its plastic, mm; semi-empirical. */
const [WIDE, WIDEST] = [8, 16]

/** A brim outside, or one that is twice as wide, up to a sensible width; never a narrower one than there is. */
export function widerBrim(settings: Pick<Settings, 'brim' | 'brimWidth'>): SettingValues {
  const has = outerBrim(settings) > 0
  return {
    brim: has ? settings.brim : settings.brim === 'inner' ? 'both' : 'outer',
    brimWidth: Math.max(settings.brimWidth, has ? Math.min(WIDEST, 2 * settings.brimWidth) : WIDE),
  }
}
