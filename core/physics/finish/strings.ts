import type { Constants } from '../../constants/constants'
import type { Contours } from '../../geometry/contours'
import type { Printer } from '../../shelf/printer'
import { leavesPart } from '../../toolpath/leavesPart'
import { code, type Toolpath } from '../../toolpath/toolpath'

export interface StringFigures {
  /** Travel over open air with filament at the nozzle's mouth, and with it pulled back, m. */
  readonly openM: number
  readonly pulledM: number
  /** 0 for none; 1 is a metre of open travel at the middle of the label. Semi-empirical. */
  readonly index: number
}

/** Travels of one part that cross open air. @param leastTravel mm; over shorter ways no string forms */
export function openTravel(path: Toolpath, outlines: Contours, leastTravel: number): { readonly open: number; readonly pulled: number } {
  const { x, y, feature, layerStart } = path
  let open = 0
  let pulled = 0
  let isPulled = false
  for (let layer = 0; layer < layerStart.length - 1; layer++) {
    for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++) {
      const kind = feature[m]!
      if (kind === code.retract) isPulled = true
      else if (kind === code.pushBack) isPulled = false
      if (kind !== code.travel) continue
      const length = Math.hypot(x[m + 1]! - x[m]!, y[m + 1]! - y[m]!)
      if (length < leastTravel || !leavesPart(outlines, layer, x[m]!, y[m]!, x[m + 1]!, y[m + 1]!)) continue
      if (isPulled) pulled += length
      else open += length
    }
  }
  return { open, pulled }
}

export function stringFigures(
  { open, pulled }: { readonly open: number; readonly pulled: number },
  extruder: Printer['extruder'],
  retracts: boolean,
  overMiddle: number,
  { ooze, pulledDirect, pulledTube, perDegree, leastOoze }: Constants['strings'],
): StringFigures {
  const oozes = ooze * Math.max(leastOoze, 1 + perDegree * overMiddle)
  const [openM, pulledM] = retracts ? [open / 1000, pulled / 1000] : [(open + pulled) / 1000, 0]
  return { openM, pulledM, index: oozes * (openM + { direct: pulledDirect, tube: pulledTube }[extruder] * pulledM) }
}
