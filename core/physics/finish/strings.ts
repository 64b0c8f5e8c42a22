import type { Constants } from '../../constants/constants'
import type { Contours } from '../../geometry/contours'
import type { Settings } from '../../profile/settings'
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

/** Travel over open air, mm, by the scope that it is run in: with filament at the nozzle's mouth, and pulled back. */
export interface OpenTravel {
  readonly open: Float64Array
  readonly pulled: Float64Array
}

/** Travels of one part that cross open air. @param leastTravel mm; over shorter ways no string forms */
export function openTravel(path: Toolpath, outlines: Contours, leastTravel: number): OpenTravel {
  const { x, y, feature, scope, sets, layerStart } = path
  const open = new Float64Array(sets.length)
  const pulled = new Float64Array(sets.length)
  let isPulled = false
  for (let layer = 0; layer < layerStart.length - 1; layer++) {
    for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++) {
      const kind = feature[m]!
      if (kind === code.retract) isPulled = true
      else if (kind === code.pushBack) isPulled = false
      if (kind !== code.travel) continue
      const length = Math.hypot(x[m + 1]! - x[m]!, y[m + 1]! - y[m]!)
      if (length < leastTravel || !leavesPart(outlines, layer, x[m]!, y[m]!, x[m + 1]!, y[m + 1]!)) continue
      const lengths = isPulled ? pulled : open
      lengths[scope[m]!]! += length
    }
  }
  return { open, pulled }
}

type StringSettings = Pick<Settings, 'retractLength' | 'nozzleTemperature'>

/** @param middle of the material's label, °C */
export function stringFigures(
  travel: OpenTravel,
  settingsOf: (scope: number) => StringSettings,
  extruder: Printer['extruder'],
  middle: number,
  { ooze, pulledDirect, pulledTube, perDegree, leastOoze }: Constants['strings'],
): StringFigures {
  const share = { direct: pulledDirect, tube: pulledTube }[extruder]
  let [openMm, pulledMm, index] = [0, 0, 0]
  for (const scope of travel.open.keys()) {
    const { retractLength, nozzleTemperature } = settingsOf(scope)
    const oozes = ooze * Math.max(leastOoze, 1 + perDegree * (nozzleTemperature - middle))
    // Where nothing is pulled back, travel is open whatever the path says.
    const pulled = retractLength > 0 ? travel.pulled[scope]! : 0
    const open = travel.open[scope]! + travel.pulled[scope]! - pulled
    openMm += open
    pulledMm += pulled
    index += oozes * (open + share * pulled)
  }
  return { openM: openMm / 1000, pulledM: pulledMm / 1000, index: index / 1000 }
}
