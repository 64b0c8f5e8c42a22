import { type Cause, measured, whether } from '../../spec/cause'
import { localOf, whereOf } from '../../spec/scene'
import { hotter, mendFan, support } from './remedies'

/** What is asked of lines: how fast, how thick, how many, and over what. */
export const pathCauses: readonly Cause[] = [
  {
    id: 'outerFast',
    name: 'The outer wall is laid near the flow where gloss turns',
    why: 'Fast walls are matte, slow ones shine; between them every change shows.',
    clues: [
      measured(
        'model of gloss (semi-empirical), CP-S2',
        ({ prediction: { gloss } }) => ({
          value: 0.05 + gloss.spread,
          at: 0.2,
          steep: 1,
          what: `gloss ${gloss.mean.toFixed(2)} on average, ${gloss.spread.toFixed(2)} between its dullest and its brightest twentieth`,
        }),
        'outer wall',
      ),
      measured(
        'CP-S2, common practice',
        ({ prediction: { realSpeeds } }) => ({
          value: realSpeeds.outerWall.speedMmS,
          at: 60,
          steep: 1,
          what: `outer wall at ${Math.round(realSpeeds.outerWall.speedMmS)} mm/s`,
        }),
        'outer wall',
      ),
    ],
    remedies: [
      {
        words: 'Outer wall at 40 mm/s',
        change: ({ settings }) => (settings.outerWallSpeed > 40 ? { outerWallSpeed: 40 } : undefined),
        keeps: 'profile',
      },
      { words: 'See at which speed it turns', trial: 'gloss', keeps: 'spool' },
    ],
  },
  {
    id: 'layerTimeSwings',
    name: 'Layers are slowed for their least time, and others are not',
    why: 'Where the machine slowed, it shines.',
    clues: [
      measured('CP-S3; measured on the plan', ({ prediction: { layersSlowed, layerCount } }) => ({
        value: 0.02 + Math.min(layersSlowed, layerCount - layersSlowed) / layerCount,
        at: 0.12,
        steep: 1,
        what: `${layersSlowed} of ${layerCount} layers are slowed`,
      })),
    ],
    remedies: [
      {
        words: 'Slow only what nobody sees',
        change: ({ settings }) => (settings.layerTimeWalls === 'allButOuter' ? undefined : { layerTimeWalls: 'allButOuter' }),
        keeps: 'profile',
      },
    ],
  },
  {
    id: 'placesDiffer',
    name: 'Other values hold here',
    why: 'An override begins or ends at this height.',
    clues: [
      whether(
        'the candidate',
        ({ prediction, settings }) => ({
          so: JSON.stringify(prediction.settings) !== JSON.stringify(settings),
          what:
            JSON.stringify(prediction.settings) !== JSON.stringify(settings)
              ? 'overrides hold at this height'
              : 'no override holds at this height',
        }),
        5,
        0.25,
      ),
    ],
    remedies: [{ words: 'Take the overrides away there', keeps: 'profile', minutes: 1 }],
  },
  {
    id: 'overhangFlat',
    name: 'The overhang is flatter than lines can rest',
    why: 'Less than half of each line lies on the one below.',
    clues: [
      measured('CP-S7; measured on the paths', (scene) => {
        const here = localOf(scene, 'overAirMm')
        return {
          value: here.overAirMm,
          at: 15,
          steep: 1,
          what: `${here.overAirMm.toFixed(0)} mm of line half over air or more ${whereOf(scene, here)}`,
        }
      }),
    ],
    remedies: [support, { words: 'See which slope still holds', trial: 'overhang', keeps: 'spool' }],
  },
  {
    id: 'overhangFast',
    name: 'Overhangs are laid too fast',
    why: 'The line is pulled off its edge before it sets.',
    clues: [
      measured('CP-S7, common practice', ({ settings }) => ({
        value: (settings.outerWallSpeed * settings.overhangSpeed50) / 100,
        at: 30,
        steep: 1,
        what: `${Math.round((settings.outerWallSpeed * settings.overhangSpeed50) / 100)} mm/s where half is over air`,
      })),
    ],
    remedies: [
      {
        words: 'Half the speed over air',
        change: ({ settings }) => ({
          overhangSpeed50: Math.max(10, Math.round(settings.overhangSpeed50 / 2)),
          overhangSpeed75: Math.max(10, Math.round(settings.overhangSpeed75 / 2)),
        }),
        keeps: 'profile',
      },
    ],
  },
  {
    id: 'bridgeLong',
    name: 'The bridge is long',
    why: 'The middle hangs by its own weight before it sets.',
    clues: [
      measured('model of sag (semi-empirical)', ({ prediction: { sag } }) => ({
        value: Math.max(1, sag.spanMm),
        at: 15,
        steep: 1.5,
        what: sag.spanMm > 0 ? `the longest spans ${sag.spanMm.toFixed(0)} mm` : 'nothing is bridged',
      })),
    ],
    remedies: [support, { words: 'See how far it bridges', trial: 'bridge', keeps: 'spool' }],
    school: 'Some turn the part so that bridges run the short way; here they are laid across the shortest way whichever way it lies.',
  },
  {
    id: 'bridgeFast',
    name: 'Bridges are laid fast, or too thick',
    why: 'Slow and a little stretched, a line hangs straight.',
    clues: [
      measured('CP-S7, common practice', ({ settings }) => ({
        value: settings.bridgeSpeed,
        at: 35,
        what: `bridges at ${settings.bridgeSpeed} mm/s`,
      })),
      measured('assumed', ({ settings }) => ({
        value: settings.bridgeFlow / 100,
        at: 0.97,
        steep: 6,
        what: `bridge flow ${settings.bridgeFlow} %`,
      })),
    ],
    remedies: [
      {
        words: 'Bridges at 20 mm/s',
        change: ({ settings }) => (settings.bridgeSpeed > 20 ? { bridgeSpeed: 20 } : undefined),
        keeps: 'spool',
      },
    ],
  },
  {
    id: 'bridgeFan',
    name: 'Bridges and overhangs get too little air',
    why: 'What does not set in time comes down.',
    clues: [
      measured('CP-C2, common practice', ({ settings }) => ({
        value: (115 - Math.min(settings.bridgeFan, settings.overhangFan50)) / 100,
        at: 0.4,
        steep: 1,
        what: `fan ${settings.bridgeFan} % on bridges, ${settings.overhangFan50} % on overhangs`,
      })),
    ],
    remedies: [
      {
        words: 'Full fan over air',
        change: ({ settings }) =>
          Math.min(settings.bridgeFan, settings.overhangFan50, settings.overhangFan75) < 100
            ? { bridgeFan: 100, overhangFan50: 100, overhangFan75: 100 }
            : undefined,
        keeps: 'spool',
      },
      mendFan,
    ],
  },
  {
    id: 'topsThin',
    name: 'Too few top layers for what they span',
    why: 'Each layer closes a part of what the one below left open.',
    clues: [
      measured('model of closing (semi-empirical), CP-S6', ({ prediction: { topClosure } }) => ({
        value: 1 / Math.max(0.05, topClosure.closure),
        at: 1,
        steep: 3,
        what: `${topClosure.thicknessMm.toFixed(2)} mm of tops${topClosure.gapMm === undefined ? '' : ` over ${topClosure.gapMm.toFixed(1)} mm`}: ${topClosure.closure.toFixed(2)} of what closes it`,
      })),
    ],
    remedies: [{ words: 'Two top layers more', change: ({ settings }) => ({ topLayers: settings.topLayers + 2 }), keeps: 'profile' }],
  },
  {
    id: 'gapWide',
    name: 'Infill under the top is sparse',
    why: 'The first top layer hangs from line to line, or from wall to wall.',
    clues: [
      measured('CP-S6; measured on the pattern', ({ prediction: { topClosure } }) =>
        topClosure.gapMm === undefined
          ? undefined
          : { value: topClosure.gapMm, at: 4, steep: 1.5, what: `a free way of ${topClosure.gapMm.toFixed(1)} mm under the top` },
      ),
    ],
    remedies: [
      {
        words: 'Infill 10 % denser',
        change: ({ settings }) => ({ infillDensity: Math.min(100, settings.infillDensity + 10) }),
        keeps: 'profile',
      },
      {
        words: 'A pattern that only props tops',
        change: ({ settings }) => (settings.infillPattern === 'topPropping' ? undefined : { infillPattern: 'topPropping' }),
        keeps: 'profile',
      },
    ],
  },
  {
    id: 'notIroned',
    name: 'Tops are left as they are laid',
    why: 'Smoothing with the bare nozzle closes the lines.',
    clues: [
      whether(
        'CP-S4, common practice',
        ({ settings }) => ({
          so: settings.ironing === 'off',
          what: settings.ironing === 'off' ? 'tops are not ironed' : 'tops are ironed',
        }),
        1.3,
        0.6,
      ),
    ],
    remedies: [
      { words: 'Iron the tops', change: ({ settings }) => (settings.ironing === 'off' ? { ironing: 'on' } : undefined), keeps: 'profile' },
    ],
  },
  {
    id: 'layersThick',
    name: 'Layers are thick for this slope',
    why: 'Every layer is a step: the shallower the slope, the wider it is.',
    clues: [
      measured(
        'Ra of steps, h·cos θ/4 (geometry)',
        ({
          prediction: {
            surface: { ra95Um },
          },
        }) => ({
          value: ra95Um,
          at: 25,
          steep: 1.5,
          what: `Ra ${ra95Um.toFixed(0)} µm over its roughest twentieth`,
        }),
        'layers',
      ),
      measured(
        'CP-S1, common practice',
        ({ settings, setup: { nozzle } }) => ({
          value: settings.layerHeight / nozzle.bore,
          at: 0.45,
          what: `layers of ${settings.layerHeight} mm from a bore of ${nozzle.bore}`,
        }),
        'layers',
      ),
    ],
    remedies: [
      {
        words: 'Layers a third thinner',
        change: ({ settings }) => ({ layerHeight: Math.max(0.06, Math.round(67 * settings.layerHeight) / 100) }),
        keeps: 'profile',
      },
      {
        words: 'Layers that follow the shape',
        change: ({ settings }) => (settings.layerMode === 'uniform' ? { layerMode: 'followShape' } : undefined),
        keeps: 'profile',
      },
    ],
  },
  {
    id: 'liesFlat',
    name: 'It lies so that its curve is shallow',
    why: 'Turned upright the same curve has steps too small to see.',
    clues: [
      measured(
        'measured on the mesh',
        ({
          prediction: {
            surface: { raMeanUm, ra95Um },
          },
        }) => ({
          value: ra95Um / Math.max(1, raMeanUm),
          at: 2.2,
          steep: 1,
          what: `its roughest twentieth is ${(ra95Um / Math.max(1, raMeanUm)).toFixed(1)} times as rough as its mean`,
        }),
      ),
    ],
    remedies: [{ words: 'Compare orientations, and take another', keeps: 'profile', minutes: 2 }],
  },
  {
    id: 'wallsFew',
    name: 'Few walls',
    why: 'Walls carry; infill hardly does.',
    clues: [
      measured('CP-K1, common practice', ({ settings }) => ({
        value: 3.5 / Math.max(0.5, settings.wallCount),
        at: 1.2,
        what: `${settings.wallCount} walls`,
      })),
    ],
    remedies: [{ words: 'One wall more', change: ({ settings }) => ({ wallCount: settings.wallCount + 1 }), keeps: 'profile' }],
  },
  {
    id: 'layerTimeLong',
    name: 'Each layer is cold when the next one comes',
    why: 'Long layers of a large part lose their heat before they are laid on.',
    clues: [
      measured('assumed', (scene) => {
        const here = localOf(scene, 'bond')
        return { value: here.timeS, at: 60, steep: 1, what: `${here.timeS.toFixed(0)} s a layer ${whereOf(scene, here)}` }
      }),
    ],
    remedies: [hotter(5)],
  },
]
