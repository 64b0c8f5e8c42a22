import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js'
import type { Mesh } from '../mesh/mesh'
import type { Part } from '../mesh/part'
import { repair } from '../mesh/repair'
import { soupOf } from '../mesh/soupOf'
import { reachOf } from '../profile/overrides'
import type { SettingName, SettingValues } from '../profile/settings'
import { resolveSettings, type Setup } from '../setup/resolve'
import { InputError } from '../units/errors'
import { trialKinds } from './kinds'
import type { SolidKernel } from './solids/solidKernel'
import { MOST_BANDS, type TrialBand, type TrialKindId, type TrialSpec } from './spec/trial'
import type { BandRange, TrialKind } from './table/kind'

/** What is asked of a trial: its usual bands unless told otherwise. */
export interface TrialChoice {
  readonly form?: string | undefined
  readonly range?: BandRange | undefined
  /** Bands as they are, of a form that has its own. */
  readonly bands?: readonly TrialBand[] | undefined
  /** Values one by one, in order. */
  readonly list?: readonly number[] | undefined
  readonly length?: number | undefined
  /** The user's own part, for the form that prints it in small. */
  readonly own?: TrialSpec['own'] | undefined
  /** Settings of the whole print other than usual. */
  readonly values?: SettingValues | undefined
}

export interface PlannedTrial {
  readonly spec: TrialSpec
  /** What was made other than asked, and what is doubtful about it. */
  readonly notes: readonly string[]
}

/** The form in which a part of the user's own is printed. */
export const OWN = 'own'

/** Room that is left free at the rim of the bed and under the top, mm. */
const RIM = 10
const CLEAR = 5
/** What a heater that is off would come to, °C. */
const ROOM = 22

/**
 * Plans a trial for a machine and a spool: its bands, whole layers high, as many as the printer has room for.
 *
 * @throws InputError where bands cannot be made as they are asked
 */
export function planTrial(id: TrialKindId, setup: Setup, choice: TrialChoice = {}): PlannedTrial {
  const kind = trialKinds[id]
  const form = formOf(kind, choice.form)
  const values = { ...kind.values(setup), ...choice.values }
  const { layerHeight, firstLayerHeight } = resolveSettings(setup, values).settings
  const { buildVolume } = setup.printer
  const notes: string[] = form?.warning === undefined ? [] : [form.warning]
  const length = Math.min(choice.length ?? kind.size.length, buildVolume[0] - 2 * RIM)
  if (length < (choice.length ?? kind.size.length)) notes.push(`Made ${length} mm long, as far as the bed of ${setup.printer.name} goes.`)
  const size =
    kind.bandsRun === 'up'
      ? { band: layers(kind.size.band, layerHeight), foot: footOf(kind.size.foot, layerHeight, firstLayerHeight), length }
      : { ...kind.size, length }
  const asked = bandsFor(kind, setup, values, choice, form)
  const bands = asFit(asked, kind, setup, size, notes)
  const waits = waitsFor(bands, setup)
  if (waits > 0)
    notes.push(
      `Waits for heat about ${Math.max(1, Math.round(waits / 60))} min in all, by the heater’s time constant; that is not in its time.`,
    )
  if (choice.form === OWN && !choice.own)
    throw new InputError('trial-own-part', 'The part is not chosen yet.', kind.name, 'Choose one of your own.')
  return {
    spec: {
      kind: id,
      ...(choice.own ? { own: choice.own } : {}),
      ...(choice.form === undefined ? {} : { form: choice.form }),
      bands: [...bands],
      values,
      size,
    },
    notes,
  }
}

const formOf = (kind: TrialKind, id: string | undefined) => {
  const form = kind.forms?.find((one) => one.id === id)
  if (id !== undefined && !form)
    throw new InputError(
      'trial-form-unknown',
      `${kind.name} has no form "${id}".`,
      'form',
      kind.forms ? `Take one of ${kind.forms.map((one) => one.id).join(', ')}.` : 'Leave it out.',
    )
  return form ?? kind.forms?.[0]
}

/** Whole layers, as near as they come to a height. */
const layers = (height: number, layerHeight: number): number => rounded(Math.max(1, Math.round(height / layerHeight)) * layerHeight)
/** A foot whose top is the top of a layer. */
const footOf = (height: number, layerHeight: number, first: number): number =>
  height === 0 ? 0 : rounded(first + Math.max(0, Math.round((height - first) / layerHeight)) * layerHeight)
const rounded = (mm: number): number => Math.round(mm * 1e4) / 1e4

function bandsFor(
  kind: TrialKind,
  setup: Setup,
  values: TrialSpec['values'],
  choice: TrialChoice,
  form: ReturnType<typeof formOf>,
): readonly TrialBand[] {
  const { varied } = kind
  if (choice.bands) return choice.bands
  if (!varied) return []
  const isAsked = choice.range !== undefined || choice.list !== undefined
  if (!isAsked && form?.bands) return form.bands(setup)
  const list = choice.list ?? valuesOf(choice.range ?? form?.usual?.(setup) ?? varied.usual(setup))
  checkOrder(list, kind)
  const within = varied.within?.(setup)
  const beyond = within && list.find((value) => value < within.least || value > within.most)
  if (within && beyond !== undefined)
    throw new InputError(
      'trial-beyond',
      `${beyond} ${varied.unit} is beyond ${within.what}.`,
      varied.label,
      `Stay from ${within.least} to ${within.most} ${varied.unit}.`,
    )
  return list.map((value) => ({ label: String(value), value, values: varied.values(value, setup, { values }) }))
}

/** From, to and step as values; steps may go down. @throws InputError where there is no such list */
export function valuesOf({ from, to, step }: BandRange): readonly number[] {
  if (![from, to, step].every(Number.isFinite) || step === 0 || (to - from) * step < 0)
    throw new InputError(
      'trial-range',
      `From ${from} one does not come to ${to} in steps of ${step}.`,
      'bands',
      'Give a step that leads from the first value to the last.',
    )
  const count = Math.floor((to - from) / step + 1e-9) + 1
  if (count > MOST_BANDS)
    throw new InputError(
      'trial-too-many-bands',
      `That would be ${count} bands.`,
      'bands',
      `Take a larger step: ${MOST_BANDS} bands are the most.`,
    )
  // Sums of decimal steps are told as they were meant.
  return Array.from({ length: count }, (_, i) => Number((from + i * step).toFixed(6)))
}

function checkOrder(list: readonly number[], kind: TrialKind): void {
  if (list.length === 0) throw new InputError('trial-no-bands', 'There is no band.', kind.name, 'Give one value at least.')
  if (list.length > MOST_BANDS)
    throw new InputError('trial-too-many-bands', `That would be ${list.length} bands.`, kind.name, `${MOST_BANDS} bands are the most.`)
  const [first, second] = list as [number, number | undefined]
  const way = Math.sign((second ?? first + 1) - first)
  const wrong = list.findIndex((value, i) => i > 0 && Math.sign(value - list[i - 1]!) !== way)
  if (wrong > 0 || way === 0)
    throw new InputError(
      'trial-out-of-order',
      `Band ${Math.max(1, wrong) + 1} (${list[Math.max(1, wrong)]}) is out of order.`,
      kind.name,
      'Let the values rise, or fall, from band to band.',
    )
}

/** How long its heater takes from band to band, s: a first-order system that would reach its own end (any text on control). */
function waitsFor(bands: readonly TrialBand[], { printer: { start } }: Setup): number {
  if (!start) return 0
  const { tauS, reachC } = start.nozzle
  return bands.slice(1).reduce((sum, { values }, i) => {
    const [from, to] = [bands[i]!.values.nozzleTemperature, values.nozzleTemperature]
    if (from === undefined || to === undefined || from === to) return sum
    const end = to > from ? reachC : ROOM
    return sum + tauS * Math.log((end - from) / (end - to))
  }, 0)
}

/** As many of the bands as there is room for, with a word where it is fewer. */
function asFit(
  bands: readonly TrialBand[],
  kind: TrialKind,
  { printer }: Setup,
  size: TrialSpec['size'],
  notes: string[],
): readonly TrialBand[] {
  if (kind.bandsRun === 'across') {
    // Bands lie as far apart as the kind puts two of them.
    const [[from], [to]] = [kind.bandAt!(0, 2), kind.bandAt!(1, 2)]
    const room = Math.max(1, Math.floor((Math.min(printer.buildVolume[0], printer.buildVolume[1]) - 2 * RIM) / (to - from)))
    if (bands.length > room) notes.push(`Only ${room} of ${bands.length} fit on the bed of ${printer.name}.`)
    return bands.slice(0, room)
  }
  const slanted =
    printer.kinematics === 'tiltedBelt' &&
    bands.some(({ values }) => Object.keys(values).some((name) => reachOf(name as SettingName) === 'layers'))
  if (slanted && bands.length > 1) {
    const one = bands[bands.length >> 1]!
    notes.push(
      `${printer.name} lays slanted layers, in which heat and layer time cannot change by height: one band a print, this one at ${one.label}.`,
    )
    return [one]
  }
  const room = Math.max(1, Math.floor((printer.buildVolume[2] - CLEAR - size.foot) / size.band))
  if (bands.length > room) notes.push(`Only ${room} of ${bands.length} bands fit under ${printer.buildVolume[2]} mm.`)
  return bands.slice(0, room)
}

/** Why this must not be printed, in a sentence that says what to do; nothing where it may. */
export const refusalOf = (spec: TrialSpec, setup: Setup): string | undefined => trialKinds[spec.kind].refuse?.(spec, setup)

/** The thing, mm, standing on z = 0. @throws InputError for a kind that prints nothing */
export function trialMesh(spec: TrialSpec, setup: Setup, kernel: SolidKernel): Mesh {
  const { shape, name } = trialKinds[spec.kind]
  if (!shape)
    throw new InputError('trial-prints-nothing', `${name} is a question; there is nothing to print.`, spec.kind, 'Answer it on the page.')
  return kernel.make((kit) => shape(kit, spec, setup))
}

/** The thing as a part, under a key that names what it is made from. */
export function trialPart(spec: TrialSpec, setup: Setup, kernel: SolidKernel): Part {
  const corners = soupOf(trialMesh(spec, setup, kernel))
  return { key: trialKey(spec, setup), ...repair({ corners, notes: [] }) }
}

/** Names the thing: equal for equal bands on equal lines. */
export const trialKey = (spec: TrialSpec, setup: Setup): string => {
  const { lineWidth } = resolveSettings(setup, spec.values).settings
  return bytesToHex(sha256(utf8ToBytes(JSON.stringify([spec, lineWidth, setup.nozzle.bore]))))
}
