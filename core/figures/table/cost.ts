import { formatDuration } from '../../units/format'
import { type Figure, fixed, inPlain, row } from './figure'

/** Stands for whichever currency the prices are in. */
const MONEY = '¤'
const plain = { unit: MONEY, per: 1, digits: 2 }

export const cost: Figure = {
  ...row(
    'cost',
    'Cost',
    MONEY,
    'Filament and machine time at the prices on the shelf; heating, homing and purging take time as well.',
    'less',
    (p) => ({
      value: p.filament.cost,
      text: fixed(p.filament.cost, 2),
      unit: MONEY,
    }),
  ),
  id: 'cost',
  noun: 'cost',
  plain,
  value: (p) => p.filament.cost,
  shown: inPlain(plain),
  limit: { name: 'maxCost', words: (wanted) => `under ${wanted}` },
  explain: (p, { material, printer }) => ({
    equation: 'cost = m · price + t · cost of an hour',
    terms: [
      {
        label: 'filament',
        value: `${p.filament.massG.toFixed(1)} g × ${material.pricePerKg} ${MONEY}/kg = ${p.filament.materialCost.toFixed(2)} ${MONEY}`,
      },
      {
        label: 'machine',
        value: `${(p.filament.machineS / 3600).toFixed(2)} h × ${printer.costPerHour} ${MONEY}/h = ${p.filament.machineCost.toFixed(2)} ${MONEY}`,
      },
      ...(p.startUpS === undefined ? [] : [{ label: 'of that before the first line', value: formatDuration(p.startUpS) }]),
    ],
    place: p.filament.machineCost > p.filament.materialCost ? 'Most of it is machine time.' : 'Most of it is filament.',
    basis: 'assumed',
    source: 'Prices of the shelf.',
  }),
  parts: [
    row('cost-filament', 'Filament', MONEY, 'Mass times price.', 'less', (p) => ({
      value: p.filament.materialCost,
      text: fixed(p.filament.materialCost, 2),
      unit: MONEY,
    })),
    row('cost-machine', 'Machine', MONEY, 'Hours, with those before the first line, times the cost of an hour.', 'less', (p) => ({
      value: p.filament.machineCost,
      text: fixed(p.filament.machineCost, 2),
      unit: MONEY,
    })),
    row(
      'energy',
      'Energy',
      'kWh',
      'Mean power of the printer while it prints, times time, and its power while it heats up, times that. Part of the cost of an hour.',
      'less',
      ({ energyKWh }) =>
        energyKWh === undefined ? { value: 0, text: 'unknown', unit: '' } : { value: energyKWh, text: fixed(energyKWh, 2), unit: 'kWh' },
    ),
  ],
}
