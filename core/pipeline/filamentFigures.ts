import type { Setup } from '../setup/resolve'
import type { Basis } from '../shelf/material'
import type { LaidVolume } from '../toolpath/laidVolume'
import { filamentLength, massOf } from '../units/flow'

/** What a print takes from the spool, and what it costs. Units are in the names. */
export interface FilamentFigures {
  readonly lengthMm: number
  readonly volumeMm3: number
  readonly massG: number
  /** Of this, supports and what lies around the foot. */
  readonly supportG: number
  readonly footG: number
  /** Filament and machine time together, in the currency of the shelf. */
  readonly cost: number
  readonly materialCost: number
  readonly machineCost: number
  /** Time that the machine is taken up for, from the start of heating, s. */
  readonly machineS: number
  /** What will be left on the spool, where one is chosen; below 0 it does not last. */
  readonly spoolLeftG?: number
  /** Measured only where spool and reel were weighed. */
  readonly spoolLeftBasis?: Basis
}

/**
 * @param machineS time that the machine is taken up for
 * @param flow what really comes out of the nozzle as a share of what is asked for
 */
export function filamentFigures(volume: LaidVolume, { printer, material, stock }: Setup, machineS: number, flow: number): FilamentFigures {
  const grams = (mm3: number): number => flow * massOf(mm3, material.density)
  const massG = grams(volume.total)
  const materialCost = (massG / 1000) * material.pricePerKg
  const machineCost = (machineS / 3600) * printer.costPerHour
  return {
    lengthMm: flow * filamentLength(volume.total, printer.filamentDiameter),
    volumeMm3: volume.total,
    massG,
    supportG: grams(volume.support),
    footG: grams(volume.foot),
    cost: materialCost + machineCost,
    materialCost,
    machineCost,
    machineS,
    ...(stock
      ? {
          spoolLeftG: stock.remaining.grams - massG,
          spoolLeftBasis: stock.remaining.from === 'weighed' ? ('measured' as const) : ('assumed' as const),
        }
      : {}),
  }
}
