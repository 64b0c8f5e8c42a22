import type { Prediction } from '@sable/core/pipeline/predict'

/** What anyone who prints from a sheet should be told, and what its candidates call for beside. */
export function cautionsFor(predictions: readonly Pick<Prediction, 'checks'>[]): string[] {
  const has = (id: string): boolean => predictions.some(({ checks }) => checks.some((check) => check.id === id))
  return [
    'Nozzle and bed are hot. Stay with a first print; keep what burns away from it and a smoke alarm near.',
    has('fumes')
      ? 'This material gives off fumes and particles: ventilate the room and stay out of it.'
      : 'Ventilate: every filament gives off fumes and particles.',
    'A predicted load is an estimate for one material and one load, never a rating. Test the real part with a margin; never lift people or hang loads over people with it.',
    ...(has('filled-dust') ? ['Sanding filled prints makes harmful dust: wear a mask.'] : []),
    ...(has('food-contact')
      ? ['Gaps between layers hold germs, brass may hold lead, pigments are unknown: follow your local rules for what touches food.']
      : []),
  ]
}
