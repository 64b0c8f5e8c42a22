import type { Ground } from './ground'
import type { JobOption, Take } from './queue'

/** A reel with less on it than this is not begun with, g. */
const LEAST_G = 1

/** What is left of reels while a schedule is laid. */
export type Left = Map<string, number>

/**
 * What a copy takes off which reels: off its own, and where that does not last and another is to follow, the rest off that one. The last takes all
 * that is left to take, whether it has it or not.
 */
export function takesFrom({ spoolOf }: Pick<Ground, 'spoolOf'>, left: Left, { spool, grams = 0 }: JobOption): Take[] {
  const takes: Take[] = []
  const seen = new Set<string>()
  let [key, rest] = [spool, grams]
  while (key !== undefined) {
    seen.add(key)
    const there = left.get(key) ?? Number.POSITIVE_INFINITY
    const next: string | undefined = spoolOf.get(key)?.followedBy
    if (there >= rest || next === undefined || seen.has(next)) {
      takes.push({ spool: key, grams: rest })
      break
    }
    if (there >= LEAST_G) {
      takes.push({ spool: key, grams: there })
      rest -= there
    }
    key = next
  }
  return takes
}

/** What there is for a copy on its reel and on those that follow it, g. */
export function thereIs({ spoolOf }: Pick<Ground, 'spoolOf'>, spool: string): number | undefined {
  const seen = new Set<string>()
  let sum = 0
  for (let key: string | undefined = spool; key !== undefined && !seen.has(key); ) {
    seen.add(key)
    const reel = spoolOf.get(key)
    if (!reel) return undefined
    sum += reel.grams + (reel.doubtG ?? 0)
    key = reel.followedBy
  }
  return sum
}
