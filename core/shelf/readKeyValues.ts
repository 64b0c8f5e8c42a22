import type { ToldLimits } from './readLimits'
import { recordOf } from './toldRecord'

/** What a key of a configuration says, by the words in it; each takes the first that fits. */
const meanings: readonly (readonly [pattern: RegExp, put: (into: Draft, value: number, axis: Axis | undefined) => void])[] = [
  [/^(square_)?corner_(velocity|speed)$/, (into, value) => (into.corner = value)],
  [/^(input_)?shap(er|ing)_freq(uency)?_[xy]$/, (into, value, axis) => (into.shaped[axis!] = value)],
  [/^pressure_advance$/, (into, value) => (into.ahead = value)],
  [/^max_(extruder?|extrude_only|e)_(velocity|speed|feedrate)$/, (into, value) => (into.feed = value)],
  [/^max_(extruder?|extrude_only|e)_accel(eration)?$/, (into, value) => (into.feedAcceleration = value)],
  [/^max_[xyz]_(velocity|speed|feedrate)$/, (into, value, axis) => (into.speed[axis!] = value)],
  [/^max_[xyz]_accel(eration)?$/, (into, value, axis) => (into.acceleration[axis!] = value)],
  [
    /^max_(print_)?(velocity|speed|feedrate)$/,
    (into, value) => Object.assign(into.speed, { x: into.speed.x ?? value, y: into.speed.y ?? value }),
  ],
  [
    /^max_(print_)?accel(eration)?$/,
    (into, value) => Object.assign(into.acceleration, { x: into.acceleration.x ?? value, y: into.acceleration.y ?? value }),
  ],
]

type Axis = 'x' | 'y' | 'z'
interface Draft {
  speed: Partial<Record<Axis, number>>
  acceleration: Partial<Record<Axis, number>>
  feed?: number
  feedAcceleration?: number
  corner?: number
  shaped: Partial<Record<Axis, number>>
  ahead?: number
}

const LINE = /^\s*([a-z][a-z0-9_ ]*?)\s*[:=]\s*(-?\d+(?:\.\d+)?)\s*(?:[#;].*)?$/i

/**
 * Reads limits out of a configuration of keys and values, one a line ("max_accel: 3000"): speeds mm/s, accelerations mm/s². Sections,
 * comments and all other keys are passed over. Undefined where there is no such key.
 */
export function readKeyValues(text: string): ToldLimits | undefined {
  const into: Draft = { speed: {}, acceleration: {}, shaped: {} }
  let found = 0
  for (const line of text.split(/\r?\n/)) {
    const [, key, value] = LINE.exec(line) ?? []
    if (key === undefined) continue
    const name = key.trim().toLowerCase().replace(/\s+/g, '_')
    const meaning = meanings.find(([pattern]) => pattern.test(name))
    // Nothing fed ahead, and no shaping, are told by 0.
    if (!meaning || !(Number(value) > 0 || (Number(value) === 0 && /^pressure|freq/.test(name)))) continue
    const axis = (/^max_([xyz])_/.exec(name) ?? /_([xy])$/.exec(name))?.[1] as Axis | undefined
    meaning[1](into, Number(value), axis)
    found++
  }
  if (found === 0) return undefined
  const { speed, acceleration, feed, feedAcceleration, corner, shaped, ahead } = into
  return {
    limits: {
      speed,
      acceleration,
      ...(feed === undefined ? {} : { extruderSpeed: feed }),
      ...(feedAcceleration === undefined ? {} : { extruderAcceleration: feedAcceleration }),
    },
    ...(corner === undefined ? {} : { cornerSchool: 'deviation' as const }),
    record: recordOf(shaped.x, shaped.y, ahead),
    defaults: {
      ...(acceleration.x === undefined ? {} : { acceleration: acceleration.x, travelAcceleration: acceleration.x }),
      ...(corner === undefined ? {} : { cornerSpeed: corner }),
    },
    remarks: [],
  }
}
