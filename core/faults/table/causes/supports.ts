import { type Cause, measured, whether } from '../../spec/cause'
import type { Scene } from '../../spec/scene'
import { lift } from './remedies'

const isSupported = ({ settings }: Scene): boolean => settings.supports !== 'off'

/** Supports that wobble, break, stray or let go. Practice does not rank them: each sign has its own remedy (CP-P1 to CP-P5). */
export const supportCauses: readonly Cause[] = [
  {
    id: 'trunkSlender',
    name: 'A lone trunk is slender',
    why: 'It stands alone and gives way under the nozzle.',
    clues: [
      measured('model of sway (beam theory), CP-P1', (scene) =>
        isSupported(scene)
          ? {
              value: scene.prediction.supportSway.mostMm,
              at: 0.08,
              steep: 1,
              what: `the unsteadiest support gives way by ${scene.prediction.supportSway.mostMm.toFixed(2)} mm, ${scene.prediction.supportSway.atZMm.toFixed(0)} mm up`,
            }
          : undefined,
      ),
    ],
    remedies: [
      {
        words: 'Trunks twice as thick',
        change: (scene) =>
          isSupported(scene) && scene.settings.trunkDiameter < 30
            ? { trunkDiameter: Math.min(35, 2 * scene.settings.trunkDiameter) }
            : undefined,
        keeps: 'profile',
      },
    ],
  },
  {
    id: 'supportFast',
    name: 'Supports are laid fast',
    why: 'What is thin and alone wants time.',
    clues: [
      measured('CP-P1, common practice: 25 mm/s', ({ settings }) => ({
        value: settings.supportSpeed,
        at: 32,
        what: `supports at ${settings.supportSpeed} mm/s`,
      })),
    ],
    remedies: [
      {
        words: 'Supports alone at 25 mm/s',
        change: ({ settings }) => (settings.supportSpeed > 25 ? { supportSpeed: 25 } : undefined),
        keeps: 'profile',
      },
    ],
  },
  {
    id: 'supportNoLift',
    name: 'The nozzle runs into supports',
    why: 'It clicks against what has curled, again and again.',
    clues: [
      whether(
        'CP-P1, common practice',
        ({ settings }) => ({
          so: settings.lift === 'never',
          what: settings.lift === 'never' ? 'no lift on travel' : `lift of ${settings.liftHeight} mm`,
        }),
        2,
        0.4,
      ),
    ],
    remedies: [
      lift('Lift by one layer'),
      {
        words: 'Lift by two layers, where many supports are crossed',
        change: ({ settings }) => {
          const liftHeight = Math.round(200 * settings.layerHeight) / 100
          return settings.lift === 'never' || settings.liftHeight < liftHeight
            ? { lift: settings.lift === 'never' ? 'overPrinted' : settings.lift, liftHeight }
            : undefined
        },
        keeps: 'profile',
      },
    ],
    school: 'One school lifts only over printed parts, the other over everything.',
  },
  {
    id: 'supportNoBrim',
    name: 'Supports stand on too small a foot',
    why: 'They are pushed off the bed.',
    clues: [
      whether(
        'CP-P1, common practice',
        ({ settings }) => ({
          so: settings.supportBrim === 'none',
          what: settings.supportBrim === 'none' ? 'supports have no brim' : 'supports have a brim',
        }),
        2,
        0.4,
      ),
      whether(
        'model of sway (beam theory)',
        (scene) =>
          isSupported(scene)
            ? {
                so: scene.prediction.supportSway.looseAboveZMm !== undefined,
                what:
                  scene.prediction.supportSway.looseAboveZMm === undefined
                    ? 'no foot is foretold to come off'
                    : `a foot comes off from ${scene.prediction.supportSway.looseAboveZMm.toFixed(0)} mm on`,
              }
            : undefined,
        2.5,
        0.7,
      ),
    ],
    remedies: [
      {
        words: 'A brim inside the feet of supports',
        change: ({ settings }) => (settings.supportBrim === 'none' ? { supportBrim: 'inner' } : undefined),
        keeps: 'profile',
      },
      {
        words: 'A brim inside and outside of supports',
        change: ({ settings }) => (settings.supportBrim === 'both' ? undefined : { supportBrim: 'both' }),
        keeps: 'profile',
      },
    ],
  },
  {
    id: 'supportThin',
    name: 'Supports are too loose, or of the wrong pattern',
    why: 'Lines that run one way fold; grids hold each other.',
    clues: [
      measured('CP-P2, common practice: 5 to 10 %', ({ settings }) => ({
        value: 8 / settings.supportDensity,
        at: 1.1,
        what: `supports of ${settings.supportDensity} %`,
      })),
      whether(
        'CP-P2, common practice',
        ({ settings }) => ({ so: settings.supportPattern === 'lines', what: `supports of ${settings.supportPattern}` }),
        1.6,
        0.6,
      ),
    ],
    remedies: [
      {
        words: 'A grid of 10 %',
        change: ({ settings }) =>
          settings.supportPattern !== 'grid' || settings.supportDensity < 10
            ? { supportPattern: 'grid', supportDensity: Math.max(10, settings.supportDensity) }
            : undefined,
        keeps: 'profile',
      },
    ],
    school: 'Never concentric: it wastes plastic and holds nothing.',
  },
  {
    id: 'branchesLean',
    name: 'Branches lean as far as the overhang limit',
    why: 'They are overhangs themselves.',
    clues: [
      measured('CP-P3, common practice: 5 to 10° under the limit', ({ settings }) =>
        settings.supports === 'branching'
          ? {
              value: settings.branchLean / Math.max(1, settings.supportAngle - 7),
              at: 1,
              steep: 8,
              what: `branches lean ${settings.branchLean}°, the limit is ${settings.supportAngle}°`,
            }
          : undefined,
      ),
    ],
    remedies: [
      {
        words: 'Branches well under the limit of overhangs',
        change: ({ settings }) => {
          const branchLean = Math.max(5, Math.min(settings.branchLean, settings.supportAngle) - 10)
          return branchLean < settings.branchLean ? { branchLean } : undefined
        },
        keeps: 'profile',
      },
    ],
  },
  {
    id: 'supportGapWide',
    name: 'The gap under what is held is wide',
    why: 'What hangs over air sags onto its support.',
    clues: [
      measured('assumed', ({ settings }) => ({
        value: settings.supportGapLayers * settings.layerHeight,
        at: 0.3,
        steep: 1.5,
        what: `${(settings.supportGapLayers * settings.layerHeight).toFixed(2)} mm between support and part`,
      })),
    ],
    remedies: [
      {
        words: 'One layer less between them',
        change: ({ settings }) => (settings.supportGapLayers > 0 ? { supportGapLayers: settings.supportGapLayers - 1 } : undefined),
        keeps: 'profile',
      },
    ],
  },
]
