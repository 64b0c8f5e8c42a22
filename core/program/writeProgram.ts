import type { Motion } from '../motion/planMotion'
import { fanFor } from '../physics/cooling/fan'
import { type Heat, heatOn } from '../profile/heatOn'
import { settings as definitions, type Settings, settingNames } from '../profile/settings'
import type { Setup } from '../setup/resolve'
import { filled } from '../shelf/ownText'
import { code, features, isLaid, type Toolpath } from '../toolpath/toolpath'
import { filamentArea } from '../units/flow'
import { formatDuration } from '../units/format'
import { arcFrom } from './arcs'
import { mark } from './words'

export interface ProgramRequest {
  readonly partName: string
  readonly path: Toolpath
  readonly motion: Motion
  /** Settings in force in a scope of the path. */
  readonly settingsOf: (scope: number) => Settings
  readonly setup: Setup
  readonly figures: { readonly timeS: number; readonly massG: number; readonly lengthMm: number }
  /** Whether every E word counts from the last one or from the beginning. */
  readonly filament: 'relative' | 'absolute'
  /** Lines at its head that say what it is for. */
  readonly head?: readonly string[]
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

function header(request: ProgramRequest): string {
  const { partName, setup, figures, settingsOf, filament, path } = request
  const heats = Array.from({ length: path.layerStart.length - 1 }, (_, layer) => heatOfLayer(request, layer))
  const hottest = { nozzle: Math.max(...heats.map(({ nozzle }) => nozzle)), bed: Math.max(...heats.map(({ bed }) => bed)) }
  const { printer, nozzle, material } = setup
  const { limits } = printer
  const own = settingsOf(0)
  const lines = [
    'Program by Sable Lantern',
    ...(request.head ?? []).map(ascii),
    `part        ${partName}`,
    `printer     ${printer.name}, bed ${printer.buildVolume.join(' x ')} mm`,
    `nozzle      ${nozzle.name}`,
    `material    ${material.name}`,
    `printing    ${formatDuration(figures.timeS)} predicted, heating and homing not included`,
    `filament    ${(figures.lengthMm / 1000).toFixed(2)} m, ${figures.massG.toFixed(1)} g, E words ${filament}`,
    '',
    'LOOK BEFORE RUNNING',
    `- It is meant for ${printer.name} with a ${nozzle.bore} mm bore and ${material.name} only.`,
    `- It heats the nozzle to ${hottest.nozzle} C and the bed to ${hottest.bed} C. Never leave a first print alone.`,
    '- It homes first. The bed must be clear, and the head must be able to reach its end stops.',
    ...(printer.kinematics === 'tiltedBelt' ? beltAxes : levelAxes(printer.buildVolume)),
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

const levelAxes = (volume: readonly number[]): string[] => [
  `- It assumes that X0 Y0 is the front left corner and that the machine can reach ${volume.join(' x ')} mm.`,
]

const beltAxes: readonly string[] = [
  '- It assumes X across the belt, Y up the tilted gantry from 0 at the belt, and Z the way of the belt, positive away from the gantry.',
  '- If the axes of the machine run otherwise, the part comes out mirrored or the nozzle drives into the belt.',
  '- The belt moves the part: keep fingers, hair and cables away from its rollers.',
]

/** Firmware reads plain signs. */
const ascii = (text: string): string =>
  text
    .replaceAll('²', '2')
    .replaceAll('³', '3')
    .replaceAll('°', '')
    .replaceAll('’', "'")
    .replace(/[^\x20-\x7e]/g, '?')

/** Set temperatures of a layer, by the last of its moves: the first may still belong to the one below. */
function heatOfLayer({ path, settingsOf }: ProgramRequest, layer: number): Heat & Pick<Settings, 'heatChange'> {
  const own = settingsOf(path.scope[path.layerStart[layer + 1]! - 1] ?? 0)
  return { ...heatOn(path.rank[layer]!, own), heatChange: own.heatChange }
}

function start(request: ProgramRequest): string {
  const { filament } = request
  const { nozzle, bed } = heatOfLayer(request, 0)
  return [
    '; --- start: units, heat, home ---',
    'G21 ; millimetres',
    'G90 ; absolute coordinates',
    filament === 'relative' ? 'M83 ; filament from word to word' : 'M82 ; filament from the beginning',
    'M107 ; fan off',
    ...ownOr(request.setup.printer.startText, request, [
      `M140 S${bed} ; bed, do not wait`,
      `M104 S${nozzle} ; nozzle, do not wait`,
      `M190 S${bed} ; wait for the bed`,
      `M109 S${nozzle} ; wait for the nozzle`,
      'G28 ; home',
    ]),
    // Whatever that did: from here on positions and filament count as this program does.
    ...(request.setup.printer.startText === undefined ? [] : ['G90', filament === 'relative' ? 'M83' : 'M82']),
    'G92 E0',
    '',
  ].join('\n')
}

/** Where the middle of the part lies in the machine's own coordinates, x and y in mm: a belt begins at the gantry's foot. */
function originOf({ printer: { kinematics, buildVolume } }: Setup): readonly [number, number] {
  return [buildVolume[0] / 2, kinematics === 'tiltedBelt' ? 0 : buildVolume[1] / 2]
}

/** Fan and heat off, and away from the part: a hot nozzle must not rest on it. */
function end(request: ProgramRequest): string {
  const { path, setup } = request
  const usual = ['M104 S0 ; nozzle off', 'M140 S0 ; bed off', ...wayOut(path, setup), 'M84 ; motors off: the nozzle is still hot']
  return [
    '; --- end: fan and heat off, away from the part ---',
    'M107 ; fan off',
    ...ownOr(setup.printer.endText, request, usual),
    '',
  ].join('\n')
}

/** The printer's own lines with the numbers of this print, or the usual ones. */
function ownOr(text: string | undefined, request: ProgramRequest, usual: readonly string[]): readonly string[] {
  if (text === undefined) return usual
  const { path, setup, settingsOf } = request
  const { nozzle, bed } = heatOfLayer(request, 0)
  const [left, front] = originOf(setup)
  const extent = (values: Float64Array): readonly [number, number] =>
    values.reduce(([least, most], value) => [Math.min(least, value), Math.max(most, value)] as const, [Infinity, -Infinity] as const)
  const [[minX, maxX], [minY, maxY], [, top]] = [extent(path.x), extent(path.y), extent(path.z)]
  const values = {
    nozzle,
    bed,
    layer: settingsOf(0).firstLayerHeight,
    left: minX + left,
    right: maxX + left,
    front: minY + front,
    back: maxY + front,
    top,
  }
  return filled(text.trimEnd(), values).split('\n')
}

/** Up as far as the machine reaches and aside; a belt carries the part away instead. */
function wayOut({ z }: Toolpath, { printer: { kinematics, buildVolume } }: Setup): string[] {
  const [, depth, height] = buildVolume
  const top = z.reduce((most, at) => Math.max(most, at), 0)
  const rise = (to: number): string => `G0 Z${number(to, COORDINATE_DIGITS)} F600`
  if (kinematics === 'tiltedBelt') return [rise(top + BELT_AT_END)]
  return [rise(Math.min(height, top + LIFT_AT_END)), `G0 X0 Y${number(depth, COORDINATE_DIGITS)} F12000`]
}

/** mm */
const LIFT_AT_END = 5
const BELT_AT_END = 30

/** Text is handed on in pieces of about this many characters. */
const PIECE = 1 << 16

class Body {
  private text = ''
  private feature = -1
  private feed = -1
  private fan = -1
  private heat: Heat = { nozzle: 0, bed: 0 }
  private acceleration = -1
  private filamentSum = 0
  /** Pulled back and not yet pushed, mm. */
  private pulled = 0
  private filamentWritten = 0

  constructor(
    private readonly request: ProgramRequest,
    private readonly write: (text: string) => void,
  ) {}

  run(): void {
    const { path } = this.request
    this.heat = heatOfLayer(this.request, 0)
    for (let layer = 0; layer < path.layerStart.length - 1; layer++) {
      this.line(`;${mark.layer}${layer + 1} of ${path.layerStart.length - 1}`)
      this.setHeat(heatOfLayer(this.request, layer))
      for (let m = path.layerStart[layer]!; m < path.layerStart[layer + 1]!; ) m = this.move(m, layer)
    }
    this.write(this.text)
  }

  /** Writes a move, or all that are one arc. Returns the next. */
  private move(m: number, layer: number): number {
    const { path, motion, settingsOf, setup } = this.request
    const kind = path.feature[m]!
    const settings = settingsOf(path.scope[m]!)
    if (isLaid(kind) && kind !== this.feature) {
      this.feature = kind
      this.line(`;${mark.feature}${features[kind]}`)
    }
    this.setFan(fanFor(kind, path.air[m]!, path.rank[layer]!, settings))
    const feed = Math.max(1, Math.round(motion.asked[m]! * 60 * 1000) / 1000)
    if (kind === code.retract || kind === code.pushBack) {
      const wiped = kind === code.retract && path.feature[m + 1] === code.wipe
      // What is pushed back is what was pulled, whatever holds where it is pushed.
      const length = kind === code.retract ? settings.retractLength * (wiped ? settings.wipeRetractFirst / 100 : 1) : this.pulled
      this.pulled = kind === code.retract ? settings.retractLength : 0
      if (length > 0) this.line(`G1 ${this.filament(kind === code.retract ? -length : length)} F${number(feed, 3)}`)
      this.feed = -1
      return m + 1
    }
    this.setAcceleration(motion.acceleration[m]!)
    const arc = setup.printer.arcs ? arcFrom(path, motion, m, path.layerStart[layer + 1]!) : undefined
    const to = arc?.to ?? m + 1
    let length = 0
    for (let i = m; i < to; i++) length += Math.hypot(path.x[i + 1]! - path.x[i]!, path.y[i + 1]! - path.y[i]!)
    let pushed = (path.area[m]! * length) / filamentArea(setup.printer.filamentDiameter)
    if (kind === code.wipe)
      pushed = (-settings.retractLength * (1 - settings.wipeRetractFirst / 100) * length) / Math.max(1e-6, path.width[m]!)
    const [left, front] = originOf(setup)
    const words: string[] = []
    if (length > 0) words.push(`X${number(path.x[to]! + left, COORDINATE_DIGITS)}`, `Y${number(path.y[to]! + front, COORDINATE_DIGITS)}`)
    if (path.z[to] !== path.z[m]) words.push(`Z${number(path.z[to]!, COORDINATE_DIGITS)}`)
    if (words.length === 0) return to
    if (arc) words.push(`I${number(arc.cx - path.x[m]!, COORDINATE_DIGITS)}`, `J${number(arc.cy - path.y[m]!, COORDINATE_DIGITS)}`)
    if (pushed !== 0) words.push(this.filament(pushed))
    if (feed !== this.feed) words.push(`F${number(feed, 3)}`)
    this.feed = feed
    this.line(`${arc ? (arc.clockwise ? 'G2' : 'G3') : pushed > 0 ? 'G1' : 'G0'} ${words.join(' ')}`)
    return to
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

  /** After the first layer, and where an override asks for another heat from this layer on. */
  private setHeat({ nozzle, bed, heatChange }: Heat & Pick<Settings, 'heatChange'>): void {
    if (nozzle !== this.heat.nozzle)
      this.line(heatChange === 'wait' ? `M109 S${nozzle} ; wait for the nozzle` : `M104 S${nozzle} ; nozzle, do not wait`)
    if (bed !== this.heat.bed) this.line(`M140 S${bed} ; bed, do not wait`)
    this.heat = { nozzle, bed }
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
