import type { Constant } from './constant'

const term = (label: string, unit: string, median: number, spread: number, source = 'Semi-empirical.'): Constant => ({
  label,
  unit,
  owner: 'material',
  scale: 'log',
  median,
  spread,
  source,
  moves: ['strength'],
})

/** How well layers bond: what each term of the model weighs. */
export const bond = {
  diffusion: term(
    'Activation energy of chains that creep across an interface',
    'J/mol',
    80_000,
    0.25,
    'Semi-empirical: so that 10 °C at the nozzle bring about 8 %; reptation, Wool & O’Connor 1981, from memory.',
  ),
  conducts: term('Heat that the layers below draw out of an interface', 'W/(m²·K)', 60, 0.4),
  bedReach: { ...term('Height over which the bed’s warmth falls', 'mm', 5, 0.4), owner: 'printer' },
  layerTime: term('Layer time for which a material’s bond is told', 's', 20, 0.2),
  perLoad: term('Bond lost per unit of melt load', '', 0.25, 0.4),
  easyLoad: term('Melt load for which a material’s bond is told', '', 0.3, 0.2),
  wet: term('Bond that filament full of water loses', '', 0.15, 0.5, 'Semi-empirical: steam leaves pores between layers.'),
  least: { ...term('Bond that is never undercut', '', 0.05, 0.4), owner: 'model' },
} as const satisfies Record<string, Constant>
