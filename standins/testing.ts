import { FILAMENT_MM2 } from './making'
import type { TowerBand } from './tower'

const LAYER = 0.2
const PER_BAND = 20

/** A program of two columns 20 mm apart, or of one long wall where `flowOf` tells a flow: bands of 20 layers. */
export function towerProgram(bands: number, { heat, pull, flow }: { heat?: number[]; pull?: number[]; flow?: number[] }): string[] {
  const lines = ['G28', 'G90', 'M83', `M109 S${heat?.[0] ?? 205}`, 'M106 S255']
  const feedOf = (mm: number): string => ((mm * LAYER * 0.4) / FILAMENT_MM2).toFixed(5)
  for (let layer = 0; layer < bands * PER_BAND; layer++) {
    const band = Math.floor(layer / PER_BAND)
    if (heat && layer % PER_BAND === 0) lines.push(`M109 S${heat[band]}`)
    lines.push(`G0 Z${(LAYER * (layer + 1)).toFixed(2)} F900`)
    const column = (x: number): void => {
      lines.push(`G0 X${x} Y50 F9000`, `G1 X${x + 8} E${feedOf(8)} F2400`, `G1 Y58 E${feedOf(8)}`)
      lines.push(`G1 X${x} E${feedOf(8)}`, `G1 Y50 E${feedOf(8)}`)
    }
    if (flow) lines.push('G0 X0 Y0 F9000', `G1 X150 E${feedOf(150)} F${((60 * flow[band]!) / (LAYER * 0.4)).toFixed(0)}`)
    else
      for (const x of [20, 48]) {
        const length = pull?.[band] ?? 0
        column(x)
        if (length > 0) lines.push(`G1 E-${length} F2100`)
        lines.push(`G0 X${x === 20 ? 48 : 20} Y50 F9000`)
        if (length > 0) lines.push(`G1 E${length} F1500`)
      }
  }
  return lines
}

/** Where the bands of such a program lie. */
export const towerBands = (values: readonly number[]): TowerBand[] =>
  values.map((value, i) => ({ value, fromZ: i * PER_BAND * LAYER, toZ: (i + 1) * PER_BAND * LAYER }))
