import type { Material } from './material'

/** What heat does to a kind of filament. */
export interface Heat {
  /** Thermal conductivity, W/(m·K). */
  readonly conductivity: number
  /** Specific heat, J/(kg·K). */
  readonly specificHeat: number
  /** Temperature at which it loses its shape, °C. */
  readonly softening: number
}

/** Typical values of each family, quoted from memory: assumed, until a material says otherwise. */
const typical: Readonly<Record<Material['family'], Heat>> = {
  PLA: { conductivity: 0.13, specificHeat: 1800, softening: 60 },
  PETG: { conductivity: 0.2, specificHeat: 1500, softening: 78 },
  flexible: { conductivity: 0.19, specificHeat: 1700, softening: 60 },
  woodPLA: { conductivity: 0.15, specificHeat: 1700, softening: 58 },
  nylon: { conductivity: 0.25, specificHeat: 1600, softening: 150 },
  ABS: { conductivity: 0.18, specificHeat: 1900, softening: 100 },
}

/** Linear expansion of each family, 1/K, from memory; what is filled with fibres expands less. */
const expansion: Readonly<Record<Material['family'], number>> = {
  PLA: 68e-6,
  PETG: 60e-6,
  flexible: 150e-6,
  woodPLA: 45e-6,
  nylon: 95e-6,
  ABS: 90e-6,
}
const FILLED = 0.4

export const expansionOf = ({ family, fibre }: Pick<Material, 'family' | 'fibre'>): number =>
  expansion[family] * (fibre && family !== 'woodPLA' ? FILLED : 1)

export const heatOf = ({ family, heat }: Pick<Material, 'family' | 'heat'>): Heat => ({ ...typical[family], ...heat })
