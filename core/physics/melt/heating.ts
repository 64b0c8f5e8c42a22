/**
 * Heating of a plug of filament through the wall of the melt zone: a long cylinder whose surface is held at one
 * temperature (Carslaw & Jaeger, Conduction of Heat in Solids, 1959; from memory). With Fo = α·t/R² the share of the first
 * difference that is left is 2·Σ exp(−λn²·Fo)/(λn·J1(λn)) at the centre and 4·Σ exp(−λn²·Fo)/λn² on average, λn the zeros of
 * J0. A plug that moves at a steady flow Q through a zone of length L has Fo = α·π·L/Q, whatever its diameter.
 */

/** Terms of the series: at Fo = 0.001 the last of them is below 1e-9. */
const TERMS = 50

/** Bessel functions of the first kind, orders 0 and 1, from their integral by the trapezoidal rule, which converges fast. */
function bessel(order: 0 | 1, x: number): number {
  const steps = 64 + Math.ceil(Math.abs(x))
  let sum = 0
  for (let i = 0; i < steps; i++) {
    const angle = (Math.PI * (i + 0.5)) / steps
    sum += Math.cos(order * angle - x * Math.sin(angle))
  }
  return sum / steps
}

/** Zeros of J0, ascending, by Newton from McMahon's first guess (n − ¼)·π. */
export const zerosOfJ0: readonly number[] = Array.from({ length: TERMS }, (_, i) => {
  let x = (i + 0.75) * Math.PI
  // J0' = −J1.
  for (let step = 0; step < 6; step++) x += bessel(0, x) / bessel(1, x)
  return x
})

const J1_AT_ZEROS = zerosOfJ0.map((zero) => bessel(1, zero))

/** Share of the first difference in temperature that is left at the plug's centre, 0–1. */
export function leftAtCentre(fourier: number): number {
  if (fourier <= 0) return 1
  let sum = 0
  for (const [i, zero] of zerosOfJ0.entries()) sum += Math.exp(-zero * zero * fourier) / (zero * J1_AT_ZEROS[i]!)
  return Math.min(1, 2 * sum)
}

/** Share of the first difference in temperature that is left on average over the plug's section, 0–1. */
export function leftOnAverage(fourier: number): number {
  if (fourier <= 0) return 1
  let sum = 0
  for (const zero of zerosOfJ0) sum += Math.exp(-zero * zero * fourier) / (zero * zero)
  return Math.min(1, 4 * sum)
}

/** Fourier number at which the centre has this share of the first difference left, by bisection. */
export function fourierFor(left: number): number {
  let [low, high] = [1e-4, 5]
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2
    if (leftAtCentre(middle) > left) low = middle
    else high = middle
  }
  return (low + high) / 2
}
