import { statedLoad } from '@sable/core/figures/judge'
import { type LoadCase, type LoadKind, loadCases } from '@sable/core/physics/strength/strengthFigures'
import { splitForce } from '@sable/core/units/format'
import { atHeight, fixed, percent, plain, type Verdict } from './verdict'

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

const load = (id: LoadCase): Verdict => {
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

export const strengthVerdict: Verdict = {
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
  parts: [
    plain(
      'stiffness',
      'Stiffness',
      'N/mm',
      'Force for each millimetre that the part gives way where it is loaded.',
      'more',
      (p, purpose) => {
        const { stiffnessNmm } = statedLoad(p, purpose)
        return stiffness(stiffnessNmm)
      },
    ),
    ...loadCases.filter((name) => /^(pull|bend|crush)[XYZ]$/.test(name)).map(load),
    plain(
      'bond',
      'Bond between layers',
      '',
      'As a share of the strength within a layer, on average; noted is the worst. From temperature, fan, layer time, melt load and missing plastic; semi-empirical.',
      'more',
      ({ bond }) => ({ ...percent(bond.mean), note: `${fixed(100 * bond.worst, 0)} at ${atHeight(bond.worstAtZMm)}` }),
    ),
  ],
}
