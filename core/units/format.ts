/** A stretch of time as a person says it: "1 h 52", "55", "42" with the unit of its last number. */
export function splitDuration(seconds: number): { text: string; unit: string } {
  if (seconds < 59.5) return { text: `${Math.round(seconds)}`, unit: 's' }
  const minutes = Math.round(seconds / 60)
  if (minutes < 60) return { text: `${minutes}`, unit: 'min' }
  return { text: `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')}`, unit: 'min' }
}

/** "1 h 52 min", "55 min", "42 s" */
export function formatDuration(seconds: number): string {
  const { text, unit } = splitDuration(seconds)
  return `${text} ${unit}`
}

/** A name as a person reads it: "insideFirst" is "inside first". */
export const inWords = (name: string): string => name.replace(/([a-z])([A-Z])/g, (_, a: string, b: string) => `${a} ${b.toLowerCase()}`)
