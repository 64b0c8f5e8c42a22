import type { PickedPlace } from '@sable/core/physics/strength/pickedCases'

/** What is being pointed at. */
export type Picking = 'hold' | 'load'

/** Ways that a load may act, in coordinates of the part as it lies; into the face where there is none. */
export const ways = [
  { id: 'face', name: 'into the face' },
  { id: '0 0 -1', name: 'down' },
  { id: '0 0 1', name: 'up' },
  { id: '1 0 0', name: 'towards +X' },
  { id: '-1 0 0', name: 'towards −X' },
  { id: '0 1 0', name: 'towards +Y' },
  { id: '0 -1 0', name: 'towards −Y' },
] as const
export type Way = (typeof ways)[number]['id']

/** Of a choice of ways: where it was picked and the part lies otherwise now, what it is has no name. */
export const wayFields = (way: Way | undefined, hasFace: boolean) => {
  const of = ways.filter(({ id }) => hasFace || id !== 'face')
  return { value: way ?? ('own' as const), of: way ? of : [{ id: 'own' as const, name: 'as it was picked' }, ...of] }
}

/** Ends of the part as it lies, and which way they look. */
export const ends = [
  { id: '-1 0 0', name: 'at −X' },
  { id: '1 0 0', name: 'at +X' },
  { id: '0 -1 0', name: 'at −Y' },
  { id: '0 1 0', name: 'at +Y' },
  { id: '0 0 -1', name: 'at the bed' },
  { id: '0 0 1', name: 'at the top' },
] as const

export const nameOfPlace = (place: PickedPlace): string => ('outwards' in place ? 'at an end' : 'sides' in place ? 'in a box' : 'at a face')
