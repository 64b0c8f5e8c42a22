import { choice } from '../spec/question'
import type { TrialKind } from './kind'

/** A question before anything is printed: wet filament defeats every other setting (CP-R1, common practice). */
export const dryness: TrialKind = {
  id: 'dryness',
  name: 'Dryness',
  tells: 'whether the spool is dry enough for what follows',
  how: 'Push some filament through the hot nozzle by hand and listen; look at the strand.',
  narrows: [],
  advises: [],
  owner: 'spool',
  size: { band: 1, foot: 0, length: 1 },
  bandsRun: 'up',
  seenFrom: 'front',
  values: () => ({}),
  questions: {
    band: [],
    whole: [
      choice('sound', 'It pops or hisses', { no: 'No', little: 'Now and then', yes: 'Yes' }, true),
      choice('strand', 'The strand', { smooth: 'Smooth', bubbles: 'Has bubbles' }, true),
    ],
  },
  cautions: () => ['The nozzle is hot. Never dry filament in a kitchen oven that cooks food.'],
  judge({ whole }) {
    const isWet = whole.sound === 'yes' || whole.strand === 'bubbles'
    const isDoubtful = whole.sound === 'little'
    return {
      found: isWet ? 'Wet: dry it before anything else is tried.' : isDoubtful ? 'Perhaps wet: dry it to be sure.' : 'Dry.',
      short: isWet ? 'wet' : isDoubtful ? 'perhaps wet' : 'dry',
      evidence: [],
      advice: [],
      ...(isWet ? {} : { next: { kind: 'temperature', why: 'Dry filament first, then its temperature.' } as const }),
      warnings: isWet ? ['Wet filament defeats every other setting: what is read before it is dried tells nothing.'] : [],
    }
  },
}
