import type { Prediction } from '../../pipeline/predict'
import type { SolvedPurpose } from '../../pipeline/solvedWork'
import type { KnownSetup } from '../../setup/knownSetup'
import { formatForce, threeDigits } from '../../units/format'
import { asPercent, mm, type Reason } from './figure'
import type { StatedLoad } from './stated'

/** How a part fails, at the beginning of a sentence. */
export const failureWords: Readonly<Record<SolvedPurpose['by'], string>> = {
  lines: 'Lines break',
  layers: 'Layers part',
  buckling: 'It buckles',
}

/** Why finite elements say what they say of a load. */
export function solvedReason(
  { factor, failureN, at, by, stiffnessNmm, voxelMm, cells, iterations, residual, dropped }: SolvedPurpose,
  { bond, settings }: Prediction,
  { material, constants }: KnownSetup,
  words: string,
  sections: StatedLoad,
): Reason {
  const hasForce = !Number.isNaN(failureN)
  return {
    equation: 'K·u = f on the lines that are laid; fails where a handful of it, 1.8 mm cubed, is over its limit (Tsai–Hill)',
    terms: [
      { label: 'load', value: words },
      hasForce
        ? { label: 'moves it by 1 mm', value: formatForce(stiffnessNmm) }
        : { label: 'of the loads that were picked', value: `${threeDigits(factor)} ×` },
      { label: `strength of ${material.name} along its lines`, value: `${threeDigits(material.strength.inLayer)} MPa` },
      { label: 'lines bear across themselves', value: `${asPercent(constants.strength.acrossLines)} of that` },
      { label: 'bond between layers, worst', value: asPercent(bond.worst) },
      { label: 'stiffness of the material', value: `${threeDigits(material.strength.modulus)} MPa` },
      { label: 'walls', value: `${settings.wallCount} × ${settings.lineWidth} mm` },
      { label: 'infill', value: `${settings.infillDensity} % ${settings.infillPattern}` },
      { label: 'grid', value: `${cells} cells of ${mm(voxelMm, 2)}` },
      { label: 'forces left out of balance', value: `${(100 * residual).toFixed(1)} % after ${iterations} steps` },
      ...(dropped > 0.001 ? [{ label: 'plastic that hangs on nothing held', value: `${(100 * dropped).toFixed(1)} %` }] : []),
      ...(sections.unfit || !Number.isFinite(sections.loadN) || !hasForce
        ? []
        : [{ label: 'its sections say', value: formatForce(sections.loadN) }]),
    ],
    place: `${failureWords[by]} first at x ${mm(at[0])}, y ${mm(at[1])}, z ${mm(at[2])}. Nothing is judged within 2.5 mm of where it is held or loaded.`,
    basis: material.strength.basis,
    source:
      'Finite elements: bricks with incompatible modes (Wilson 1973, Taylor, Beresford & Wilson 1976), Tsai–Hill (Azzi & Tsai 1965), all from memory; cells of about twice a line’s width blur infill against walls. An estimate for one material and one load, never a rating.',
  }
}
