import { type Cause, measured, whether } from '../../spec/cause'

/** The first layer, what holds it, and what pulls at it. */
export const bedCauses: readonly Cause[] = [
  {
    id: 'firstFast',
    name: 'The first layer is laid fast',
    why: 'Laid slowly it is pressed on; fast it is only laid down.',
    clues: [
      measured('CP-T1, common practice: half the general speed', ({ settings }) => ({
        value: settings.firstLayerSpeed,
        at: 28,
        what: `first layer at ${settings.firstLayerSpeed} mm/s`,
      })),
    ],
    remedies: [
      {
        words: 'First layer at half its speed',
        change: ({ settings }) =>
          settings.firstLayerSpeed > 10 ? { firstLayerSpeed: Math.max(10, Math.round(settings.firstLayerSpeed / 2)) } : undefined,
        keeps: 'printer',
      },
    ],
  },
  {
    id: 'noBrim',
    name: 'Nothing widens its foot',
    why: 'A brim holds where corners pull.',
    clues: [
      whether(
        'common practice',
        ({ settings }) => ({
          so: settings.brim === 'none',
          what: settings.brim === 'none' ? 'no brim' : `a brim of ${settings.brimWidth} mm`,
        }),
        2.2,
        0.4,
      ),
      measured('model of warping (semi-empirical)', ({ prediction: { warp } }) => ({
        value: warp.risk,
        at: 0.8,
        steep: 1,
        what: `what pulls at the corners is ${warp.risk.toFixed(2)} of what holds them`,
      })),
    ],
    remedies: [
      {
        words: 'A brim of 5 mm',
        change: ({ settings }) => (settings.brim === 'none' ? { brim: 'outer', brimWidth: 5 } : undefined),
        keeps: 'profile',
      },
    ],
  },
  {
    id: 'fanEarly',
    name: 'The fan blows on the first layers',
    why: 'What is cooled at once shrinks before it holds.',
    clues: [
      measured('CP-M3, common practice: fan from layer 2', ({ settings }) => ({
        value: settings.fanSpeed / 100,
        at: settings.slowFirstLayers > 1 ? 1.6 : 0.7,
        what: `fan ${settings.fanSpeed} % from layer ${settings.slowFirstLayers + 1} on`,
      })),
    ],
    remedies: [
      {
        words: 'Three slow first layers, without fan',
        change: ({ settings }) => (settings.slowFirstLayers < 3 ? { slowFirstLayers: 3 } : undefined),
        keeps: 'spool',
      },
    ],
  },
  {
    id: 'longFlat',
    name: 'Long flat sides pull at their ends',
    why: 'What shrinks over a long way lifts its corners.',
    clues: [
      measured('model of warping (semi-empirical)', ({ prediction: { warp } }) => ({
        value: warp.contactMm,
        at: 80,
        steep: 1,
        what: `${warp.contactMm.toFixed(0)} mm of contact, ${(100 * warp.strain).toFixed(2)} % still to shrink`,
      })),
    ],
    remedies: [{ words: 'Lay it another way, or round its corners', keeps: 'profile', minutes: 5 }],
  },
  {
    id: 'nozzleFar',
    name: 'The nozzle is too far from the bed',
    why: 'Round lines touch the bed along a thread.',
    clues: [
      measured('assumed', ({ settings }) => ({
        value: 104 - Math.min(103, settings.firstLayerFlow),
        at: 6,
        steep: 1,
        what: `first layer flow ${settings.firstLayerFlow} %, ${settings.firstLayerHeight} mm thick`,
      })),
    ],
    remedies: [
      { words: 'Lower the nozzle by 0.05 mm', keeps: 'printer', minutes: 5 },
      { words: 'Read a squashed line at each corner', trial: 'bed', keeps: 'printer' },
    ],
  },
  {
    id: 'bedDirty',
    name: 'The bed is greasy or worn',
    why: 'A finger’s grease is enough.',
    clues: [
      measured('model of warping (semi-empirical)', ({ prediction: { warp } }) => ({
        value: 0.5 / Math.max(0.05, warp.risk),
        at: 1,
        steep: 0.6,
        what: `foretold to hold (${warp.risk.toFixed(2)} of what lets go): the better that is, the likelier it is the bed itself`,
      })),
    ],
    remedies: [
      {
        words: 'Wash the bed',
        keeps: 'nothing',
        minutes: 5,
        caution: 'Solvents burn and are breathed in: window open, nothing hot near, bed cold.',
      },
    ],
  },
  {
    id: 'squashed',
    name: 'The first layer is squashed',
    why: 'What is pressed flat spreads to the sides.',
    clues: [
      measured('model of fit (semi-empirical)', ({ prediction: { fit } }) => ({
        value: fit.flareMm,
        at: 0.15,
        steep: 1,
        what: `the foot is foretold to spread by ${fit.flareMm.toFixed(2)} mm`,
      })),
      measured('assumed', ({ settings }) => ({
        value: settings.firstLayerFlow / 100,
        at: 1.02,
        steep: 6,
        what: `first layer flow ${settings.firstLayerFlow} %`,
      })),
    ],
    remedies: [
      {
        words: 'First layer flow 5 % lower',
        change: ({ settings }) => ({ firstLayerFlow: Math.max(50, settings.firstLayerFlow - 5) }),
        keeps: 'printer',
      },
      { words: 'Raise the nozzle by 0.05 mm', keeps: 'printer', minutes: 5 },
    ],
  },
  {
    id: 'footHeavy',
    name: 'The weight above presses on a warm foot',
    why: 'A tall part sinks into what the bed keeps soft.',
    clues: [
      measured('assumed', ({ prediction: { mesh, filament } }) => ({
        value: (filament.massG / Math.max(1, mesh.sizeMm[0] * mesh.sizeMm[1])) * 100,
        at: 4,
        steep: 1,
        what: `${filament.massG.toFixed(0)} g over a foot of at most ${Math.round((mesh.sizeMm[0] * mesh.sizeMm[1]) / 100)} cm²`,
      })),
    ],
    remedies: [
      {
        words: 'Bed 10 °C cooler after the first layer',
        change: ({ settings }) => ({
          firstLayerBed: settings.firstLayerBed || settings.bedTemperature,
          bedTemperature: Math.max(0, settings.bedTemperature - 10),
        }),
        keeps: 'spool',
      },
    ],
  },
]
