import type { Prediction } from '../../pipeline/predict'
import { asPercent, type Figure, type FigureRow, fixed, inPlain } from './figure'

const grams = (id: string, label: string, mass: (filament: Prediction['filament']) => number, help: string): FigureRow => ({
  id,
  label,
  help,
  base: 'g',
  better: 'less',
  of: (p) => ({ value: mass(p.filament), text: fixed(mass(p.filament), 1), unit: 'g', basis: 'calculated' }),
})

const plain = { unit: 'g', per: 1, digits: 1 }

export const filament: Figure = {
  id: 'filament',
  label: 'Filament',
  noun: 'mass',
  base: 'g',
  plain,
  help: 'Mass of everything that is laid.',
  better: 'less',
  of: (p) => ({
    value: p.filament.massG,
    text: fixed(p.filament.massG, 1),
    unit: 'g',
    note: `${fixed(p.filament.lengthMm / 1000, 2)} m`,
    basis: 'calculated',
  }),
  value: (p) => p.filament.massG,
  shown: inPlain(plain),
  limit: { name: 'maxMassG', words: (wanted) => `under ${wanted}` },
  explain: (p, { material }) => ({
    equation: 'm = ρ · Σ A·l',
    terms: [
      { label: 'volume laid', value: `${(p.filament.volumeMm3 / 1000).toFixed(2)} cm³` },
      { label: `density of ${material.name}`, value: `${material.density} g/cm³` },
      ...(p.melt.missing > 0.001 ? [{ label: 'of it missing, since it is not molten', value: asPercent(p.melt.missing) }] : []),
      ...(p.filament.supportG > 0 ? [{ label: 'of it supports', value: `${p.filament.supportG.toFixed(1)} g` }] : []),
      ...(p.filament.footG > 0 ? [{ label: 'of it skirt and brim', value: `${p.filament.footG.toFixed(1)} g` }] : []),
      { label: 'length of filament', value: `${(p.filament.lengthMm / 1000).toFixed(2)} m` },
    ],
    place: `The part itself takes ${(p.filament.massG - p.filament.supportG - p.filament.footG).toFixed(1)} g.`,
    basis: 'calculated',
    source: 'Definition: lines keep to their place beside their neighbours, so that solid fill conserves volume.',
  }),
  parts: [
    grams('filament-part', 'Part', ({ massG, supportG, footG }) => massG - supportG - footG, 'What stays on the part.'),
    grams('filament-support', 'Supports', ({ supportG }) => supportG, 'What is broken off afterwards.'),
    grams('filament-foot', 'Skirt and brim', ({ footG }) => footG, 'What lies around the part on the bed.'),
    {
      ...grams('filament-left', 'Left on the spool', ({ spoolLeftG = 0 }) => spoolLeftG, 'After this print, where a spool is chosen.'),
      better: 'more',
      of: ({ filament: { spoolLeftG, spoolLeftBasis = 'assumed' } }) =>
        spoolLeftG === undefined
          ? { value: 0, text: 'no spool', unit: '', basis: 'calculated' }
          : { value: Math.max(0, spoolLeftG), text: fixed(spoolLeftG, 0), unit: 'g', basis: spoolLeftBasis },
    },
  ],
}
