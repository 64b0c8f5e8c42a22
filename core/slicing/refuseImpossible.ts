import type { Settings } from '../profile/settings'
import { InputError } from '../units/errors'

/** The pipeline works in whole tenths of a micrometre and in memory; a part beyond this is most likely in a wrong unit, mm. */
const LARGEST_PART = 3000
const MOST_LAYERS = 20_000

/** @throws InputError for a part that cannot be worked on at all, or into too many layers */
export function refuseImpossible(
  sizeMm: readonly number[],
  settings: Pick<Settings, 'layerHeight' | 'spiralWall' | 'copies' | 'copyOrder'>,
): void {
  const largest = Math.max(...sizeMm)
  if (largest > LARGEST_PART) {
    throw new InputError(
      'part-too-large',
      `The part is ${Math.round(largest)} mm long; ${LARGEST_PART} mm is the most that can be worked on.`,
      'part',
      'Set its scale: the file may be in another unit.',
    )
  }
  if (settings.spiralWall === 'on' && settings.copies > 1 && settings.copyOrder === 'together')
    throw new InputError(
      'spiral-together',
      'A spiral wall is one line: copies of it cannot be printed layer by layer together.',
      'copyOrder',
      'Print copies one at a time, or one alone.',
    )
  const layers = sizeMm[2]! / settings.layerHeight
  if (layers > MOST_LAYERS) {
    throw new InputError(
      'too-many-layers',
      `${Math.round(layers)} layers are more than the ${MOST_LAYERS} that can be worked on.`,
      'layerHeight',
      'Use thicker layers or a smaller part.',
    )
  }
}
