/** "1 h 52 min", "55 min", "42 s": seconds as a person says them. */
export function formatDuration(seconds: number): string {
  if (seconds < 59.5) return `${Math.round(seconds)} s`
  const minutes = Math.round(seconds / 60)
  if (minutes < 60) return `${minutes} min`
  return `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')} min`
}
