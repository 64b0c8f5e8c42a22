/** A stretch of time as a person says it: "1 h 52", "55", "5.7", "42" with the unit of its last number. */
export function splitDuration(seconds: number): { text: string; unit: string } {
  if (seconds < 59.5) return { text: `${Math.round(seconds)}`, unit: 's' }
  const minutes = Math.round(seconds / 60)
  if (seconds < 597) return { text: (seconds / 60).toFixed(1), unit: 'min' }
  if (minutes < 60) return { text: `${minutes}`, unit: 'min' }
  return { text: `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')}`, unit: 'min' }
}

/** "1 h 52 min", "55 min", "5.7 min", "42 s"; whole hours, as limits are, without minutes. */
export function formatDuration(seconds: number): string {
  if (seconds >= 3600 && seconds % 3600 === 0) return `${seconds / 3600} h`
  const { text, unit } = splitDuration(seconds)
  return `${text} ${unit}`
}

/** A load in newtons or kilonewtons, with about as many figures as such an estimate deserves; whole newtons were stated. A dash where there is no number. */
export function splitForce(newtons: number): { text: string; unit: string } {
  if (Number.isNaN(newtons)) return { text: '–', unit: '' }
  const size = Math.abs(newtons)
  if (size >= 999.5) return { text: (newtons / 1000).toFixed(size >= 9995 ? 1 : 2), unit: 'kN' }
  return { text: newtons.toFixed(size < 99.95 && !Number.isInteger(newtons) ? 1 : 0), unit: 'N' }
}

/** "8.4 N", "81 N", "13.3 kN" */
export function formatForce(newtons: number): string {
  const { text, unit } = splitForce(newtons)
  return unit === '' ? text : `${text} ${unit}`
}

/** "+3.1", "−0.4", "0.0": a difference, with a true minus. */
export function signed(value: number, digits: number): string {
  const text = Math.abs(value).toFixed(digits)
  return Number(text) === 0 ? text : `${value < 0 ? '−' : '+'}${text}`
}

/** "+12 %", "−3 %", "0 %"; a dash where there is none. */
export const signedPercent = (share: number): string => (Number.isFinite(share) ? `${signed(100 * share, 0)} %` : '–')

/** A name as a person reads it: "insideFirst" is "inside first". */
export const inWords = (name: string): string => name.replace(/([a-z])([A-Z])/g, (_, a: string, b: string) => `${a} ${b.toLowerCase()}`)

/** A number to three digits, without zeros that say nothing: 50.0068 → "50", 0.1884 → "0.188". */
export const threeDigits = (value: number): string => String(Number(value.toPrecision(3)))
