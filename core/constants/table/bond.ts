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
  perDegree: term('Bond per °C over the middle of the label', '/°C', 0.008, 0.4),
  layerTime: term('Layer time for which a material’s bond is told', 's', 20, 0.2),
  perWarmth: term('Bond per share of warmth left in the layer below', '', 0.6, 0.4),
  perLoad: term('Bond lost per unit of melt load', '', 0.25, 0.4),
  easyLoad: term('Melt load for which a material’s bond is told', '', 0.3, 0.2),
  least: { ...term('Bond that is never undercut', '', 0.05, 0.4), owner: 'model' },
} as const satisfies Record<string, Constant>
