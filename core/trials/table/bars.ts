import { breakingStress, GRAVITY, LYING, STANDING, sectionModulus } from '../../learning/bars'
import type { Evidence } from '../../learning/evidence'
import { NEAR_GRIP } from '../../physics/solved/structure'
import type { Three } from '../../physics/solved/voxels'
import type { Solid } from '../solids/solidKernel'
import { measure, numberIn } from '../spec/question'
import type { TrialSpec } from '../spec/trial'
import type { TrialKind } from './kind'

/** Of a lying bar: length, width, thickness; of a standing one: height and side, mm. */
const [LENGTH, WIDTH, THICK] = [80, 10, 4]
const [RISE, SIDE] = [45, 6]
/** How deep a notch is cut into a bar, mm: it breaks there, and the section there counts. */
const NOTCH = 1
const forms = [
  { id: 'plain', name: 'Plain' },
  { id: 'notched', name: 'Notched' },
] as const
const notchOf = ({ form }: Pick<TrialSpec, 'form'>): number => (form === 'notched' ? NOTCH : 0)

const SOLID = { wallCount: 4, infillDensity: 100, topLayers: 4, bottomLayers: 4, supports: 'off', brim: 'none' } as const

/** So much of a bar is clamped, and so much pushed at its end, mm. */
const [CLAMPED, PUSHED] = [10, 4]
const fixed = [true, true, true] as const
const boxOf = (low: Three, high: Three) => [{ kind: 'box', low, high } as const]

const loads = [1, 2, 3].map((i) => measure(`load${i}`, `Bar ${i} broke under`, 'kg', 0.01, 500))
const arm = measure('arm', 'From the clamp to the load', 'mm', 5, 200, true)
const cautions = (): readonly string[] => [
  'Bars snap suddenly: wear glasses, hang the load low over something soft, keep feet away.',
  'A bar tells of this material and this load only: never lift people or hang loads over people with printed parts.',
]

const brokenUnder = (answers: Readonly<Record<string, number | string>>): number[] =>
  [1, 2, 3].flatMap((i) => numberIn(answers, `load${i}`) ?? []).map((kg) => kg * GRAVITY)

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length

/** Three bars that lie: lines run along them. */
export const barsLying: TrialKind = {
  id: 'barsLying',
  name: 'Bars, lying',
  tells: 'how strong and how stiff this spool is along its lines',
  how: 'Clamp a bar at one end, hang a bucket at the other and fill it with water until it breaks; weigh the bucket. For stiffness, measure how far a lighter load bends it.',
  narrows: ['strength.inLayer', 'strength.modulus'],
  advises: [],
  owner: 'spool',
  size: { band: THICK, foot: 0, length: LENGTH },
  bandsRun: 'up',
  seenFrom: 'above',
  forms,
  values: () => SOLID,
  shape(kit, spec) {
    const { length } = spec.size
    const depth = notchOf(spec)
    const whole = kit.box(length, WIDTH, THICK)
    // A wedge from above, near where it is clamped.
    if (depth === 0) return whole.plus(whole.at(0, WIDTH + 4, 0), whole.at(0, -WIDTH - 4, 0))
    const notch = kit
      .prism(
        [
          [-1.1 * depth, 1.1 * depth],
          [0, 0],
          [1.1 * depth, 1.1 * depth],
        ],
        WIDTH + 2,
      )
      .turned(90, 0, 0)
      .at(-0.2 * length, WIDTH / 2 + 1, THICK - depth)
    const bar = whole.minus(notch)
    return bar.plus(bar.at(0, WIDTH + 4, 0), bar.at(0, -WIDTH - 4, 0))
  },
  // The middle one: at its clamp where it is plain, at its notch else, nothing being judged beside a clamp.
  bar: (spec) => {
    const { length } = spec.size
    const depth = notchOf(spec)
    const notch = -0.2 * length
    const clamped = depth > 0 ? notch - 1.1 * depth - 2 * NEAR_GRIP : -length / 2 + CLAMPED
    const far = length / 2
    const aside = WIDTH / 2 + 1
    return {
      case: {
        holds: [{ where: boxOf([-far - 1, -aside, -1], [clamped, aside, THICK + 1]), along: fixed }],
        loads: [[{ where: boxOf([far - PUSHED, -aside, -1], [far + 1, aside, THICK + 1]), force: [0, 0, -1] }]],
      },
      armMm: far - PUSHED / 2 - (depth > 0 ? notch : clamped + NEAR_GRIP),
      breaks: 'lines',
    }
  },
  questions: {
    band: [],
    whole: [arm, ...loads, measure('hung', 'For stiffness: hung', 'kg', 0.01, 100), measure('sag', 'it gave way by', 'mm', 0.1, 100)],
  },
  cautions,
  judge({ spec, setup, whole, foretold }) {
    const lever = numberIn(whole, 'arm')
    if (lever === undefined) return { found: 'The arm is not told.', evidence: [], advice: [], warnings: [] }
    const modulus = foretold?.barMm3 ?? sectionModulus(WIDTH, THICK - notchOf(spec))
    const stresses = brokenUnder(whole).map((load) => breakingStress(load, lever, modulus))
    const evidence: Evidence[] = []
    const words: string[] = []
    if (stresses.length > 0) {
      words.push(
        `Breaks at ${mean(stresses).toFixed(1)} MPa along its lines, by ${stresses.length} ${stresses.length === 1 ? 'bar' : 'bars'}${foretold?.barMm3 === undefined ? '' : ' that were solved as printed'}`,
      )
      evidence.push({
        on: 'constant',
        constant: 'strength.inLayer',
        values: stresses.map((stress) => stress / setup.material.strength.inLayer),
        ...LYING,
      })
    }
    const [hung, sag] = [numberIn(whole, 'hung'), numberIn(whole, 'sag')]
    if (hung !== undefined && sag !== undefined) {
      // A beam held at one end: δ = F·L³/(3·E·I), I = b·h³/12.
      const stiffness = (hung * GRAVITY * lever ** 3) / (3 * ((WIDTH * THICK ** 3) / 12) * sag)
      words.push(`${words.length > 0 ? 'its' : 'Its'} modulus is ${Math.round(stiffness)} MPa`)
      evidence.push({ on: 'constant', constant: 'strength.modulus', values: [stiffness / setup.material.strength.modulus], noise: 0.08 })
    }
    return {
      found: words.length === 0 ? 'Nothing was measured.' : `${words.join('; ')}.`,
      ...(stresses.length > 0 ? { short: `${mean(stresses).toFixed(0)} MPa` } : {}),
      evidence,
      advice: [],
      next: { kind: 'barsStanding', why: 'Strength along the lines is known: how its layers hold together.' },
      warnings: stresses.length === 1 ? ['One bar tells little: one in twenty has a flaw.'] : [],
    }
  },
}

/** Three bars that stand: the load pulls layer from layer. */
export const barsStanding: TrialKind = {
  id: 'barsStanding',
  name: 'Bars, standing',
  tells: 'how well this spool’s layers hold together',
  how: 'Clamp the foot, pull each bar sideways at its top with a scale or a bucket until it breaks; the arm is from the foot up to the load.',
  narrows: ['strength.bond'],
  advises: [],
  owner: 'spool',
  size: { band: RISE, foot: 3, length: 50 },
  bandsRun: 'up',
  seenFrom: 'front',
  forms,
  values: () => SOLID,
  shape(kit, spec) {
    const { band, foot, length } = spec.size
    const depth = notchOf(spec)
    // A groove round the foot of each, where it breaks.
    const post = (height: number): Solid =>
      depth === 0
        ? kit.post(SIDE, SIDE, height)
        : kit.post(SIDE, SIDE, 3).plus(kit.post(SIDE - 2 * depth, SIDE - 2 * depth, 4), kit.post(SIDE, SIDE, height - 4).at(0, 0, 4))
    const bars = [-1, 0, 1].map((i) => post(band).at((i * (length - 12)) / 2, 0, foot))
    return kit.box(length, 18, foot).plus(...bars)
  },
  // The middle one, on its foot.
  bar: ({ size: { band, foot } }) => {
    const aside = SIDE / 2 + 1
    const top = foot + band
    return {
      case: {
        holds: [{ where: boxOf([-1e3, -1e3, -1], [1e3, 1e3, foot]), along: fixed }],
        loads: [[{ where: boxOf([-aside, -aside, top - PUSHED], [aside, aside, top + 1]), force: [1, 0, 0] }]],
      },
      armMm: band - PUSHED / 2 - NEAR_GRIP,
      breaks: 'layers',
    }
  },
  questions: { band: [], whole: [arm, ...loads] },
  cautions,
  judge({ spec, setup, whole, foretold }) {
    const lever = numberIn(whole, 'arm')
    const stresses =
      lever === undefined
        ? []
        : brokenUnder(whole).map((load) =>
            breakingStress(load, lever, foretold?.barMm3 ?? sectionModulus(SIDE - 2 * notchOf(spec), SIDE - 2 * notchOf(spec))),
          )
    if (stresses.length === 0) return { found: 'Nothing was measured.', evidence: [], advice: [], warnings: [] }
    const { strength } = setup.material
    const within = strength.inLayer * (setup.constants?.strength.inLayer ?? 1)
    // Held against what the model makes of this very print; what the record says where it was not computed.
    const bond = foretold ? foretold.bond / (foretold.inForce['strength.bond'] ?? 1) : strength.bondFactor
    return {
      found: `Layers part at ${mean(stresses).toFixed(1)} MPa, ${Math.round((100 * mean(stresses)) / within)} % of the strength along lines.`,
      short: `${Math.round((100 * mean(stresses)) / within)} %`,
      evidence: [{ on: 'constant', constant: 'strength.bond', values: stresses.map((stress) => stress / within / bond), ...STANDING }],
      advice: [],
      next: { kind: 'allRound', why: 'What it bears is known: a small part of everything.' },
      warnings: stresses.length === 1 ? ['One bar tells little: one in twenty has a flaw.'] : [],
    }
  },
}
