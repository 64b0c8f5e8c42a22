import { type FaultCase, faultCaseSchema } from '@sable/core/faults/case'

/** A fault of the lantern workshop: in which lineup, of which candidate, and how many days ago it was last touched. */
export interface DemoCase {
  readonly lineup: string
  readonly candidate: string
  readonly daysAgo: number
  readonly made: FaultCase
}

const of = (lineup: string, candidate: string, daysAgo: number, made: object): DemoCase => ({
  lineup,
  candidate,
  daysAgo,
  made: faultCaseSchema.parse(made),
})

/** Three that were found out, and one that is still open. */
export const demoCases: readonly DemoCase[] = [
  of('Battery tray before supper: how fast', 'tonight', 1, {
    fault: 'splitBand',
    note: 'Five or six thin layers right round; the small test cubes of the same reel are sound.',
    atZ: 17,
    answers: { smallParts: 'yes', everywhere: 'once' },
    tries: [{ cause: 'bedWarmthGone', words: 'Print 5 °C hotter', change: { nozzleTemperature: 220 }, did: 'better' }],
  }),
  of('Shade for the window: what shows', 'gallery', 40, {
    fault: 'strings',
    note: 'Hairs from flute to flute, worst on the inside.',
    answers: { sound: 'hissing', line: 'foams' },
    tries: [
      { cause: 'wet', words: 'Dry the reel, then print the same again', did: 'better' },
      { cause: 'retractShort', words: 'Pull back a fifth more', change: { retractLength: 1.4 }, did: 'fixed', times: 2 },
    ],
    found: 'wet',
    closed: 'The reel was damp; dried, and with 1.4 mm pulled back, nothing is left.',
  }),
  of('Finial: tall and thin', 'everyday', 60, {
    fault: 'feathered',
    answers: { everywhere: 'above', shakes: 'table' },
    tries: [
      { cause: 'tableShakes', words: 'Put it on a firmer base, then print the same', did: 'same' },
      { cause: 'sways', words: 'Half of every speed', did: 'fixed' },
    ],
    found: 'sways',
    closed: 'The spire swayed under the nozzle: drawn half as fast its edges are sharp.',
  }),
  of('Bumper foot: how soft', 'firm', 75, {
    fault: 'stiff',
    tries: [
      { cause: 'infillDense', words: 'Half the infill', did: 'better' },
      { cause: 'wallsMany', words: 'One wall less', change: { wallCount: 3 }, did: 'fixed' },
    ],
    found: 'wallsMany',
    closed: 'Walls and infill together: three walls and 12 % give way as a foot should.',
  }),
]
