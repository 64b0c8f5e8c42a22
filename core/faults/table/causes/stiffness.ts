import { type Cause, measured, whether } from '../../spec/cause'

/** What keeps a part stiff that is to give way. */
export const stiffnessCauses: readonly Cause[] = [
  {
    id: 'topsMany',
    name: 'Thick tops and bottoms make it stiff',
    why: 'A plate’s stiffness goes with the cube of its thickness.',
    clues: [
      measured('CP-K5, common practice', ({ settings }) => ({
        value: settings.topLayers + settings.bottomLayers,
        at: 5,
        steep: 1.5,
        what: `${settings.topLayers} top and ${settings.bottomLayers} bottom layers`,
      })),
    ],
    remedies: [
      {
        words: 'Two top layers',
        change: ({ settings }) => (settings.topLayers > 2 ? { topLayers: 2, bottomLayers: Math.min(2, settings.bottomLayers) } : undefined),
        keeps: 'profile',
      },
    ],
  },
  {
    id: 'wallsMany',
    name: 'Many walls make it stiff',
    why: 'Each wall is a spring beside the others.',
    clues: [
      measured('CP-K5, common practice', ({ settings }) => ({ value: settings.wallCount, at: 2.5, what: `${settings.wallCount} walls` })),
    ],
    remedies: [
      {
        words: 'One wall less',
        change: ({ settings }) => (settings.wallCount > 1 ? { wallCount: settings.wallCount - 1 } : undefined),
        keeps: 'profile',
      },
    ],
  },
  {
    id: 'infillDense',
    name: 'Dense infill makes it stiff',
    why: 'Its modulus goes with its density, and more.',
    clues: [
      measured('CP-K5, common practice', ({ settings }) => ({
        value: Math.max(1, settings.infillDensity),
        at: 10,
        steep: 1,
        what: `${settings.infillDensity} % infill`,
      })),
    ],
    remedies: [
      {
        words: 'Half the infill',
        change: ({ settings }) => (settings.infillDensity >= 4 ? { infillDensity: Math.round(settings.infillDensity / 2) } : undefined),
        keeps: 'profile',
      },
    ],
  },
  {
    id: 'patternStiff',
    name: 'The pattern is stiff along its walls',
    why: 'Planar patterns are good along their walls; a winding one gives way alike on all sides.',
    clues: [
      whether(
        'CP-K2, common practice',
        ({ settings }) => ({ so: settings.infillPattern !== 'gyroid', what: `infill of ${settings.infillPattern}` }),
        1.5,
        0.5,
      ),
    ],
    remedies: [
      {
        words: 'A winding pattern',
        change: ({ settings }) => (settings.infillPattern === 'gyroid' ? undefined : { infillPattern: 'gyroid' }),
        keeps: 'profile',
      },
    ],
  },
]
