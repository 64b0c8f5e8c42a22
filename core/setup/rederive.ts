import { applies } from '../profile/applies'
import { type SettingName, type SettingValues, settingNames } from '../profile/settings'
import { type Origin, resolveSettings, type Setup } from './resolve'

/** What another printer, nozzle, material or spool does to one setting of a profile. */
export interface Rederived {
  readonly name: SettingName
  readonly from: number | string
  readonly to: number | string
  /**
   * `followed`: it came from the shelf and comes from there again, with another value. `held`: the profile says it, so it
   * stays, though what is beneath it would now say `to`.
   */
  readonly kind: 'followed' | 'held'
  readonly origin: Origin
  readonly why: string
}

/** Everything in a profile that depends on what it is printed with, after a change of that. Only settings that mean something. */
export function rederive(before: Setup, after: Setup, values: SettingValues): Rederived[] {
  const [was, is] = [resolveSettings(before, values), resolveSettings(after, values)]
  const [below, belowNow] = [resolveSettings(before, {}), resolveSettings(after, {})]
  return settingNames.flatMap((name): Rederived[] => {
    if (!applies(name, is.settings)) return []
    if (is.origins[name] !== 'profile') {
      if (was.settings[name] === is.settings[name]) return []
      const origin = is.origins[name]
      return [{ name, from: was.settings[name], to: is.settings[name], kind: 'followed', origin, why: reason(name, origin) }]
    }
    const to = belowNow.settings[name]
    if (to === below.settings[name] || to === is.settings[name]) return []
    const origin = belowNow.origins[name]
    return [{ name, from: is.settings[name], to, kind: 'held', origin, why: reason(name, origin) }]
  })
}

const reasons: Partial<Readonly<Record<SettingName, string>>> = {
  lineWidth: 'a line as wide as the bore',
  layerHeight: 'half the bore',
  firstLayerHeight: 'half the bore, and thick enough to forgive the bed',
  flowLimit: 'what this hot end melts of this filament, by ladder or assumed',
}

function reason(name: SettingName, origin: Origin): string {
  const own = origin === 'nozzle' || name === 'flowLimit' ? reasons[name] : undefined
  return own ?? (origin === 'fallback' ? 'common practice, as nothing else says it' : `the ${origin} says so`)
}
