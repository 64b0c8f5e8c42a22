import type { Material } from '../shelf/material'
import type { Printer } from '../shelf/printer'

/**
 * Flow that a hot end sustains with plain PLA, mm³/s, by the length of its melt zone. Common practice, no source:
 * ordinary hot ends run out at 10–15, long ones with fast filament reach 25–30.
 */
const CLASS_FLOW: Readonly<Record<Printer['hotEnd']['class'], number>> = { short: 11, long: 19, extraLong: 28 }

/** Flow limit, mm³/s, to assume until one is measured: hot-end class × material. Basis: assumed. */
export function assumedFlowLimit(printer: Pick<Printer, 'hotEnd'>, material: Pick<Material, 'flowFactor'>): number {
  return Math.round(CLASS_FLOW[printer.hotEnd.class] * material.flowFactor * 10) / 10
}
