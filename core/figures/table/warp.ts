import { outerBrim } from '../../profile/outerBrim'
import { knownOf } from '../../setup/knownSetup'
import { threeDigits } from '../../units/format'
import { type Figure, fixed, inPlain, mm, row } from './figure'

const plain = { unit: '×', per: 1, digits: 2 }

export const warp: Figure = {
  ...row(
    'warp',
    'Warping',
    '',
    'What its shrinking pulls the ends of the foot up by, over what the bed and a brim hold: from 1 on corners lift. Semi-empirical.',
    'less',
    ({ warp }) => ({
      value: warp.risk,
      text: fixed(warp.risk, warp.risk < 1 ? 2 : 1),
      unit: '×',
      ...(warp.risk >= 1 ? { note: 'corners lift' } : {}),
    }),
  ),
  id: 'warp',
  noun: 'warping',
  plain,
  value: (p) => p.warp.risk,
  shown: inPlain(plain),
  explain: (p, { material, printer, constants, known }) => ({
    equation: 'risk = c · E · (α·(softening − air))² · H · L · share / (σ · (ℓ + brim))',
    terms: [
      { label: `${material.name} has still to shrink by`, value: `${(100 * p.warp.strain).toFixed(2)} %` },
      { label: `air about it${printer.enclosed ? ', enclosed' : ''}`, value: `${Math.round(p.warp.airC)} °C` },
      { label: 'stiffness', value: `${threeDigits(material.strength.modulus)} MPa` },
      { label: 'foot, from end to end', value: mm(p.warp.contactMm) },
      { label: 'bed', value: `${p.settings.bedTemperature} °C; ${material.bedRange[0]}–${material.bedRange[1]} on the label` },
      { label: 'brim', value: outerBrim(p.settings) > 0 ? mm(outerBrim(p.settings)) : 'none outside' },
      {
        label: 'the bed holds',
        value: `${threeDigits(constants.sway.adhesion)} MPa, ${knownOf({ material, known }, 'sway.adhesion').basis}`,
      },
    ],
    place: p.warp.risk >= 1 ? 'Its farthest corners lift first.' : 'It stays flat.',
    basis: 'assumed',
    source: 'Strain by linear expansion (from memory); the rest is semi-empirical.',
  }),
}
