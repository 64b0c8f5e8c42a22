import { z } from 'zod'
import { settingValuesSchema } from '../profile/settings'
import { type FaultId, faultIds, faults } from './faults'
import { questions } from './table/questions'
import { type Tried, tryResults, type Weighed } from './weigh'

/** One change that was tried, for which cause, and what came of it. */
const caseTrySchema = z.object({
  cause: z.string().min(1).max(40),
  /** The order to oneself that it followed. */
  words: z.string().min(1).max(200),
  change: settingValuesSchema.optional(),
  did: z.enum(tryResults).optional(),
  /** Prints in a row for which that held. */
  times: z.number().int().min(1).max(99).default(1),
  /** More than one thing was changed at once: nothing is ruled out by it. */
  mixed: z.boolean().default(false),
})
export type CaseTry = z.infer<typeof caseTrySchema>

/** A fault that is worked: what was seen, answered and tried, and how it ended. */
export const faultCaseSchema = z.object({
  fault: z.enum(faultIds as [FaultId, ...FaultId[]]),
  /** In the finder's own words. */
  note: z.string().max(2000).default(''),
  atZ: z.number().min(0).max(3000).optional(),
  answers: z.record(z.string().max(40), z.string().max(40)).default({}),
  tries: z.array(caseTrySchema).max(60).default([]),
  /** What it was, in a sentence; absent while the case is open. */
  closed: z.string().min(1).max(2000).optional(),
})
export type FaultCase = z.infer<typeof faultCaseSchema>

/** Tries that say something of their cause: judged, and of one change alone. */
export const triedOf = ({ tries }: Pick<FaultCase, 'tries'>): Tried[] =>
  tries.flatMap(({ cause, did, times, mixed }) => (did === undefined || mixed ? [] : [{ cause, did, times }]))

/** What other cases of the same fault ruled out, on the same printer and from the same reel: it is not offered again. */
export const ruledOutElsewhere = (others: readonly (Pick<FaultCase, 'tries'> & { readonly partName: string })[]): Tried[] =>
  others.flatMap((other) =>
    triedOf(other).flatMap((one) => (one.did === 'same' || one.did === 'worse' ? [{ ...one, elsewhere: other.partName }] : [])),
  )

export const resultWords: Readonly<Record<(typeof tryResults)[number], string>> = {
  fixed: 'gone',
  better: 'better',
  same: 'the same',
  worse: 'worse',
  another: 'another fault',
}

/** A case as a page to pass on, in Markdown. @param of what failed: the part, and what it was printed with */
export function caseMarkdown(one: FaultCase, of: string, weighed: readonly Weighed[]): string {
  const { name, looks } = faults[one.fault]
  const answered = questions.flatMap(({ id, asks, answers }) => {
    const words = answers[one.answers[id] ?? '']?.words
    return words === undefined ? [] : [`- ${asks} ${words}`]
  })
  return [
    `# ${name}: ${of}`,
    '',
    `${looks}${one.atZ === undefined ? '' : ` Seen at ${one.atZ} mm.`}`,
    ...(one.note === '' ? [] : ['', one.note]),
    ...(answered.length === 0 ? [] : ['', ...answered]),
    ...(one.tries.length === 0
      ? []
      : [
          '',
          '| tried | for | it was |',
          '|---|---|---|',
          ...one.tries.map(
            ({ words, cause, did, times, mixed }) =>
              `| ${words}${mixed ? ' (with other changes)' : ''} | ${weighed.find((is) => is.cause.id === cause)?.cause.name ?? cause} | ${did === undefined ? 'not told' : `${resultWords[did]}${times > 1 ? `, ${times} prints in a row` : ''}`} |`,
          ),
        ]),
    '',
    '## Causes',
    '',
    ...weighed.flatMap(({ cause, odds, factors, ruledOut }) => [
      `- ${ruledOut ? `~~${cause.name}~~ (ruled out)` : cause.name}: ${odds >= 1 ? `${odds.toFixed(1)} to 1` : `1 to ${(1 / odds).toFixed(1)}`}`,
      ...factors.map(({ what, factor, basis }) => `  - ×${factor.toFixed(2)} ${what} (${basis})`),
    ]),
    ...(one.closed === undefined ? [] : ['', `**Found:** ${one.closed}`]),
    '',
  ].join('\n')
}
