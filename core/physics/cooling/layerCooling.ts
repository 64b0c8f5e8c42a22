import type { Constants } from '../../constants/constants'
import { heatOf } from '../../shelf/heat'
import type { Material } from '../../shelf/material'
import type { Printer } from '../../shelf/printer'

export interface CoolingScene {
  readonly material: Material
  readonly printer: Pick<Printer, 'cooling' | 'enclosed'>
  readonly nozzleTemperature: number
  readonly constants: Constants['cooling']
}

export const airTemperature = ({ printer: { enclosed }, constants }: Pick<CoolingScene, 'printer' | 'constants'>): number =>
  enclosed ? constants.enclosed : constants.room

/**
 * Time constant, s, of a layer that loses heat through its upper face only: τ = ρ·cp·h/hc (a lumped body, any text on heat
 * transfer).
 *
 * @param height mm
 * @param fan 0–1
 * @param beside what else draws heat, W/(m²·K)
 */
export function timeConstant(
  { material, printer, constants: { still, duct } }: CoolingScene,
  height: number,
  fan: number,
  beside = 0,
): number {
  const { specificHeat } = heatOf(material)
  const taken = beside + still + ((printer.cooling ?? duct) - still) * fan
  return (material.density * 1000 * specificHeat * (height / 1000)) / taken
}

/** Time, s, that a layer needs from being laid to bearing the next: τ·ln((Tn − Ta)/(Ts − Ta)). */
export function timeNeeded(scene: CoolingScene, height: number, fan: number): number {
  const air = airTemperature(scene)
  const bears = heatOf(scene.material).softening + scene.constants.bears
  return timeConstant(scene, height, fan) * Math.max(0, Math.log((scene.nozzleTemperature - air) / (bears - air)))
}

/** Temperature, °C, of a layer when the next is laid on it. */
export function temperatureAfter(scene: CoolingScene, height: number, fan: number, seconds: number): number {
  const air = airTemperature(scene)
  return air + (scene.nozzleTemperature - air) * Math.exp(-seconds / timeConstant(scene, height, fan))
}

export interface CoolingFigures {
  /** Layer time over the time needed, of the layer that is worst off, and where it is. */
  readonly margin: number
  readonly atZMm: number
  readonly neededS: number
  readonly takesS: number
  /** Layers that are laid on before they bear, and how many of them are small tips, where that shows as waves. */
  readonly layersWarm: number
  readonly tipsWarm: number
  /** Line with half or more over air that is laid on before it sets, mm. */
  readonly droopMm: number
}

/** Layers of less plastic than this, mm³ per mm of height, are tips; semi-empirical. */
const TIP_AREA = 30

export interface CoolingLayer {
  readonly z: number
  readonly height: number
  readonly timeS: number
  /** Area of the part, mm². */
  readonly area: number
  /** Length of line with half or more of it over air, mm. */
  readonly overAirMm: number
  readonly nozzleTemperature: number
  /** 0–1; over air at least the second. */
  readonly fan: number
  readonly fanOverAir: number
}

/** Layer time over the time that it needs; infinite where it needs none. */
export function marginOf(
  machine: Omit<CoolingScene, 'nozzleTemperature'>,
  { height, fan, timeS, nozzleTemperature }: CoolingLayer,
): number {
  return timeS / timeNeeded({ ...machine, nozzleTemperature }, height, fan)
}

/** Judges every layer above the first, which lies on the bed. */
export function coolingFigures(machine: Omit<CoolingScene, 'nozzleTemperature'>, layers: readonly CoolingLayer[]): CoolingFigures {
  let worst = { margin: Infinity, atZMm: 0, neededS: 0, takesS: 0 }
  let layersWarm = 0
  let tipsWarm = 0
  let droopMm = 0
  for (const { z, height, timeS, area, overAirMm, nozzleTemperature, fan, fanOverAir } of layers.slice(1)) {
    if (area <= 0) continue
    const scene = { ...machine, nozzleTemperature }
    const neededS = timeNeeded(scene, height, fan)
    const margin = neededS > 0 ? timeS / neededS : Infinity
    if (margin < worst.margin) worst = { margin, atZMm: z, neededS, takesS: timeS }
    if (margin < 1) {
      layersWarm++
      if (area < TIP_AREA) tipsWarm++
    }
    if (overAirMm > 0 && timeS < timeNeeded(scene, height, Math.max(fan, fanOverAir))) droopMm += overAirMm
  }
  return { ...worst, margin: Number.isFinite(worst.margin) ? worst.margin : 0, layersWarm, tipsWarm, droopMm }
}
