import type { Constants } from '../../constants/constants'
import type { Settings } from '../../profile/settings'
import type { Material } from '../../shelf/material'
import type { Printer } from '../../shelf/printer'
import { type SpoolStock, waterTaken } from '../../shelf/spool'
import type { OpenTravel, Ways } from './openTravel'

export interface StringFigures {
  /** Travel over open air with filament at the nozzle's mouth, and with it pulled back, m. */
  readonly openM: number
  readonly pulledM: number
  /** How many strings are to be expected, hairs and webs. Semi-empirical. */
  readonly expected: number
  /** Share of the filament's water that it may take up at most, 0 for freshly dried; nothing where nobody knows. */
  readonly wet?: number
}

type StringSettings = Pick<Settings, 'retractLength' | 'nozzleTemperature' | 'wipeLength' | 'coastLength' | 'fanSpeed' | 'travelSpeed'>

/** What melts the filament, what it is, and how dry. */
interface Melting {
  readonly printer: Pick<Printer, 'extruder'>
  readonly material: Pick<Material, 'family' | 'moisture' | 'nozzleRange'>
  readonly stock?: Pick<SpoolStock, 'days'> | undefined
}

/** Way over which a nozzle that nobody pulls back leaves one string, mm, and the speed at which that holds, mm/s. */
const USUAL_WAY = 10
const USUAL_TRAVEL = 150

/** Longer pulls bring no more and pull molten plastic into the cold part, mm: with the extruder at the head, through a tube. */
export const LONGEST_USEFUL_PULL: Readonly<Record<Printer['extruder'], number>> = { direct: 2, tube: 6 }

/**
 * Expected strings: each way over open air leaves so many, fewer with every lever that is turned (models §6).
 *
 * @param settingsOf what holds in a scope of the path
 */
export function stringFigures(
  { open, pulled }: OpenTravel,
  settingsOf: (scope: number) => StringSettings,
  { printer, material, stock }: Melting,
  constants: Constants['strings'],
): StringFigures {
  const [low, high] = material.nozzleRange
  const wet = stock && waterTaken(stock, material)
  const oozes = constants.ooze * oozeOf(material.family, constants) * (1 + constants.wet * (wet ?? 0))
  const slack = printer.extruder === 'tube' ? constants.slackTube : constants.slackDirect
  let [openMm, pulledMm, expected] = [0, 0, 0]
  for (const scope of open.count.keys()) {
    const settings = settingsOf(scope)
    const lever = oozes * levers(settings, (low + high) / 2, constants)
    const length = Math.min(settings.retractLength, LONGEST_USEFUL_PULL[printer.extruder])
    const left = Math.exp(-length / slack) + constants.stays
    expected += lever * (ways(open, scope) * (1 + constants.stays) + ways(pulled, scope) * left)
    // Where nothing is pulled back, travel is open whatever the path says.
    const isPulled = settings.retractLength > 0
    openMm += open.length[scope]! + (isPulled ? 0 : pulled.length[scope]!)
    pulledMm += isPulled ? pulled.length[scope]! : 0
  }
  return { openM: openMm / 1000, pulledM: pulledMm / 1000, expected, ...(wet === undefined ? {} : { wet }) }
}

const ways = ({ roots }: Ways, scope: number): number => roots[scope]! / Math.sqrt(USUAL_WAY)

/** What heat, wiping, coasting, fan and pace make of a string. */
function levers(settings: StringSettings, middle: number, { perDegree, wipe, coast, freezing }: Constants['strings']): number {
  const { nozzleTemperature, wipeLength, coastLength, fanSpeed, travelSpeed } = settings
  return Math.exp(
    perDegree * (nozzleTemperature - middle) -
      wipeLength / wipe -
      coastLength / coast +
      freezing * (fanSpeed / 100 - 1) +
      0.5 * Math.log(USUAL_TRAVEL / travelSpeed),
  )
}

export const oozeOf = (family: Material['family'], { oozePetg, oozeFlexible, oozeAbs, oozeNylon }: Constants['strings']): number =>
  ({ PLA: 1, woodPLA: 1, PETG: oozePetg, flexible: oozeFlexible, ABS: oozeAbs, nylon: oozeNylon })[family]
