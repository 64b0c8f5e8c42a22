import type { Purpose } from '../physics/strength/purpose'
import { type ChosenSchools, isChosen, sideOf } from '../schools/schools'
import { asCheck, type Check, type Rule } from './check'

/** Longer than this nobody stays beside it, s. */
const LONG_PRINT = 8 * 3600

/** Where work can hurt someone. */
export const safetyChecks: readonly Rule[] = [
  {
    id: 'fumes',
    severity: 'caution',
    find: ({ setup: { material } }) =>
      material.family !== 'ABS' && material.family !== 'nylon'
        ? undefined
        : {
            evidence: `${material.name} gives off fumes and particles.`,
            means: '',
            todo: `Ventilate the room, and do not sit beside the printer.${material.family === 'ABS' ? ' Solvent smoothing makes flammable vapour: no flame, spark or heat, gloves, outdoors, the supplier’s safety sheet first.' : ''}`,
          },
  },
  {
    id: 'filled-dust',
    severity: 'caution',
    find: ({ setup: { material } }) =>
      !(material.fibre || material.abrasive)
        ? undefined
        : {
            evidence: `${material.name} is filled.`,
            means: 'Its dust is harmful, and its brittle strand can snap and fly.',
            todo: 'Ventilate; wear a dust mask when sanding, and hold the strand when cutting it.',
          },
  },
  {
    id: 'long-print',
    severity: 'note',
    find: ({ time }) =>
      time.timeS < LONG_PRINT
        ? undefined
        : {
            evidence: `It prints for ${(time.timeS / 3600).toFixed(0)} hours.`,
            means: 'A printer left alone can start a fire.',
            todo: 'Have a smoke alarm over it, keep it clear, and never leave a first print alone.',
          },
  },
]

/** Cautions that follow from what a part is for, whatever the candidate. */
export function purposeChecks({ kind, touchesFood }: Pick<Purpose, 'kind' | 'touchesFood'>, chosen?: ChosenSchools): Check[] {
  return [
    ...(kind === 'load'
      ? [
          asCheck(
            { id: 'load-is-an-estimate', severity: 'caution' },
            {
              evidence: 'The part carries a load.',
              means: 'Predicted strength is an estimate for one material and one load, never a rating.',
              todo: 'Test the real part with a margin. Never lift people or hang loads over people with it; no helmets, climbing or child-safety parts.',
            },
          ),
        ]
      : []),
    ...(touchesFood
      ? [
          asCheck(
            {
              id: 'food-contact',
              severity: sideOf('S12', chosen).id === 'never' ? 'stop' : 'caution',
              school: `Never, or with care: practitioners disagree.${isChosen('S12', chosen) ? ` You follow: ${sideOf('S12', chosen).name} (S12).` : ''}`,
            },
            {
              evidence: 'The part touches food.',
              means: 'Gaps between layers hold germs, brass may hold lead, and pigments are unknown.',
              todo: 'Follow the local rules for food contact.',
            },
          ),
        ]
      : []),
  ]
}
