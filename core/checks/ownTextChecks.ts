import { problemsOf } from '../shelf/ownText'
import type { Rule } from './check'

/** What a printer's record has its programs begin and end with. */
export const ownTextChecks: readonly Rule[] = (['start', 'end'] as const).map(
  (which): Rule => ({
    id: `own-${which}-text`,
    severity: 'caution',
    find: ({ setup: { printer } }) => {
      const text = which === 'start' ? printer.startText : printer.endText
      const problems = text === undefined ? [] : problemsOf(text, which, printer)
      if (problems.length === 0) return undefined
      return {
        evidence: `The ${which} text of ${printer.name} is doubtful: ${problems[0]}`,
        means: which === 'start' ? 'Its programs may begin cold, elsewhere or beyond the bed.' : 'Its programs may leave something hot.',
        todo: 'Mend it on the shelf, or empty it: then the usual one is written.',
      }
    },
  }),
)
