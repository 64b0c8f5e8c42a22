import type { PrintOutcome } from './outcome'
import { type Changed, type MadeWith, sincePrint } from './sincePrint'

/** A print as its trail needs it. */
export interface TrailPrint {
  readonly id: string
  readonly made: MadeWith
  readonly marks: PrintOutcome['marks']
  readonly against: PrintOutcome['against']
}

/** A step of the trail of one part: what was changed since the print before, and what was said of it. */
export interface TrailStep {
  readonly id: string
  readonly changed: readonly Changed[]
  /** Mean of what its places were given, 1 to 5; undefined where none was judged. */
  readonly mark: number | undefined
  /** Whether it came out better than the print before; nothing where that was said of another one, or not at all. */
  readonly verdict: 'better' | 'same' | 'worse' | undefined
}

/** The prints of one part as a trail of changes, the oldest first. */
export function trailOf(prints: readonly TrailPrint[]): TrailStep[] {
  return prints.map(({ id, made, marks, against }, i) => {
    const before = prints[i - 1]
    const given = Object.values(marks)
    return {
      id,
      changed: before ? sincePrint(before.made, made) : [],
      mark: given.length === 0 ? undefined : given.reduce((sum, mark) => sum + mark, 0) / given.length,
      verdict: before && against?.print === before.id ? against.verdict : undefined,
    }
  })
}
