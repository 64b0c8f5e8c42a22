import { type Cause, measured, type Remedy, whether } from '../../spec/cause'
import { localOf, whereOf } from '../../spec/scene'
import { coldPull, hotter, lift, lowerFlow } from './remedies'

/** mm; common practice. */
const MOST_PULLED = 9

/** @param by as a share, but no less than `leastMm` with a direct drive, and two and a half times that through a tube */
const pullMore = (words: string, by: number, leastMm: number): Remedy => ({
  words,
  // Pulled back farther than the most it clogs.
  change: ({ settings: { retractLength }, setup: { printer } }) => ({
    retractLength: Math.min(
      Math.max(MOST_PULLED, retractLength),
      Math.round(10 * (retractLength + Math.max(by * retractLength, printer.extruder === 'tube' ? 2.5 * leastMm : leastMm))) / 10,
    ),
  }),
  keeps: 'spool',
})

/** What the extruder pushes, pulls back, and lets ooze. */
export const feedingCauses: readonly Cause[] = [
  {
    id: 'flowOver',
    name: 'More is asked than the hot end melts',
    why: 'Past the flow at which melting fails, lines come out thin, matte and badly bonded.',
    clues: [
      measured(
        'model of melting (semi-empirical), CP-F4',
        (scene) => {
          const here = localOf(scene, 'melt')
          return { value: here.melt, at: 0.85, steep: 3, what: `melt load ${Math.round(100 * here.melt)} % ${whereOf(scene, here)}` }
        },
        'melt',
      ),
      measured(
        'model of melting (semi-empirical)',
        ({ prediction: { melt } }) => ({
          value: 0.2 + 10 * melt.missing,
          at: 0.3,
          steep: 1,
          what: `${(100 * melt.missing).toFixed(1)} % of the plastic foretold as missing`,
        }),
        'melt',
      ),
    ],
    remedies: [
      hotter(10),
      lowerFlow('Hold the flow a fifth lower than it gets', 0.8, 'profile'),
      lowerFlow('Half the flow', 0.5, 'profile'),
      { words: 'Find the flow at which it fails', trial: 'flowLadder', keeps: 'spool' },
    ],
  },
  {
    id: 'partialClog',
    name: 'The nozzle is partly clogged',
    why: 'It lets through a little, and less under pressure.',
    clues: [
      measured('assumed: where hardly any load is, it is not the load', (scene) => {
        const here = localOf(scene, 'melt')
        return {
          value: 0.75 / Math.max(0.05, here.melt),
          at: 1,
          steep: 1,
          what: `melt load ${Math.round(100 * here.melt)} % ${whereOf(scene, here)}: the less it is, the less it is the flow`,
        }
      }),
    ],
    remedies: [coldPull('Pull it cold, or change the nozzle', 'nothing')],
  },
  {
    id: 'pushBackFast',
    name: 'Filament is pushed back too fast',
    why: 'The motor skips, and the next line begins empty.',
    clues: [
      measured('CP-R4, common practice: 30 mm/s at most', ({ settings }) => ({
        value: settings.retractLength === 0 ? 1 : settings.pushBackSpeed,
        at: 30,
        steep: 4,
        what: settings.retractLength === 0 ? 'nothing is pulled back' : `push-back ${settings.pushBackSpeed} mm/s`,
      })),
    ],
    remedies: [
      {
        words: 'Push back at 25 mm/s',
        change: ({ settings }) => (settings.pushBackSpeed > 25 ? { pushBackSpeed: 25 } : undefined),
        keeps: 'printer',
      },
    ],
  },
  {
    id: 'underFlow',
    name: 'Too little is fed throughout',
    why: 'Steps of the extruder, or a filament thinner than it says.',
    clues: [
      measured('assumed', ({ settings }) => ({ value: 106 - settings.flow, at: 8, what: `flow ${settings.flow} %` })),
      whether(
        'the log',
        ({ setup: { known } }) =>
          known && {
            so: known['print.flow'] === undefined,
            what: known['print.flow'] === undefined ? 'no print of it was weighed' : 'prints of it were weighed',
          },
        1.3,
        0.5,
      ),
    ],
    remedies: [
      { words: 'Flow 3 % higher', change: ({ settings }) => ({ flow: Math.min(150, settings.flow + 3) }), keeps: 'spool' },
      { words: 'Measure a wall and weigh the print', trial: 'dimensions', keeps: 'printer' },
    ],
  },
  {
    id: 'overFlow',
    name: 'Too much is fed throughout',
    why: 'What does not fit is pushed up and out.',
    clues: [measured('assumed', ({ settings }) => ({ value: Math.max(1, settings.flow - 94), at: 8, what: `flow ${settings.flow} %` }))],
    remedies: [{ words: 'Flow 3 % lower', change: ({ settings }) => ({ flow: Math.max(50, settings.flow - 3) }), keeps: 'spool' }],
  },
  {
    id: 'retractShort',
    name: 'Too little is pulled back',
    why: 'What stays at the mouth of the nozzle is drawn out over every gap.',
    clues: [
      measured('CP-M1, common practice', ({ settings, setup: { printer, material } }) => {
        const usual = material.family === 'flexible' ? 0.3 : printer.extruder === 'tube' ? 4 : 0.6
        return {
          value: usual / Math.max(0.05, settings.retractLength),
          at: 1.2,
          steep: 1,
          what: `${settings.retractLength} mm is pulled back; ${usual} mm is usual for a ${printer.extruder === 'tube' ? 'tube' : 'direct'} drive`,
        }
      }),
    ],
    remedies: [
      pullMore('Pull back a fifth more', 0.2, 0.2),
      pullMore('Pull back two fifths more', 0.4, 0.4),
      { words: 'Find the least that does', trial: 'retraction', keeps: 'spool' },
    ],
    school: 'Longer is not better: past the usual it grinds, and clogs beyond 9 mm.',
  },
  {
    id: 'retractLong',
    name: 'Too much is pulled back',
    why: 'Melt is drawn into the cold side, sets there and clogs; what was drawn in comes back late.',
    clues: [
      measured('CP-M1 and common practice: beyond 9 mm it clogs', ({ settings, setup: { printer } }) => {
        const usual = printer.extruder === 'tube' ? 6 : 1.2
        return {
          value: Math.max(0.05, settings.retractLength) / usual,
          at: 1.4,
          what: `${settings.retractLength} mm is pulled back; ${usual} mm is much for a ${printer.extruder === 'tube' ? 'tube' : 'direct'} drive`,
        }
      }),
    ],
    remedies: [
      {
        words: 'Pull back a third less',
        change: ({ settings }) =>
          settings.retractLength > 0.2 ? { retractLength: Math.round(6.7 * settings.retractLength) / 10 } : undefined,
        keeps: 'spool',
      },
    ],
  },
  {
    id: 'openWays',
    name: 'Much of the travel crosses open air',
    why: 'Every way over a gap is a chance for a string.',
    clues: [
      measured('measured on the paths', ({ prediction: { strings } }) => ({
        // Where filament is pulled back, a way over air is a smaller risk.
        value: strings.openM + 0.05 * strings.pulledM,
        at: 1.5,
        steep: 1,
        what: `${(strings.openM + strings.pulledM).toFixed(1)} m over open air, ${strings.openM.toFixed(1)} m of it without pulling back`,
      })),
    ],
    remedies: [
      {
        words: 'Stay inside the part',
        change: ({ settings }) => (settings.travelInside === 'on' ? undefined : { travelInside: 'on' }),
        keeps: 'profile',
      },
      {
        words: 'Pull back at every layer change',
        change: ({ settings }) => (settings.retractAtLayer === 'on' ? undefined : { retractAtLayer: 'on' }),
        keeps: 'profile',
      },
    ],
  },
  {
    id: 'noWipe',
    name: 'The nozzle is not wiped before it leaves',
    why: 'A drop at its mouth goes along; wiped over the last line it stays there.',
    clues: [
      whether(
        'CP-R2, CP-R8, common practice',
        ({ settings }) => ({ so: settings.wipeLength < 1, what: settings.wipeLength === 0 ? 'no wipe' : `wipe ${settings.wipeLength} mm` }),
        2,
        0.5,
      ),
    ],
    remedies: [
      { words: 'Wipe 1 mm', change: ({ settings }) => (settings.wipeLength < 1 ? { wipeLength: 1 } : undefined), keeps: 'spool' },
      { words: 'Wipe 2 mm', change: ({ settings }) => (settings.wipeLength < 2 ? { wipeLength: 2 } : undefined), keeps: 'spool' },
    ],
  },
  {
    id: 'travelSlow',
    name: 'The head travels slowly',
    why: 'The longer it is on its way, the more it drips.',
    clues: [
      measured('CP-M3, common practice: fast travel against drips', ({ settings }) => ({
        value: 120 / settings.travelSpeed,
        at: 1.2,
        what: `travel ${settings.travelSpeed} mm/s`,
      })),
    ],
    remedies: [
      {
        words: 'Travel a half faster',
        change: ({ settings, setup: { printer } }) =>
          1.5 * settings.travelSpeed <= printer.limits.speed.x ? { travelSpeed: Math.round(1.5 * settings.travelSpeed) } : undefined,
        keeps: 'printer',
      },
    ],
  },
  {
    id: 'staysDown',
    name: 'The nozzle leaves at the height of the line',
    why: 'It draws its drop along over what it has just laid; raised, the thread breaks off.',
    clues: [
      whether(
        'common practice',
        ({ settings }) => ({
          so: settings.lift === 'never',
          what: settings.lift === 'never' ? 'no lift on travel' : `lift of ${settings.liftHeight} mm`,
        }),
        1.5,
        0.5,
      ),
    ],
    remedies: [lift('Lift by one layer on travel')],
    school: 'A lift breaks threads off; others hold that the longer way is another chance for one.',
  },
  {
    id: 'pressureAtEnds',
    name: 'Pressure is left where a line ends',
    why: 'The nozzle still pushes when it has arrived: a blob at every seam and end.',
    clues: [
      whether(
        'CP-S8, common practice',
        ({ settings }) => ({
          so: settings.coastLength === 0,
          what: settings.coastLength === 0 ? 'lines are laid to their very end' : `coasts over the last ${settings.coastLength} mm`,
        }),
        1.8,
        0.5,
      ),
      measured('assumed: the faster, the more pressure', ({ prediction: { realSpeeds } }) => ({
        value: realSpeeds.outerWall.speedMmS / 80,
        at: 1,
        steep: 1,
        what: `outer wall at ${Math.round(realSpeeds.outerWall.speedMmS)} mm/s`,
      })),
    ],
    remedies: [
      {
        words: 'Coast over the last 0.2 mm',
        change: ({ settings }) => (settings.coastLength < 0.2 ? { coastLength: 0.2 } : undefined),
        keeps: 'spool',
      },
      {
        words: 'Put the seam into a corner',
        change: ({ settings }) => (settings.seam === 'hidden' ? undefined : { seam: 'hidden' }),
        keeps: 'profile',
      },
    ],
  },
  {
    id: 'feedLimit',
    name: 'The extruder cannot turn as fast as it is asked',
    why: 'Its firmware holds it, or its motor skips.',
    clues: [
      measured('the printer’s record', ({ prediction: { limiters } }) => ({
        value: 0.02 + (limiters.extruder ?? 0),
        at: 0.06,
        steep: 1,
        what: `${Math.round(100 * (limiters.extruder ?? 0))} % of the laying is held by the extruder’s feed`,
      })),
    ],
    remedies: [lowerFlow('Hold the flow a fifth lower than it gets', 0.8, 'printer')],
  },
  {
    id: 'nozzleNear',
    name: 'The nozzle is too near the bed',
    why: 'The first layer has nowhere to go: it clicks, ripples, and spreads.',
    clues: [
      measured('assumed', ({ atZ, settings }) =>
        atZ === undefined
          ? undefined
          : {
              value: settings.firstLayerHeight / Math.max(0.05, atZ),
              at: 0.5,
              what: `seen ${atZ.toFixed(1)} mm above the bed, where ${atZ > 3 * settings.firstLayerHeight ? 'its distance no longer matters' : 'its distance matters'}`,
            },
      ),
      measured('assumed', ({ settings }) => ({
        value: settings.firstLayerFlow / 100,
        at: 1.05,
        steep: 6,
        what: `first layer flow ${settings.firstLayerFlow} %`,
      })),
    ],
    remedies: [{ words: 'Raise the nozzle by 0.05 mm', keeps: 'printer', minutes: 5 }],
  },
]
