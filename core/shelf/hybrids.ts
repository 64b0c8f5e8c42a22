import type { SettingValues } from '../profile/settings'
import type { Printer } from './printer'

/** A printer of which one group of limits is another's. */
export interface Hybrid {
  readonly label: string
  readonly printer: Printer
}

const ownDefaults = (values: SettingValues, wanted: (name: string) => boolean): SettingValues =>
  Object.fromEntries(Object.entries(values).filter(([name]) => wanted(name))) as SettingValues

/**
 * One printer with each group of another's limits and defaults in turn: what each of them alone changes tells which limits
 * make the difference between the two. Groups that do not differ are left out.
 */
export function hybrids(own: Printer, other: Printer): Hybrid[] {
  const withDefaults = (wanted: (name: string) => boolean): SettingValues => ({
    ...ownDefaults(own.defaults, (name) => !wanted(name)),
    ...ownDefaults(other.defaults, wanted),
  })
  const is =
    (...names: string[]) =>
    (name: string): boolean =>
      names.includes(name)
  const isAcceleration = (name: string): boolean => /acceleration$/i.test(name)
  const isPull = is('retractLength', 'retractSpeed', 'pushBackSpeed', 'retractMinTravel', 'wipeLength', 'lift', 'liftHeight')
  const isSpeed = (name: string): boolean => /Speed$/.test(name) && !isPull(name) && name !== 'cornerSpeed'
  const groups: readonly Hybrid[] = [
    {
      label: 'accelerations',
      printer: { ...own, limits: { ...own.limits, acceleration: other.limits.acceleration }, defaults: withDefaults(isAcceleration) },
    },
    { label: 'speeds', printer: { ...own, limits: { ...own.limits, speed: other.limits.speed }, defaults: withDefaults(isSpeed) } },
    { label: 'corners', printer: { ...own, cornerSchool: other.cornerSchool, defaults: withDefaults(is('cornerSpeed')) } },
    {
      label: 'extruder and retraction',
      printer: {
        ...own,
        extruder: other.extruder,
        limits: { ...own.limits, extruderSpeed: other.limits.extruderSpeed, extruderAcceleration: other.limits.extruderAcceleration },
        defaults: withDefaults(isPull),
      },
    },
    { label: 'hot end', printer: { ...own, hotEnd: other.hotEnd } },
  ]
  return groups.filter(({ printer }) => asText(printer) !== asText(own))
}

const asText = ({ limits, cornerSchool, extruder, hotEnd, defaults }: Printer): string =>
  JSON.stringify([limits, cornerSchool, extruder, hotEnd, Object.entries(defaults).sort()])
