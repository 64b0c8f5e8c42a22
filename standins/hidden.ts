import type { Truth } from './truth'

/** What a person sees or hears who looks after it. */
export interface Signs {
  readonly sound: 'hissing' | 'clicking' | 'nothing'
  /** A line that is pushed out into the air. */
  readonly line: 'straight' | 'curls' | 'foams'
  readonly stand: 'stays' | 'moves'
  /** Whether it ever printed well: with other reels, until lately, or never. */
  readonly before: 'otherReels' | 'until' | 'never'
  /** Of its part fan. */
  readonly air: 'strong' | 'weak'
}

/** Something that is wrong with a machine or its reel, which nobody is told. */
export interface Hidden {
  /** How a machine is that has it, the more the stronger: 0 is hardly, 1 is much. */
  readonly of: (truth: Truth, strength: number) => Truth
  readonly signs: Signs
}

const plain: Signs = { sound: 'nothing', line: 'straight', stand: 'stays', before: 'until', air: 'strong' }

/** Eight of them. How strongly each shows is assumed, about as hobbyists meet it. */
export const hiddenFaults = {
  dampReel: {
    of: (truth, strength) => ({ ...truth, damp: 6 + 10 * strength }),
    signs: { ...plain, sound: 'hissing', line: 'foams', before: 'otherReels' },
  },
  /** Its thermometer shows too little: the melt is hotter than anybody asked. */
  hotNozzle: {
    of: (truth, strength) => ({ ...truth, thermometer: truth.thermometer - 14 - 12 * strength }),
    signs: plain,
  },
  /** Play between drive and nozzle swallows a part of every pull. */
  slackDrive: {
    of: (truth, strength) => ({ ...truth, pullSlackMm: truth.pullSlackMm + 0.4 + 0.4 * strength }),
    signs: { ...plain, before: 'never' },
  },
  weakHotEnd: {
    of: (truth, strength) => ({ ...truth, failingFlow: truth.failingFlow * (0.42 - 0.1 * strength) }),
    signs: { ...plain, sound: 'clicking' },
  },
  narrowedBore: {
    of: (truth, strength) => ({ ...truth, boreOpen: 0.85 - 0.25 * strength }),
    signs: { ...plain, line: 'curls' },
  },
  looseBelt: {
    of: (truth, strength) => ({ ...truth, looseness: 5 + 5 * strength }),
    signs: plain,
  },
  shakyTable: {
    of: (truth, strength) => ({ ...truth, tableGives: 0.15 + 0.2 * strength }),
    signs: { ...plain, stand: 'moves', before: 'never' },
  },
  deadFan: {
    of: (truth, strength) => ({ ...truth, fanFactor: truth.fanFactor * (0.3 - 0.25 * strength) }),
    signs: { ...plain, air: 'weak' },
  },
} as const satisfies Readonly<Record<string, Hidden>>

export type HiddenId = keyof typeof hiddenFaults
export const hiddenIds = Object.keys(hiddenFaults) as HiddenId[]
export const isHiddenId = (text: string): text is HiddenId => text in hiddenFaults
