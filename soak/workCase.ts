import { type FaultId, faults } from '@sable/core/faults/faults'
import { asksOf, type Next, nextOf } from '@sable/core/faults/next'
import type { Tried, TryResult } from '@sable/core/faults/outcomes'
import { sceneOf } from '@sable/core/faults/spec/scene'
import { type Answers, weigh } from '@sable/core/faults/weigh'
import type { PolygonKernel } from '@sable/core/geometry/polygon'
import type { Mesh } from '@sable/core/mesh/mesh'
import { asModelled } from '@sable/core/mesh/place'
import { predict } from '@sable/core/pipeline/predict'
import { StageCache } from '@sable/core/pipeline/stageCache'
import type { SettingValues } from '@sable/core/profile/settings'
import { programFor } from '@sable/core/program/programFor'
import type { Setup } from '@sable/core/setup/resolve'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { blockMesh, joined, moved, partOf, turnedAbout } from '@sable/core/testing/solids'
import { type HiddenId, hiddenFaults, hiddenIds } from '@sable/standins/hidden'
import type { Making } from '@sable/standins/making'
import { Machine, usualLimits } from '@sable/standins/printer/machine'
import { seededBy } from '@sable/standins/random'
import { runProgram } from '@sable/standins/thing'
import { type Truth, truthFrom } from '@sable/standins/truth'

/** What of each hidden fault is called in the table, by what is seen of it. */
const causesOf: Readonly<Record<HiddenId, readonly string[]>> = {
  dampReel: ['wet'],
  hotNozzle: ['hot'],
  slackDrive: ['retractShort'],
  /** Two names for one thing: it does not melt at this heat what this pace asks. */
  weakHotEnd: ['flowOver', 'cold'],
  narrowedBore: ['partialClog'],
  looseBelt: ['beltsLoose'],
  shakyTable: ['tableShakes'],
  deadFan: ['bridgeFan', 'fanWeak'],
}

/** From how much of it somebody calls it a fault: strings and holes by their number, waves and sag in mm. Assumed. */
const seen = {
  strings: { from: 5, of: ({ strings }: Making) => strings.length },
  gaps: { from: 8, of: ({ gaps }: Making) => gaps.length },
  waves: { from: 0.06, of: ({ layers }: Making) => Math.max(0, ...layers.map(({ waveMm }) => waveMm)) },
  sag: { from: 0.45, of: ({ layers }: Making) => Math.max(0, ...layers.map(({ sagMm }) => sagMm)) },
} as const satisfies Partial<Record<FaultId, { readonly from: number; readonly of: (made: Making) => number }>>
type SeenFault = keyof typeof seen
const seenFaults = Object.keys(seen) as SeenFault[]

const parts: Readonly<Record<string, () => Mesh>> = {
  posts: () => joined(blockMesh(52, 34, 1.6), ...[-20, 0, 20].flatMap((x) => [-11, 11].map((y) => moved(blockMesh(5, 5, 24), x, y, 1.6)))),
  gate: () => joined(moved(blockMesh(6, 12, 10), -18, 0, 0), moved(blockMesh(6, 12, 10), 18, 0, 0), moved(blockMesh(42, 12, 2), 0, 0, 10)),
  block: () => blockMesh(40, 30, 14),
  tall: () => blockMesh(16, 14, 60),
  turned: () => turnedAbout(blockMesh(34, 22, 16), 30),
  small: () => blockMesh(9, 9, 8),
}
/** Each fault is looked for on parts that can have it. */
const partsFor: Readonly<Record<HiddenId, readonly string[]>> = {
  dampReel: ['posts'],
  hotNozzle: ['posts'],
  slackDrive: ['posts'],
  weakHotEnd: ['block', 'turned'],
  narrowedBore: ['block', 'turned', 'tall'],
  looseBelt: ['block', 'turned', 'tall'],
  shakyTable: ['tall'],
  deadFan: ['gate'],
}

/** How often somebody tells it wrong. Assumed. */
const WRONG = 0.1
const MOST_TRIES = 5

/** How a case went. */
export interface WorkedCase {
  readonly seed: number
  readonly hidden: HiddenId
  readonly fault: SeenFault
  readonly truths: readonly string[]
  /** Place of the true cause before the first try, after the first, and so on. */
  readonly places: readonly number[]
  readonly tries: readonly Tried[]
}

/**
 * A workshop that was tuned, in which something went wrong: the case is worked as somebody would who takes every advice. What came of a try
 * is what a simulated printer makes of the changed program.
 *
 * @param hidden what is wrong; drawn where it is not told
 * @returns nothing where what is wrong cannot be seen on the part that was drawn
 */
export function workCase(seed: number, kernel: PolygonKernel, hidden?: HiddenId): WorkedCase | undefined {
  const random = seededBy(seed)
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!
  const wrong = hidden ?? pick(hiddenIds)
  const printer = pick(starterPrinters.filter(({ kinematics }) => kinematics !== 'tiltedBelt'))
  const isTube = printer.extruder === 'tube'
  // A tube swallows most of every pull.
  const sound = { ...truthFrom(seed), ooze: 1, pullSlackMm: isTube ? 3 : 0 }
  const broken = hiddenFaults[wrong].of(sound, random())
  const name = pick(partsFor[wrong])
  const setup: Setup = {
    printer: { ...printer, table: 'ordinary' },
    nozzle: starterNozzles[1]!,
    material: starterMaterials[0]!,
    stock: {
      days: Math.round((wrong === 'dampReel' ? 15 : 0) + 60 * random()),
      wet: false,
      remaining: { grams: 600 },
      others: [],
    } as never,
  }
  // What its owner found for it while it was sound.
  const values: SettingValues = {
    nozzleTemperature: Math.round((sound.window.low + sound.window.high) / 2 + sound.thermometer - 1),
    retractLength: Math.round(10 * ((isTube ? 3.9 : 0.9) + 0.3 * random())) / 10,
    wipeLength: pick([0, 1, 2]),
    lift: pick(['never', 'overPrinted']),
    acceleration: pick([1000, 1500, 2000]),
    outerWallSpeed: pick([40, 50, 60]),
    innerWallSpeed: pick([60, 80, 100]),
    infillSpeed: pick([80, 100, 120]),
    fanSpeed: 100,
    bridgeSpeed: pick([20, 30]),
    infillDensity: pick([10, 15, 20]),
  }
  const part = partOf(name, parts[name]!())
  const caches = new StageCache(40)
  const make = (of: string, given: SettingValues, truth: Truth): Making => {
    const own = of === name ? part : partOf(of, parts[of]!())
    const lines: string[] = []
    let rest = ''
    programFor(own, asModelled, setup, given, { kernel, cache: caches, partName: of, filament: 'relative' }, (text) => {
      const pieces = (rest + text).split('\n')
      rest = pieces.pop()!
      lines.push(...pieces)
    })
    const machine = new Machine(truth, usualLimits, seed)
    for (const _ of runProgram(machine, lines));
    return machine.making
  }
  const before = make(name, values, sound)
  const made = make(name, values, broken)
  const much = (fault: SeenFault, of: Making): number => seen[fault].of(of) / seen[fault].from
  const fault = seenFaults.reduce((most, one) => (much(one, made) > much(most, made) ? one : most))
  if (much(fault, made) < 1.5 || much(fault, before) >= 1) return undefined

  const scene = sceneOf(setup, predict(part, asModelled, setup, values, { kernel, cache: caches }), [])
  const truths = causesOf[wrong]
  const { signs } = hiddenFaults[wrong]
  const answerFor: Readonly<Record<string, () => string | undefined>> = {
    sound: () => signs.sound,
    line: () => signs.line,
    before: () => signs.before,
    shakes: () => (signs.stand === 'moves' ? 'moves' : 'floor'),
    smallParts: () => (much(fault, make('small', values, broken)) >= 0.5 ? 'no' : 'yes'),
    everywhere: () => whereSeen(fault, made),
    threads: () => 'between',
    fan: () => signs.air,
    drive: () => (signs.sound === 'clicking' || signs.line === 'curls' ? 'chewed' : 'fine'),
    firstLayer: () => 'flat',
  }
  let answers: Answers = {}
  for (;;) {
    const [ask] = asksOf(faults[fault], scene, answers, [])
    if (!ask) break
    const said = random() < WRONG ? pick(Object.keys(ask.question.answers)) : answerFor[ask.question.id]?.()
    if (said === undefined) break
    answers = { ...answers, [ask.question.id]: said }
  }

  const tries: Tried[] = []
  const place = (): number => 1 + weigh(faults[fault], scene, answers, tries).findIndex(({ cause }) => truths.includes(cause.id))
  const places = [place()]
  const judged = (after: Making): TryResult => {
    const [was, is] = [much(fault, made), much(fault, after)]
    const other = seenFaults.some((one) => one !== fault && much(one, after) >= 1.5 && much(one, made) < 1)
    return other ? 'another' : is < 1 && is < 0.7 * was ? 'fixed' : is < 0.7 * was ? 'better' : is > 1.5 * was ? 'worse' : 'same'
  }
  /** By hand what is wrong is mended where it is that; a trial finds what would be right. */
  const tryOut = ({ cause, values: change }: Next): TryResult => {
    if (change) return judged(make(name, { ...values, ...change }, broken))
    const mends = truths.includes(cause.id) || (wrong === 'dampReel' && cause.id === 'otherSpool')
    return judged(mends ? before : made)
  }
  while (tries.length < MOST_TRIES && tries.at(-1)?.did !== 'fixed') {
    const [next] = nextOf(faults[fault], scene, answers, tries)
    if (!next) break
    tries.push({ cause: next.cause.id, words: next.remedy.words, did: tryOut(next) })
    places.push(place())
  }
  return { seed, hidden: wrong, fault, truths, places, tries }
}

/** Where on its height it is seen. */
function whereSeen(fault: SeenFault, { strings, gaps, layers }: Making): string {
  const top = layers.at(-1)?.z ?? 1
  const marks =
    fault === 'strings'
      ? strings.map(({ z }) => z)
      : fault === 'gaps'
        ? gaps.map(({ z }) => z)
        : layers.filter(({ waveMm, sagMm }) => (fault === 'waves' ? waveMm : sagMm) > seen[fault].from).map(({ z }) => z)
  const counts = [0, 0, 0, 0]
  for (const z of marks) counts[Math.min(3, Math.floor((4 * z) / top))]!++
  const mean = marks.length / 4
  if (counts.every((count) => count > mean / 3)) return 'all'
  return counts[2]! + counts[3]! > 0.85 * marks.length ? 'above' : 'bands'
}

/** After how many tries the true cause stood first, and stayed there; nothing where it never did. */
export function triesUntilFirst({ places }: Pick<WorkedCase, 'places'>): number | undefined {
  const last = places.findLastIndex((place) => place !== 1)
  return last === places.length - 1 ? undefined : last + 1
}
