import type { ConstantId } from '../../constants/constants'
import type { Evidence } from '../../learning/evidence'
import type { Case } from '../../physics/solved/structure'
import type { SettingName, SettingValues } from '../../profile/settings'
import type { Setup } from '../../setup/resolve'
import type { Solid, SolidKit } from '../solids/solidKernel'
import type { Answers, Question } from '../spec/question'
import type { TrialBand, TrialKindId, TrialSpec } from '../spec/trial'

/** From, to and step of what varies, in the unit of the kind. */
export interface BandRange {
  readonly from: number
  readonly to: number
  readonly step: number
}

/** What varies from band to band. */
export interface Varied {
  readonly label: string
  readonly unit: string
  /** The setting that a band has in place of the print's own. */
  readonly values: (value: number, setup: Setup, spec: Pick<TrialSpec, 'values'>) => SettingValues
  readonly usual: (setup: Setup) => BandRange
  /** Values beyond which a warning is due, with what they are: the spool's label. */
  readonly within?: (setup: Setup) => { readonly least: number; readonly most: number; readonly what: string }
}

/** A number to put into a record as its setting: a deed of its own, by name. */
export interface Advice {
  readonly of: 'spool' | 'printer'
  readonly setting: SettingName | 'frameFrequency' | 'frameFrequencyY'
  readonly value: number | string
}

/** What to print next, and why. */
export interface NextTrial {
  readonly kind: TrialKindId
  readonly range?: BandRange
  /** A form of the kind, and its bands where they are not its usual ones. */
  readonly form?: string
  readonly bands?: readonly TrialBand[]
  /** Settings of the whole print other than usual. */
  readonly values?: SettingValues
  readonly why: string
}

/** What a reading comes to. */
export interface Outcome {
  /** In one sentence. */
  readonly found: string
  /** What it comes to, as short as a cell; absent where nothing was found. */
  readonly short?: string
  readonly evidence: readonly Evidence[]
  readonly advice: readonly Advice[]
  readonly next?: NextTrial
  /** What speaks against leaning on it. */
  readonly warnings: readonly string[]
}

/** What was read of a print. */
export interface Reading {
  readonly spec: TrialSpec
  readonly setup: Setup
  /** By band, and of the whole. */
  readonly bands: readonly (Answers | undefined)[]
  readonly whole: Answers
  /** What was foretold for this print; absent where it was not computed. */
  readonly foretold?: Foretold | undefined
}

/** What a reading is held against: at the middle of each band, and of the whole. */
export interface Foretold {
  readonly timeS: number
  readonly massG: number
  /** Strength across layers over that within them. */
  readonly bond: number
  /** Constants that the kind narrows, as they were in force: what is read is held against these, whatever is known by then. */
  readonly inForce: Readonly<Record<string, number>>
  /** Sway at the nozzle, mm, and layer time over what a layer needs to cool. */
  readonly bands: readonly { readonly swayMm: number; readonly cooling: number }[]
  /** Section modulus of a bar, mm³, as its lines have it: the moment at which it breaks over what its plastic bears, solved. */
  readonly barMm3?: number | undefined
}

/** A bar of a thing that is bent until it breaks, as it lies on the bed. */
export interface BentBar {
  readonly case: Case
  /** From where it breaks to where it is pushed, mm. */
  readonly armMm: number
  /** What is measured so. */
  readonly breaks: 'lines' | 'layers'
}

/** A form of a kind: other bands, the same thing. */
export interface TrialForm {
  readonly id: string
  readonly name: string
  /** Bands that are not told by from, to and step. */
  readonly bands?: (setup: Setup) => readonly TrialBand[]
  readonly usual?: (setup: Setup) => BandRange
  /** What is doubtful about it. */
  readonly warning?: string
}

/** A kind of trial: what varies, the thing that is printed, how it is read, and what follows. */
export interface TrialKind {
  readonly id: TrialKindId
  readonly name: string
  /** What it tells, as a phrase: "the nozzle temperature at which this spool prints clean". */
  readonly tells: string
  readonly how: string
  /** Constants that it narrows. */
  readonly narrows: readonly ConstantId[]
  /** Settings that it may advise. */
  readonly advises: readonly (SettingName | 'frameFrequency')[]
  /** Whose numbers: a printer's are found once for all spools. */
  readonly owner: 'spool' | 'printer'
  readonly varied?: Varied
  readonly forms?: readonly TrialForm[]
  /** Of a band and the foot, mm; made whole layers. `length` where the thing can be longer. */
  readonly size: { readonly band: number; readonly foot: number; readonly length: number }
  /** From where its bands are seen. */
  readonly seenFrom: 'front' | 'above'
  /** Where a band of those side by side lies, from its left to its right as it is seen, or from its foot to its top, mm. */
  readonly bandAt?: (index: number, count: number) => readonly [from: number, to: number]
  /** Bands stand one above the other, each with its settings; or side by side, all printed alike. */
  readonly bandsRun: 'up' | 'across'
  /** Settings of the whole print. */
  readonly values: (setup: Setup) => SettingValues
  /** The thing. Absent where there is nothing to print. */
  readonly shape?: (kit: SolidKit, spec: TrialSpec, setup: Setup) => Solid
  /** The bar by which newtons become stresses. */
  readonly bar?: (spec: TrialSpec) => BentBar
  readonly questions: { readonly band: readonly Question[]; readonly whole: readonly Question[] }
  /** Why it must not be printed like this, and what to do about it. */
  readonly refuse?: (spec: TrialSpec, setup: Setup) => string | undefined
  readonly cautions?: (setup: Setup) => readonly string[]
  readonly judge: (reading: Reading) => Outcome
}
