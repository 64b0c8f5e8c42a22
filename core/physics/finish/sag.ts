import type { Constants } from '../../constants/constants'

/** How far the worst overhang and the longest bridge come down, mm; the share of the overhang's line that hangs, and the span, mm. */
export interface Sag {
  readonly droopMm: number
  readonly hanging: number
  readonly bridgeMm: number
  readonly spanMm: number
}

/** How what is laid over air comes down before it sets. */
export interface Laying {
  /** mm/s */
  readonly speed: number
  /** 0–1 */
  readonly fan: number
  /** Layer time over the time that a layer needs to set. */
  readonly margin: number
}

/** Lines that hang by less than this share rest on what is below: 45° at half a line's width a layer (CP-S7, common practice). */
const RESTS = 0.5
/** Speed at which the constants are told, mm/s. */
const AT_SPEED = 30

/** Slow, cooled well and with time to set it comes down least; full fan and enough time are what the constants are told for. */
const lax = ({ speed, fan, margin }: Laying): number => Math.sqrt(speed / AT_SPEED) * (2 - fan) * Math.max(1, 1 / Math.max(margin, 0.2))

/** Droop of an overhang, mm. @param hanging share of the line that has nothing under it */
export const droopOf = (hanging: number, layerHeight: number, laying: Laying, { droop }: Pick<Constants['finish'], 'droop'>): number =>
  droop * layerHeight * Math.max(0, hanging - RESTS) ** 2 * lax(laying)

/** Sag in the middle of a bridge, mm. @param span mm */
export const sagOf = (span: number, laying: Omit<Laying, 'margin'>, { bridgeSag }: Pick<Constants['finish'], 'bridgeSag'>): number =>
  bridgeSag * span * span * lax({ ...laying, margin: 1 })
