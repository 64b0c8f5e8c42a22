import { offAxisStrength } from '../../physics/strength/oblique'
import { type LoadCase, type LoadKind, loadCases } from '../../physics/strength/strengthFigures'
import { formatForce, splitForce } from '../../units/format'
import { asPercent, atHeight, type Figure, type FigureRow, fixed, mm, percent, row } from './figure'
import { statedLoad } from './stated'

const kindWords: Readonly<Record<LoadKind, readonly [label: string, help: string]>> = {
  pull: ['Pull', 'Gripped at both ends of this axis and pulled until the weakest section gives.'],
  bend: ['Bend', 'Held at the low end of this axis and pressed sideways at the far end, in the weaker direction.'],
  bendHigh: ['Bend, held high', 'Held at the high end of this axis and pressed sideways at the low end, in the weaker direction.'],
  threePoint: ['Three points', 'Resting on both ends of this axis and pressed in the middle, in the weaker direction.'],
  crush: ['Crush', 'Pressed together along this axis until a section gives or the part buckles.'],
}

/** "bend along Y" */
export const wordsOf = ({ kind, along }: { readonly kind: LoadKind; readonly along: string }): string =>
  `${kindWords[kind][0].toLowerCase()} along ${along}`

const loadEquations: Readonly<Record<LoadKind, string>> = {
  pull: 'F = σ·A, least along the part',
  bend: 'F = σ·I / (c·arm), least along the part',
  bendHigh: 'F = σ·I / (c·arm), least along the part',
  threePoint: 'F = 2·σ·I / (c·distance to the nearer support), least along the part',
  crush: 'F = σ·A, least along the part, or π²·E·I/L² if that is less',
}

const loadWords: Readonly<Record<LoadKind, string>> = {
  pull: 'pulled, gripped at both ends,',
  bend: 'held at the low end, pressed at the far one,',
  bendHigh: 'held at the high end, pressed at the low one,',
  threePoint: 'on two supports, pressed in the middle,',
  crush: 'pressed together',
}

const load = (id: LoadCase): FigureRow => {
  const [kind, axis] = [id.slice(0, -1) as LoadKind, id.slice(-1)]
  return {
    id,
    label: `${kindWords[kind][0]} ${axis}`,
    help: kindWords[kind][1],
    base: 'N',
    better: 'more',
    of: (p) => ({
      value: p.strength[id].loadN,
      ...splitForce(p.strength[id].loadN),
      ...(p.strength[id].by === 'buckling' ? { note: 'buckles' } : {}),
      basis: p.strength[id].basis,
    }),
  }
}

const stiffness = (perMm: number): { value: number; text: string; unit: string } => ({
  value: perMm,
  text: perMm >= 100 ? fixed(perMm, 0) : perMm.toPrecision(3),
  unit: 'N/mm',
})

export const strength: Figure = {
  id: 'strength',
  label: 'Strength',
  help: 'Under the load that the part is for, chosen above; of a flexible part, how stiff it is against that load. An estimate for one material and one load, never a rating: test the real part with a margin, and never lift or hang loads over people with it.',
  base: 'N',
  better: 'more',
  of: (p, purpose) => {
    const stated = statedLoad(p, purpose)
    if (p.flexible) return { ...stiffness(stated.stiffnessNmm), note: `gives way, ${wordsOf(stated)}`, basis: stated.basis, base: 'N/mm' }
    return { value: stated.loadN, ...splitForce(stated.loadN), note: wordsOf(stated), basis: stated.basis }
  },
  noun: 'strength',
  plain: { unit: 'N', per: 1, digits: 0 },
  value: (p, purpose) => statedLoad(p, purpose).loadN,
  shown: formatForce,
  limit: { name: 'minLoadN', words: (wanted) => `at least ${wanted}` },
  explain: (p, { material, constants }, purpose) => {
    const { kind, along, acrossLayers, loadN, weakestAtMm, stiffnessNmm, by, basis } = statedLoad(p, purpose)
    const { heldTo, loadedFrom, axis, elevationDeg } = purpose.load
    const place = along.length === 1 ? `${along.toLowerCase()} = ${mm(weakestAtMm)}` : `${mm(weakestAtMm)} along that direction`
    return {
      equation: by === 'buckling' ? 'F = π²·E·I / L²' : loadEquations[kind],
      terms: [
        { label: 'load', value: `${loadWords[kind]} along ${along}` },
        { label: 'held up to, loaded from', value: `${heldTo} %, ${loadedFrom} % of the length` },
        { label: `strength of ${material.name} along its lines`, value: `${material.strength.inLayer} MPa` },
        ...(acrossLayers ? [{ label: 'bond between layers, worst', value: asPercent(p.bond.worst) }] : []),
        ...(axis === 'free' && acrossLayers
          ? [
              {
                label: `strength at ${Math.abs(elevationDeg)}° to sound layers`,
                value: `${offAxisStrength((elevationDeg * Math.PI) / 180, material.strength.inLayer, p.bond.mean, constants.strength.shear).toFixed(1)} MPa (Tsai–Hill)`,
              },
            ]
          : []),
        { label: 'stiffness of the material', value: `${material.strength.modulus} MPa` },
        { label: 'walls', value: `${p.settings.wallCount} × ${p.settings.lineWidth} mm` },
        { label: 'infill', value: `${p.settings.infillDensity} % ${p.settings.infillPattern}` },
        { label: 'gives way before it fails by', value: stiffnessNmm > 0 ? mm(loadN / stiffnessNmm, 2) : '–' },
      ],
      place: by === 'buckling' ? `It buckles before it crushes; slenderest at ${place}.` : `The weakest section lies at ${place}.`,
      basis,
      source:
        'Euler–Bernoulli and Euler’s column; sections from the lines that are laid; infill by Gibson & Ashby 1997, from memory. An estimate for one material and one load, never a rating.',
    }
  },
  parts: [
    row('stiffness', 'Stiffness', 'N/mm', 'Force for each millimetre that the part gives way where it is loaded.', 'more', (p, purpose) => {
      const { stiffnessNmm } = statedLoad(p, purpose)
      return stiffness(stiffnessNmm)
    }),
    ...loadCases.filter((name) => /^(pull|bend|crush)[XYZ]$/.test(name)).map(load),
    row(
      'bond',
      'Bond between layers',
      '',
      'As a share of the strength within a layer, on average; noted is the worst. From temperature, fan, layer time, melt load and missing plastic; semi-empirical.',
      'more',
      ({ bond }) => ({ ...percent(bond.mean), note: `${fixed(100 * bond.worst, 0)} at ${atHeight(bond.worstAtZMm)}` }),
    ),
  ],
}
