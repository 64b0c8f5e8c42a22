import type { Constants } from '../../constants/constants'
import type { Printer } from '../../shelf/printer'

/**
 * Residual amplitude, mm, of an undamped frame after a change of speed at even acceleration:
 * x = (a/ω²)·2·|sin(ω·Δv/(2a))| with ω = 2πf (the residual spectrum of a rectangular pulse; any text on vibration).
 *
 * @param acceleration mm/s²
 * @param change of speed, mm/s
 * @param frequency Hz
 */
export function ringingAmplitude(acceleration: number, change: number, frequency: number): number {
  const omega = 2 * Math.PI * frequency
  return (acceleration / (omega * omega)) * 2 * Math.abs(Math.sin((omega * change) / (2 * acceleration)))
}

/** Distance of the waves along the wall, mm. */
export const ringingWavelength = (speed: number, frequency: number): number => speed / frequency

export interface RingingFigures {
  /** Largest amplitude that speeds up to the wall's can leave, mm. */
  readonly amplitudeMm: number
  readonly wavelengthMm: number
  readonly measured: boolean
}

/** Waves behind corners of the outer wall: from the speed that a corner keeps to the wall's own, at its acceleration. */
export function ringingFigures(
  wallSpeed: number,
  cornerSpeed: number,
  acceleration: number,
  printer: Pick<Printer, 'frameFrequency' | 'frameFrequencyY' | 'shaping' | 'shapedAt' | 'shapedAtY'>,
  { frameFrequency, shaped }: Pick<Constants['finish'], 'frameFrequency' | 'shaped'>,
): RingingFigures {
  const { frameFrequency: own, frameFrequencyY: ownY } = printer
  // The softer of the two axes swings more.
  const known = own === undefined ? ownY : ownY === undefined ? own : Math.min(own, ownY)
  const f = known ?? frameFrequency
  const change = Math.max(0, wallSpeed - cornerSpeed)
  // Walls come out of corners at any speed up to this change, so the worst of them counts.
  const worst = Math.min(change, (Math.PI * acceleration) / (2 * Math.PI * f))
  return {
    amplitudeMm: (change > 0 ? ringingAmplitude(acceleration, worst, f) : 0) * leftBy(printer, f, shaped),
    wavelengthMm: ringingWavelength(wallSpeed, f),
    measured: known !== undefined,
  }
}

/**
 * Share of a swing that shaping leaves: what it leaves where it is tuned, and beside that what two pulses half a swing apart leave of another frequency than
 * the one that they are meant for, |cos(π/2 · f/f₀)| (zero-vibration shaping, Singer & Seering, J. Dyn. Syst. Meas. Control 112, 1990; undamped, from memory).
 */
function leftBy(
  { frameFrequency, frameFrequencyY, shaping, shapedAt, shapedAtY }: Parameters<typeof ringingFigures>[3],
  frequency: number,
  shaped: number,
): number {
  if (!shaping) return 1
  const isAlongY = frameFrequencyY !== undefined && (frameFrequency === undefined || frameFrequencyY < frameFrequency)
  const at = isAlongY ? (shapedAtY ?? shapedAt) : shapedAt
  return at === undefined ? shaped : Math.min(1, Math.hypot(shaped, Math.cos((Math.PI / 2) * (frequency / at))))
}
