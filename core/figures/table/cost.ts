import { type Figure, fixed, inPlain, row } from './figure'

const plain = { unit: '', per: 1, digits: 2 }

export const cost: Figure = {
  ...row('cost', 'Cost', '', 'Filament and machine time at the prices on the shelf.', 'less', (p) => ({
    value: p.filament.cost,
    text: fixed(p.filament.cost, 2),
    unit: '',
  })),
  id: 'cost',
  noun: 'cost',
  plain,
  value: (p) => p.filament.cost,
  shown: inPlain(plain),
  limit: { name: 'maxCost', words: (wanted) => `under ${wanted}` },
  explain: (p, { material, printer }) => ({
    equation: 'cost = m · price + t · cost of an hour',
    terms: [
      { label: 'filament', value: `${p.filament.massG.toFixed(1)} g × ${material.pricePerKg}/kg = ${p.filament.materialCost.toFixed(2)}` },
      { label: 'machine', value: `${(p.timeS / 3600).toFixed(2)} h × ${printer.costPerHour}/h = ${p.filament.machineCost.toFixed(2)}` },
    ],
    place: p.filament.machineCost > p.filament.materialCost ? 'Most of it is machine time.' : 'Most of it is filament.',
    basis: 'assumed',
    source: 'Prices of the shelf.',
  }),
  parts: [
    row('cost-filament', 'Filament', '', 'Mass times price.', 'less', (p) => ({
      value: p.filament.materialCost,
      text: fixed(p.filament.materialCost, 2),
      unit: '',
    })),
    row('cost-machine', 'Machine', '', 'Hours times the cost of an hour.', 'less', (p) => ({
      value: p.filament.machineCost,
      text: fixed(p.filament.machineCost, 2),
      unit: '',
    })),
    row(
      'energy',
      'Energy',
      'kWh',
      'Mean power of the printer while it prints, times time. It is part of the cost of an hour.',
      'less',
      ({ energyKWh }) =>
        energyKWh === undefined ? { value: 0, text: 'not told', unit: '' } : { value: energyKWh, text: fixed(energyKWh, 2), unit: 'kWh' },
    ),
  ],
}
