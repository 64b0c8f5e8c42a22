import type { SettingValues } from '../profile/settings'
import type { Printer } from './printer'
import { readKeyValues } from './readKeyValues'
import { positive, recordOf } from './toldRecord'

/** What a machine tells of its limits, as far as the text says; lengths mm, times s. */
export interface ToldLimits {
  readonly limits: {
    readonly speed: Partial<Printer['limits']['speed']>
    readonly acceleration: Partial<Printer['limits']['acceleration']>
    readonly extruderSpeed?: number
    readonly extruderAcceleration?: number
  }
  readonly cornerSchool?: Printer['cornerSchool']
  /** What it does against waves and pressure that lags. */
  readonly record: Pick<Printer, 'shaping' | 'shapedAt' | 'shapedAtY' | 'pressureAdvance'>
  /** Defaults of settings that the machine tells: accelerations and corner speed. */
  readonly defaults: SettingValues
  /** How a line was understood where it could mean two things, and lines that say nothing of limits. */
  readonly remarks: readonly string[]
}

/** Feeds beyond this, mm/s, are told in mm/min; no filament-laying machine runs that fast. */
const FASTEST = 2000

type Words = Readonly<Record<string, number>>

/**
 * Reads the text that a machine prints when it is asked for its settings: `M201` accelerations, `M203` feeds, `M204` printing
 * and travel accelerations, `M205` corners, by instant change (X, Y) or by deviation (J). Whatever stands before the word on
 * a line ("echo:") is passed over.
 *
 * A configuration of keys and values is read as one: see `readKeyValues`.
 *
 * A deviation J becomes the speed at a square corner, v² = a·J·s/(1 − s) with s = sin 45° (Jeon 2011, from memory).
 */
export function readLimits(text: string): ToldLimits {
  const configured = /\bM(20[1345]|593|900)\b/i.test(text) ? undefined : readKeyValues(text)
  if (configured) return configured
  const remarks: string[] = []
  const told: Record<string, Words> = {}
  const skipped: string[] = []
  for (const line of text.split(/\r?\n/)) {
    const plain = line
      .replace(/;.*/, '')
      .replace(/^\s*echo:\s*/i, '')
      .trim()
    const code = /\bM(20[1345]|593|900)(?!\d)/i.exec(plain)
    if (!code) {
      if (/\b[GM]\d/i.test(plain)) skipped.push(plain.slice(0, 40))
      continue
    }
    const rest = plain.slice(code.index + code[0].length)
    const words = Object.fromEntries(
      [...rest.matchAll(/([A-Z])\s*(-?\d*\.?\d+)/gi)].map(([, letter, value]) => [letter!.toUpperCase(), Number(value)]),
    )
    // One line an axis; without any it is of both.
    const axes = code[1] === '593' ? ['X', 'Y'].filter((axis) => new RegExp(`\\b${axis}`, 'i').test(rest)) : []
    for (const name of axes.length === 1 ? [`M593${axes[0]}`] : [code[0].toUpperCase()]) told[name] = { ...told[name], ...words }
  }
  if (skipped.length > 0)
    remarks.push(`Passed over: ${skipped.slice(0, 3).join(' | ')}${skipped.length > 3 ? ` and ${skipped.length - 3} more` : ''}.`)
  const { M201 = {}, M203 = {}, M204 = {}, M205 = {}, M593 = {}, M593X = M593, M593Y = {}, M900 = {} } = told
  if (Object.keys(told).length === 0)
    remarks.push('There is no line with M201, M203, M204, M205, M593 or M900 in this text, and no key such as max_accel.')
  const perMinute = Math.max(0, ...['X', 'Y'].map((axis) => M203[axis] ?? 0)) > FASTEST
  if (perMinute) remarks.push(`M203 tells X ${M203.X}: taken as mm/min.`)
  const feed = (value: number | undefined): number | undefined => (value === undefined ? undefined : value / (perMinute ? 60 : 1))
  const printing = M204.P ?? M204.S
  const school = M205.J !== undefined && M205.J > 0 ? 'deviation' : M205.X !== undefined ? 'instantChange' : undefined
  const atSquare = Math.SQRT1_2 / (1 - Math.SQRT1_2)
  let corner: number | undefined
  if (school === 'instantChange') corner = Math.min(M205.X!, M205.Y ?? M205.X!)
  if (school === 'deviation') {
    const acceleration = printing ?? M201.X
    if (acceleration !== undefined) corner = Math.sqrt(acceleration * M205.J! * atSquare)
    else remarks.push('M205 tells a deviation, but no line tells the acceleration that it goes with.')
  }
  return {
    limits: {
      speed: positive({ x: feed(M203.X), y: feed(M203.Y), z: feed(M203.Z) }),
      acceleration: positive({ x: M201.X, y: M201.Y, z: M201.Z }),
      ...positive({ extruderSpeed: feed(M203.E), extruderAcceleration: M201.E }),
    },
    ...(school ? { cornerSchool: school } : {}),
    record: recordOf(M593X.F, M593Y.F, M900.K),
    defaults: positive({
      acceleration: printing,
      travelAcceleration: M204.T,
      cornerSpeed: corner === undefined ? undefined : Math.round(corner * 10) / 10,
    }),
    remarks,
  }
}

export interface LimitChange {
  readonly label: string
  readonly unit: string
  readonly stored: string
  readonly told: string
}

/** What of the told limits differs from a printer's record. */
export function limitChanges(printer: Printer, { limits, cornerSchool, record, defaults }: ToldLimits): LimitChange[] {
  const row = (label: string, unit: string, stored: number | string | undefined, told: number | string | undefined): LimitChange[] =>
    told === undefined || told === stored
      ? []
      : [{ label, unit, stored: stored === undefined ? 'not set' : String(stored), told: String(told) }]
  const axes = ['x', 'y', 'z'] as const
  return [
    ...axes.flatMap((axis) => row(`Speed ${axis.toUpperCase()}`, 'mm/s', printer.limits.speed[axis], limits.speed[axis])),
    ...axes.flatMap((axis) =>
      row(`Acceleration ${axis.toUpperCase()}`, 'mm/s²', printer.limits.acceleration[axis], limits.acceleration[axis]),
    ),
    ...row('Filament feed', 'mm/s', printer.limits.extruderSpeed, limits.extruderSpeed),
    ...row('Filament acceleration', 'mm/s²', printer.limits.extruderAcceleration, limits.extruderAcceleration),
    ...row('Corners', '', printer.cornerSchool, cornerSchool),
    ...row('Input shaping', '', yesOrNo(printer.shaping), yesOrNo(record.shaping)),
    ...row('Shaped at, along X', 'Hz', printer.shapedAt, record.shapedAt),
    ...row('Shaped at, along Y', 'Hz', printer.shapedAtY, record.shapedAtY),
    ...row('Feeds ahead by', 's', printer.pressureAdvance, record.pressureAdvance),
    ...row('Printing acceleration', 'mm/s²', printer.defaults.acceleration, defaults.acceleration),
    ...row('Travel acceleration', 'mm/s²', printer.defaults.travelAcceleration, defaults.travelAcceleration),
    ...row('Corner speed', 'mm/s', printer.defaults.cornerSpeed, defaults.cornerSpeed),
  ]
}

const yesOrNo = (value: boolean | undefined): string | undefined => (value === undefined ? undefined : value ? 'yes' : 'no')

/** A printer's record with the told limits in place of its own. */
export const withLimits = (printer: Printer, { limits, cornerSchool, record, defaults }: ToldLimits): Printer => ({
  ...printer,
  ...record,
  limits: {
    ...printer.limits,
    ...limits,
    speed: { ...printer.limits.speed, ...limits.speed },
    acceleration: { ...printer.limits.acceleration, ...limits.acceleration },
  },
  cornerSchool: cornerSchool ?? printer.cornerSchool,
  defaults: { ...printer.defaults, ...defaults },
})
