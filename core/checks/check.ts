import type { MeshReport } from '../mesh/repair'
import type { BeltLine } from '../mesh/tiltedBelt'
import type { TimeFigures } from '../motion/timeFigures'
import type { PictureFigures } from '../physics/finish/pictureSeen'
import type { RingingFigures } from '../physics/finish/ringing'
import type { Sag } from '../physics/finish/sag'
import type { StringFigures } from '../physics/finish/strings'
import type { TopClosure } from '../physics/finish/topClosure'
import type { UnproppedTop } from '../physics/finish/unproppedTops'
import type { FitFigures } from '../physics/fit/fit'
import type { WarpFigures } from '../physics/fit/warp'
import type { PhysicsFigures } from '../physics/physicsFigures'
import type { SupportSwayFigures } from '../physics/sway/supportSway'
import type { SwayFigures } from '../physics/sway/sway'
import { definitionOf, type SettingName, type Settings, type SettingValues } from '../profile/settings'
import type { LostDetail } from '../regions/lostDetail'
import type { VesselFigures } from '../regions/vesselFigures'
import { isChosen, type SchoolId, type Side, sideOf } from '../schools/schools'
import type { ResolvedSettings, Setup } from '../setup/resolve'
import type { Afloat } from '../supports/findAfloat'
import { inWords } from '../units/format'
import type { AskedHeat } from './askedHeats'

export const severities = ['stop', 'caution', 'note'] as const
export type Severity = (typeof severities)[number]

/** A change that answers a check: values for the profile, or another spool. */
export interface Fix {
  readonly values?: SettingValues
  readonly spool?: { readonly key: string; readonly name: string; readonly material: string }
}

/** Something a person should know before printing. */
export interface Check {
  readonly id: string
  readonly severity: Severity
  /** The setting it concerns, where there is one. */
  readonly setting?: SettingName
  /** What is so, with numbers; what that means; and what to do about it. */
  readonly evidence: string
  readonly means: string
  readonly todo: string
  readonly fix?: Fix
  /** Where practitioners disagree: what they say, and what the other side would do. */
  readonly school?: string
  readonly otherFix?: Fix
  /** Height at which it is worst, mm above the bed; absent where it concerns the whole. */
  readonly atZMm?: number
  /** All of it in sentences. */
  readonly message: string
}

/** What the checks look at. */
export interface Evidence {
  readonly setup: Setup
  readonly resolved: ResolvedSettings
  /** Nozzle temperatures that are asked for anywhere, °C: by the profile, for the first layer, by overrides. */
  readonly heats: readonly AskedHeat[]
  /** Settings that an override changes somewhere. */
  readonly overridden: ReadonlySet<SettingName>
  readonly sizeMm: readonly [number, number, number]
  /** Only on a tilted belt. */
  readonly belt?: BeltLine | undefined
  readonly mesh: Pick<MeshReport, 'watertight'>
  readonly time: TimeFigures
  /** Everything that is laid, g. */
  readonly massG: number
  /** Of the part itself, without supports and foot. */
  readonly laidVolumeMm3: number
  readonly layerCount: number
  /** Part of the first layer that lies on the bed, mm². */
  readonly footMm2: number
  readonly lost: LostDetail
  /** How far it is a vessel that one wall could go round without end. */
  readonly vessel: VesselFigures
  /** Overhang that supports may not reach, mm² summed over layers. */
  readonly unheldMm2: number
  /** Bodies that begin with nothing under them. */
  readonly afloat: readonly Afloat[]
  /** Line with half or more of it over air, and the longest line that spans air, mm. */
  readonly overAirMm: number
  readonly longestBridgeMm: number
  /** Tops under which the infill has no line. */
  readonly unproppedTops: readonly UnproppedTop[]
  /** Pictures that set the speed of the outer wall. */
  readonly pictures: readonly PictureFigures[]
  /** Names of places in which nothing is laid. */
  readonly placesOff: readonly string[]
  readonly melt: PhysicsFigures['melt']
  readonly cooling: PhysicsFigures['cooling']
  readonly bond: PhysicsFigures['bond']
  readonly gloss: PhysicsFigures['gloss']
  readonly ringing: RingingFigures
  readonly sway: SwayFigures
  readonly supportSway: SupportSwayFigures
  readonly fit: FitFigures
  readonly warp: WarpFigures
  readonly sag: Sag
  readonly topClosure: TopClosure
  readonly strings: StringFigures
}

/** What a rule finds. */
export interface Finding {
  readonly evidence: string
  readonly means: string
  readonly todo: string
  readonly fix?: Fix | undefined
  /** What the other school would do; a rule of schools offers both or none. */
  readonly otherFix?: Fix | undefined
  readonly atZMm?: number
  /** Where a rule speaks of several settings: which, and what tells its findings apart. */
  readonly setting?: SettingName
  readonly of?: string
  /** Where it is graver or lighter than usual. */
  readonly severity?: Severity
}

/** A check as data: what it is called, how grave it is, what it concerns, and how it is found. */
export interface Rule {
  readonly id: string
  readonly severity: Severity
  readonly setting?: SettingName
  readonly school?: string
  /** Where practitioners disagree: on what, whose advice `fix` and `otherFix` are, and to whom it says nothing at all. */
  readonly of?: { readonly school: SchoolId; readonly fix?: string; readonly other?: string; readonly silentTo?: string }
  readonly find: (evidence: Evidence) => Finding | readonly Finding[] | undefined
}

/** Everything that the rules find, the gravest first. */
export function applyRules(rules: readonly Rule[], evidence: Evidence): Check[] {
  return rules
    .flatMap((rule): Check[] => {
      const { schools: chosen } = evidence.setup.printer
      const side = rule.of && isChosen(rule.of.school, chosen) ? sideOf(rule.of.school, chosen) : undefined
      if (side && side.id === rule.of?.silentTo) return []
      const found = rule.find(evidence) ?? []
      return ('evidence' in found ? [found] : found).map((finding) =>
        asCheck(bySide(rule, side), withoutIdleFix(adviceOf(rule, finding, side), evidence.resolved.settings)),
      )
    })
    .sort((a, b) => severities.indexOf(a.severity) - severities.indexOf(b.severity))
}

/** Whoever has chosen a side is given its advice alone. */
function adviceOf({ of }: Rule, finding: Finding, side: Side | undefined): Finding {
  if (!side || !of) return finding
  if (side.id === of.other) return { ...finding, fix: finding.otherFix, otherFix: undefined }
  return side.id === of.fix ? { ...finding, otherFix: undefined } : finding
}

/** What is said of schools, with the side that was chosen. */
const bySide = (rule: Rule, side: Side | undefined): Rule =>
  side && rule.of ? { ...rule, school: `${rule.school ?? ''} You follow: ${side.name} (${rule.of.school}).`.trim() } : rule

const withoutIdleFix = (finding: Finding, settings: Settings): Finding => ({
  ...finding,
  fix: changing(finding.fix, settings),
  otherFix: changing(finding.otherFix, settings),
})

/** A fix that changes nothing is none: the check then says what settings cannot settle. */
function changing(fix: Fix | undefined, settings: Settings): Fix | undefined {
  if (!fix?.values || fix.spool) return fix
  const changes = Object.entries(fix.values).filter(([name, value]) => settings[name as SettingName] !== value)
  return changes.length > 0 ? { values: Object.fromEntries(changes) } : undefined
}

export function asCheck(rule: Omit<Rule, 'find' | 'of'>, finding: Finding): Check {
  const { evidence, means, todo, atZMm } = finding
  // Where one side has nothing left to change, the other stands by itself.
  const [fix, otherFix] = finding.fix ? [finding.fix, finding.otherFix] : [finding.otherFix, undefined]
  const setting = finding.setting ?? rule.setting
  return {
    id: finding.of === undefined ? rule.id : `${rule.id}-${finding.of}`,
    severity: finding.severity ?? rule.severity,
    ...(setting ? { setting } : {}),
    evidence,
    means,
    todo,
    ...(fix ? { fix } : {}),
    ...(otherFix ? { otherFix } : {}),
    ...(rule.school === undefined ? {} : { school: rule.school }),
    ...(atZMm === undefined ? {} : { atZMm }),
    message: [evidence, means, todo].filter((sentence) => sentence !== '').join(' '),
  }
}

/** "Layer height 0.35 mm" */
export function fixWords({ values = {}, spool }: Fix): string {
  const told = Object.entries(values).map(([name, value]) => {
    const setting = definitionOf(name as SettingName)
    const unit = setting.kind === 'number' && setting.unit !== '' ? ` ${setting.unit}` : ''
    return `${setting.label} ${typeof value === 'string' ? inWords(value) : value}${unit}`
  })
  return [...told, ...(spool ? [spool.name] : [])].join(', ')
}

export const count = (n: number, noun: string): string => `${n} ${noun}${n === 1 ? '' : 's'}`
/** "is" or "are" */
export const be = (n: number): string => (n === 1 ? 'is' : 'are')
export const round = (value: number, digits = 0): number => Number(value.toFixed(digits))
