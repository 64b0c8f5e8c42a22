import type { PrintOutcome } from '@sable/core/log/outcome'
import type { SettingValues } from '@sable/core/profile/settings'

/** A print of the lantern maker: what it was made with, and what was said of it. Clock and reel are worked out by `makePrints.ts`. */
export interface DemoPrint {
  readonly daysAgo: number
  readonly part: string
  readonly profile: string
  readonly printer: string
  readonly nozzle: string
  readonly material: string
  readonly spool?: string
  readonly values: SettingValues
  /** Absent where it was not begun. */
  readonly outcome?: PrintOutcome
  /** The reel had stood open for long. */
  readonly wet?: boolean
  /** The reel ran out at a height and was changed. */
  readonly changed?: { readonly fromZ: number }
}

/** How each machine of the workshop really is: what only its prints tell. Dory's belt has slackened a month ago. */
export const machineOf = (printer: string, daysAgo: number): { acceleration: number; pace: number; startS: number } => {
  if (printer === 'lugger') return { acceleration: 0.86, pace: 1.01, startS: 35 }
  if (printer === 'dory') return { acceleration: 0.95, pace: daysAgo < 32 ? 1.055 : 1, startS: 10 }
  return { acceleration: 1.04, pace: 1, startS: -12 }
}

/** Flow factors of the reels: diameter, density and flow together. */
export const reels: Readonly<Record<string, number>> = { 'storm-black': 1.022, 'lamp-amber': 0.985, 'rope-ends': 1.01, 'buffer-grey': 1 }

const everyday = {
  layerHeight: 0.2,
  wallCount: 3,
  infillDensity: 15,
  outerWallSpeed: 60,
  innerWallSpeed: 90,
  infillSpeed: 120,
  topBottomSpeed: 90,
} as const
const gallery = { layerHeight: 0.12, wallCount: 2, infillDensity: 0, outerWallSpeed: 40, innerWallSpeed: 60, topBottomSpeed: 60 } as const
const quick = {
  layerHeight: 0.28,
  wallCount: 2,
  infillDensity: 10,
  outerWallSpeed: 150,
  innerWallSpeed: 250,
  infillSpeed: 250,
  topBottomSpeed: 200,
} as const
const sturdy = { ...everyday, wallCount: 5, topLayers: 5, bottomLayers: 5, infillDensity: 25 } as const

const lugger = { printer: 'lugger', nozzle: 'bore-0.4', material: 'pla', spool: 'storm-black' } as const
const dory = { printer: 'dory', nozzle: 'bore-0.4', material: 'pla', spool: 'rope-ends' } as const
const cutter = { printer: 'cutter', nozzle: 'bore-0.4', material: 'petg', spool: 'lamp-amber' } as const

const grey = { printer: 'lugger', nozzle: 'bore-0.4', material: 'flexible', spool: 'buffer-grey' } as const

const said = (result: PrintOutcome['result'], more: Partial<PrintOutcome> = {}): PrintOutcome => ({
  result,
  spools: [],
  marks: {},
  faults: [],
  note: '',
  ...more,
})
const weighed = (spool: string, beforeG: number): Pick<PrintOutcome, 'spools'> => ({ spools: [{ spool, beforeG }] })

/** What was never printed yet and stands in the queue alone. */
export const demoToCome: readonly DemoPrint[] = [
  { ...grey, daysAgo: 0, part: 'bumper-foot', profile: 'everyday', values: { layerHeight: 0.2, wallCount: 3, infillDensity: 20 } },
]

/** Three months of the workshop, the oldest first. */
export const demoPrints: readonly DemoPrint[] = [
  {
    ...lugger,
    daysAgo: 88,
    part: 'carry-hook',
    profile: 'everyday',
    values: everyday,
    outcome: said('good', { ...weighed('storm-black', 1190), marks: { sides: 4, top: 4 }, strength: 4 }),
  },
  {
    ...dory,
    daysAgo: 84,
    part: 'battery-tray',
    profile: 'everyday',
    values: everyday,
    outcome: said('good', { marks: { sides: 4 }, fit: 5 }),
  },
  {
    ...lugger,
    daysAgo: 79,
    part: 'shade',
    profile: 'gallery',
    values: gallery,
    outcome: said('good', {
      ...weighed('storm-black', 1150),
      marks: { sides: 5, seam: 3 },
      note: 'Even light all round. The seam shows on the side of the door.',
    }),
  },
  {
    ...cutter,
    daysAgo: 76,
    part: 'battery-tray',
    profile: 'quick',
    values: quick,
    outcome: said('usable', { ...weighed('lamp-amber', 980), marks: { sides: 3, top: 3 }, fit: 4 }),
  },
  {
    ...dory,
    daysAgo: 70,
    part: 'carry-hook',
    profile: 'everyday',
    values: everyday,
    outcome: said('good', { ...weighed('rope-ends', 640), strength: 4 }),
  },
  {
    ...lugger,
    daysAgo: 66,
    part: 'finial',
    profile: 'everyday',
    values: everyday,
    outcome: said('spoiled', {
      atZ: 41.6,
      faults: [{ what: 'came loose and was dragged along', atZ: 41.6 }],
      note: 'Tall and thin: the nozzle knocked it off the bed.',
    }),
  },
  {
    ...lugger,
    daysAgo: 65,
    part: 'finial',
    profile: 'everyday, brim',
    values: { ...everyday, brim: 'outer', brimWidth: 6 },
    outcome: said('good', {
      ...weighed('storm-black', 1080),
      marks: { sides: 4 },
      note: '**One change:** a brim of 6 mm. It stood to the end.',
    }),
  },
  {
    ...cutter,
    daysAgo: 61,
    part: 'carry-hook',
    profile: 'sturdy',
    values: sturdy,
    outcome: said('good', { ...weighed('lamp-amber', 940), strength: 5 }),
  },
  {
    ...dory,
    daysAgo: 57,
    part: 'battery-tray',
    profile: 'everyday',
    values: everyday,
    outcome: said('good', { ...weighed('rope-ends', 560), fit: 5 }),
  },
  {
    ...lugger,
    daysAgo: 50,
    part: 'carry-hook',
    profile: 'sturdy',
    values: sturdy,
    outcome: said('good', { ...weighed('storm-black', 1000), strength: 5, marks: { sides: 4, top: 5 } }),
  },
  {
    ...cutter,
    daysAgo: 46,
    wet: true,
    part: 'shade',
    profile: 'gallery',
    values: gallery,
    outcome: said('usable', {
      ...weighed('lamp-amber', 900),
      marks: { sides: 3, seam: 2 },
      faults: [{ what: 'strings across the vents', atZ: 22 }],
      note: 'Try 1: strings. Held: temperature, speed. Next, one thing only: more retraction.',
    }),
  },
  {
    ...cutter,
    daysAgo: 45,
    part: 'shade',
    profile: 'gallery, 1.4 mm back',
    wet: true,
    values: { ...gallery, retractLength: 1.4 },
    outcome: said('usable', {
      ...weighed('lamp-amber', 868),
      marks: { sides: 3, seam: 2 },
      faults: [{ what: 'strings across the vents', atZ: 24 }],
      note: 'Try 2: as before. **Ruled out:** retraction length.',
    }),
  },
  {
    ...cutter,
    daysAgo: 43,
    part: 'shade',
    profile: 'gallery, 1.4 mm back, dried',
    wet: false,
    values: { ...gallery, retractLength: 1.4 },
    outcome: said('good', {
      ...weighed('lamp-amber', 834),
      marks: { sides: 4, seam: 3 },
      note: 'Try 3: the reel dried for six hours, all else as in try 2. No strings: it was wet.',
    }),
  },
  {
    ...dory,
    daysAgo: 38,
    part: 'finial',
    profile: 'everyday, brim',
    values: { ...everyday, brim: 'outer', brimWidth: 6 },
    outcome: said('good', { ...weighed('rope-ends', 470) }),
  },
  {
    ...lugger,
    daysAgo: 31,
    part: 'shade',
    profile: 'gallery',
    values: gallery,
    outcome: said('good', { ...weighed('storm-black', 840), marks: { sides: 5, seam: 4 } }),
  },
  {
    ...dory,
    daysAgo: 27,
    part: 'carry-hook',
    profile: 'everyday',
    values: everyday,
    outcome: said('good', { ...weighed('rope-ends', 420), strength: 4 }),
  },
  {
    ...dory,
    daysAgo: 20,
    part: 'battery-tray',
    profile: 'everyday',
    values: everyday,
    outcome: said('usable', { ...weighed('rope-ends', 380), marks: { sides: 3 }, faults: [{ what: 'ripples behind the corners' }] }),
  },
  {
    ...dory,
    daysAgo: 13,
    part: 'carry-hook',
    profile: 'sturdy',
    values: sturdy,
    changed: { fromZ: 5.2 },
    outcome: said('good', {
      spools: [
        { spool: 'rope-ends', beforeG: 336 },
        { spool: 'storm-black', beforeG: 622, fromZ: 5.2 },
      ],
      note: 'The brown ran out; black from 5.2 mm.',
    }),
  },
  { ...dory, daysAgo: 8, part: 'battery-tray', profile: 'everyday', values: everyday, outcome: said('good', { fit: 4 }) },
  {
    ...lugger,
    daysAgo: 4,
    part: 'carry-hook',
    profile: 'everyday',
    values: everyday,
    outcome: said('good', { ...weighed('storm-black', 590), marks: { sides: 4, top: 4 }, strength: 4 }),
  },
  { ...lugger, daysAgo: 1, part: 'carry-hook', profile: 'sturdy', values: sturdy },
]

/** A question of the workshop, with the days on which its prints were made. */
export const demoExperiment = {
  question: 'Why does the amber shade string?',
  fault: 'strings across the vents',
  held: 'nozzle 240 °C, speeds and fan of the gallery profile',
  tries: [
    { daysAgo: 46, did: undefined },
    { daysAgo: 45, did: 'same' },
    { daysAgo: 43, did: 'helped' },
  ],
  verdict: 'It was wet: dry the amber reel before anything else.',
} as const
