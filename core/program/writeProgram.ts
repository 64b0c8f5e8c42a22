import { filamentArea } from '../melt/flow'
import type { Motion } from '../motion/planMotion'
import type { Setup } from '../profile/resolve'
import { settings as definitions, type Settings, settingNames } from '../profile/settings'
import { code, features, isLaid, type Toolpath } from '../toolpath/toolpath'
import { formatDuration } from '../units/format'
import { mark } from './words'

export interface ProgramRequest {
  readonly partName: string
  readonly path: Toolpath
  readonly motion: Motion
  /** Settings in force for a set of exceptions, a bit for each. */
  readonly settingsOf: (scope: number) => Settings
  readonly setup: Setup
  readonly figures: { readonly timeS: number; readonly massG: number; readonly lengthMm: number }
  /** Whether every E word counts from the last one or from the beginning. */
  readonly filament: 'relative' | 'absolute'
}

/** Coordinates are written to the micrometre, filament to a hundredth of that. */
const COORDINATE_DIGITS = 3
const FILAMENT_DIGITS = 5

/**
 * Writes a path as G-code: RS-274 words and the common additive M-codes. Speeds are those that flow, layer time and
 * profile leave, so that a machine that knows nothing of them keeps to them.
 *
 * @param write takes the program piece by piece, in order
 */
export function writeProgram(request: ProgramRequest, write: (text: string) => void): void {
  write(header(request))
  write(start(request))
  new Body(request, write).run()
  write(end(request))
}

function header({ partName, setup, figures, settingsOf, filament }: ProgramRequest): string {
  const { printer, nozzle, material } = setup
  const { limits } = printer
  const own = settingsOf(0)
  const lines = [
    'Program by Sable Lantern',
    `part        ${partName}`,
    `printer     ${printer.name}, bed ${printer.buildVolume.join(' x ')} mm`,
    `nozzle      ${nozzle.name}`,
    `material    ${material.name}`,
    `printing    ${formatDuration(figures.timeS)} predicted, heating and homing not included`,
    `filament    ${(figures.lengthMm / 1000).toFixed(2)} m, ${figures.massG.toFixed(1)} g, E words ${filament}`,
    '',
    'LOOK BEFORE RUNNING',
    `- It is meant for ${printer.name} with a ${nozzle.bore} mm bore and ${material.name} only.`,
    `- It heats the nozzle to ${own.nozzleTemperature} C and the bed to ${own.bedTemperature} C. Never leave a first print alone.`,
    '- It homes first. The bed must be clear, and the head must be able to reach its end stops.',
    `- It assumes that X0 Y0 is the front left corner and that the machine can reach ${printer.buildVolume.join(' x ')} mm.`,
    '- Watch the first layer, and keep a hand near the switch.',
    '',
    'LIMITS OF THE MACHINE',
    `speed X ${limits.speed.x}  Y ${limits.speed.y}  Z ${limits.speed.z} mm/s`,
    `acceleration X ${limits.acceleration.x}  Y ${limits.acceleration.y}  Z ${limits.acceleration.z} mm/s2`,
    `filament feed ${limits.extruderSpeed} mm/s, ${limits.extruderAcceleration} mm/s2`,
    '',
    'SETTINGS',
    ...settingNames.map((name) => {
      const { unit } = { unit: '', ...definitions[name] } as { unit: string }
      return `${name} = ${own[name]}${unit === '' ? '' : ` ${ascii(unit)}`}`
    }),
  ]
  return `${lines.map((line) => `; ${line}`.trimEnd()).join('\n')}\n;${mark.cornerSpeed}${own.cornerSpeed}\n`
}

const ascii = (unit: string): string => unit.replace('²', '2').replace('³', '3').replace('°', '')

function start({ settingsOf, filament }: ProgramRequest): string {
  const { nozzleTemperature, bedTemperature } = settingsOf(0)
  return [
    '; --- start: units, heat, home ---',
    'G21 ; millimetres',
    'G90 ; absolute coordinates',
    filament === 'relative' ? 'M83 ; filament from word to word' : 'M82 ; filament from the beginning',
    'M107 ; fan off',
    `M140 S${bedTemperature} ; bed, do not wait`,
    `M104 S${nozzleTemperature} ; nozzle, do not wait`,
    `M190 S${bedTemperature} ; wait for the bed`,
    `M109 S${nozzleTemperature} ; wait for the nozzle`,
    'G28 ; home',
    'G92 E0',
    '',
  ].join('\n')
}

/** Fan and heat off, up as far as the machine reaches, and away from the part: a hot nozzle must not rest on it. */
function end({ path, setup }: ProgramRequest): string {
  const [, depth, height] = setup.printer.buildVolume
  const top = path.z.reduce((most, z) => Math.max(most, z), 0)
  return [
    '; --- end: fan and heat off, away from the part ---',
    'M107 ; fan off',
    'M104 S0 ; nozzle off',
    'M140 S0 ; bed off',
    `G0 Z${number(Math.min(height, top + LIFT_AT_END), COORDINATE_DIGITS)} F600`,
    `G0 X0 Y${number(depth, COORDINATE_DIGITS)} F12000`,
    'M84 ; motors off: the nozzle is still hot',
    '',
  ].join('\n')
}

/** mm */
const LIFT_AT_END = 5

/** Text is handed on in pieces of about this many characters. */
const PIECE = 1 << 16

class Body {
  private text = ''
  private feature = -1
  private feed = -1
  private fan = -1
  private acceleration = -1
  private filamentSum = 0
  private filamentWritten = 0

  constructor(
    private readonly request: ProgramRequest,
    private readonly write: (text: string) => void,
  ) {}

  run(): void {
    const { path } = this.request
    for (let layer = 0; layer < path.layerStart.length - 1; layer++) {
      this.line(`;${mark.layer}${layer + 1} of ${path.layerStart.length - 1}`)
      for (let m = path.layerStart[layer]!; m < path.layerStart[layer + 1]!; m++) this.move(m, layer)
    }
    this.write(this.text)
  }

  private move(m: number, layer: number): void {
    const { path, motion, settingsOf, setup } = this.request
    const kind = path.feature[m]!
    const settings = settingsOf(path.scope[m]!)
    if (isLaid(kind) && kind !== this.feature) {
      this.feature = kind
      this.line(`;${mark.feature}${features[kind]}`)
    }
    this.setFan(fanFor(kind, path.air[m]!, layer, settings))
    const feed = Math.max(1, Math.round(motion.asked[m]! * 60 * 1000) / 1000)
    if (kind === code.retract || kind === code.pushBack) {
      const wiped = kind === code.retract && path.feature[m + 1] === code.wipe
      const length = settings.retractLength * (wiped ? settings.wipeRetractFirst / 100 : 1)
      if (length > 0) this.line(`G1 ${this.filament(kind === code.retract ? -length : length)} F${number(feed, 3)}`)
      this.feed = -1
      return
    }
    this.setAcceleration(motion.acceleration[m]!)
    const length = Math.hypot(path.x[m + 1]! - path.x[m]!, path.y[m + 1]! - path.y[m]!)
    let pushed = (path.area[m]! * length) / filamentArea(setup.printer.filamentDiameter)
    if (kind === code.wipe)
      pushed = (-settings.retractLength * (1 - settings.wipeRetractFirst / 100) * length) / Math.max(1e-6, path.width[m]!)
    const [width, depth] = setup.printer.buildVolume
    const words: string[] = []
    if (length > 0)
      words.push(`X${number(path.x[m + 1]! + width / 2, COORDINATE_DIGITS)}`, `Y${number(path.y[m + 1]! + depth / 2, COORDINATE_DIGITS)}`)
    if (path.z[m + 1] !== path.z[m]) words.push(`Z${number(path.z[m + 1]!, COORDINATE_DIGITS)}`)
    if (words.length === 0) return
    if (pushed !== 0) words.push(this.filament(pushed))
    if (feed !== this.feed) words.push(`F${number(feed, 3)}`)
    this.feed = feed
    this.line(`${pushed > 0 ? 'G1' : 'G0'} ${words.join(' ')}`)
  }

  /** E word; what rounding leaves over goes into the next one, so that sums stay true. */
  private filament(length: number): string {
    this.filamentSum += length
    const target = Number(this.filamentSum.toFixed(FILAMENT_DIGITS))
    const step = target - this.filamentWritten
    this.filamentWritten = target
    return `E${number(this.request.filament === 'absolute' ? target : step, FILAMENT_DIGITS)}`
  }

  private setFan(percent: number): void {
    if (percent === this.fan) return
    this.fan = percent
    this.line(percent === 0 ? 'M107' : `M106 S${Math.round((percent * 255) / 100)}`)
  }

  private setAcceleration(value: number): void {
    const rounded = Math.round(value)
    if (rounded === this.acceleration || rounded <= 0) return
    this.acceleration = rounded
    this.line(`M204 S${rounded}`)
  }

  private line(text: string): void {
    this.text += `${text}\n`
    if (this.text.length < PIECE) return
    this.write(this.text)
    this.text = ''
  }
}

/** Fan of a move, %: none on the bed, and at least that of its class where a line hangs over air. */
function fanFor(feature: number, air: number, layer: number, settings: Settings): number {
  if (layer === 0) return 0
  if (feature === code.bridge) return settings.bridgeFan
  const least = [0, settings.overhangFan25, settings.overhangFan50, settings.overhangFan75][air >> 6]!
  return Math.max(settings.fanSpeed, least)
}

/** As few digits as the value needs. */
const number = (value: number, digits: number): string => {
  const text = value.toFixed(digits)
  return text.includes('.') ? text.replace(/0+$/, '').replace(/\.$/, '') : text
}

/** The whole program as one text. */
export function programText(request: ProgramRequest): string {
  const pieces: string[] = []
  writeProgram(request, (text) => pieces.push(text))
  return pieces.join('')
}
