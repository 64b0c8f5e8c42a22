import { type Override, Scopes } from '../profile/overrides'
import { settings as definitions, type SettingName, type Settings, type SettingValues, settingNames } from '../profile/settings'
import { type Stage, stages } from '../profile/table/setting'

/** What a stage is the first to read, in the profile and in its overrides: what its key is made of. */
export function ownOf(stage: Stage, settings: Settings, overrides: readonly Override[]): unknown {
  const isOwn = (name: SettingName): boolean => definitions[name].stage === stage
  const places = overrides.flatMap(({ name: _, values, speedPercent, picture, ...where }) => {
    const ownValues = Object.entries(values).filter(([name]) => isOwn(name as SettingName))
    const speeds = stage === 'motion' ? [speedPercent, picture?.darkSpeed, picture?.lightSpeed] : []
    // Paths are divided at the rim of a place whatever changes there, and where the greys of a picture do.
    const place = stage === 'toolpath' ? { ...where, picture: picture && { ...picture, ...unknownSpeeds } } : where
    const isRead = ownValues.length > 0 || speeds.some((speed) => speed !== undefined) || stage === 'toolpath'
    return isRead ? [[place, ownValues, ...speeds]] : []
  })
  return [Object.fromEntries(settingNames.filter(isOwn).map((name) => [name, settings[name]])), places]
}

/** Paths are the same whatever speeds a picture stands for. */
const unknownSpeeds = { darkSpeed: 0, lightSpeed: 0 }

/** Settings that a stage may read at all: its own and those of the stages above, which its input already depends on. */
export function visibleTo(stage: Stage, settings: Settings, overrides: readonly Override[]): Scopes {
  const reach = stages.indexOf(stage)
  const only = (values: SettingValues): SettingValues =>
    Object.fromEntries(Object.entries(values).filter(([name]) => stages.indexOf(definitions[name as SettingName].stage) <= reach))
  return new Scopes(
    only(settings) as Settings,
    overrides.map(({ speedPercent, values, picture, ...place }) => ({
      ...place,
      ...(picture ? { picture: reach >= stages.indexOf('motion') ? picture : { ...picture, ...unknownSpeeds } } : {}),
      ...(reach >= stages.indexOf('motion') && speedPercent !== undefined ? { speedPercent } : {}),
      values: only(values),
    })),
  )
}
