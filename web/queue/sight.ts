/** Of names, of a lane, of the clock above, and of a bar, px. */
export const [NAMES, LANE, CLOCK, THICK] = [108, 56, 28, 32]

/** How the clock is seen: from minutes to px, and where it ends. */
export interface Sight {
  readonly x: (minute: number) => number
  readonly right: number
  readonly perMinute: number
  readonly momentAt: (minute: number) => string
  /** Of the gradient in which ends fade. */
  readonly doubtId: string
}

/** Of a letter, on average, px. */
const LETTER = 6.8
/** As much of a name as there is room for; nothing where that would tell nothing. */
export function fitting(name: string, room: number): string {
  const letters = Math.floor(room / LETTER)
  return letters >= name.length ? name : letters < 4 ? '' : `${name.slice(0, letters - 1).trimEnd()}…`
}
