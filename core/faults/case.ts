import { z } from 'zod'
import { evidenceSchema } from '../learning/evidence'
import { type SettingValues, settingValuesSchema } from '../profile/settings'
import { causes, type FaultId, faultIds, faults, isOfFilament } from './faults'
import { type Tried, tryResults } from './outcomes'
import { questions } from './table/questions'
import type { Weighed } from './weigh'

/** One change that was tried, for which cause, and what came of it. */
const caseTrySchema = z.object({
  cause: z.string().min(1).max(40),
  /** The order to oneself that it followed. */
  words: z.string().min(1).max(200),
  change: settingValuesSchema.optional(),
  /** What that was before. */
  was: settingValuesSchema.optional(),
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
  /** Which of its causes that was, where it is one of them. */
  found: z.string().max(40).optional(),
  /** What that says of constants. */
  taught: z.array(evidenceSchema).max(10).optional(),
})
export type FaultCase = z.infer<typeof faultCaseSchema>

/** Tries that say something of their cause: judged, and of one change alone. */
export const triedOf = ({ tries }: Pick<FaultCase, 'tries'>): Tried[] =>
  tries.flatMap(({ cause, words, did, times, mixed }) => (did === undefined || mixed ? [] : [{ cause, words, did, times }]))

/** A case among others, as far as they tell each other something. */
export type CaseAmongOthers = Pick<FaultCase, 'fault' | 'tries' | 'closed' | 'found'> & {
  readonly partName: string
  readonly candidate: { readonly printer: string; readonly spool?: string | undefined }
}

/**
 * What other cases of the same fault say: what was ruled out on the same printer and from the same reel is not offered again, and what one of
 * them came to counts for the printer, or for the reel, whichever it belongs to.
 */
export function toldByOthers(one: Pick<CaseAmongOthers, 'fault' | 'candidate'>, others: readonly CaseAmongOthers[]): Tried[] {
  return others
    .filter(({ fault }) => fault === one.fault)
    .flatMap((other) => {
      const isPrinter = other.candidate.printer === one.candidate.printer
      const isReel = other.candidate.spool === one.candidate.spool && one.candidate.spool !== undefined
      const out =
        isPrinter && other.candidate.spool === one.candidate.spool
          ? triedOf(other).filter(({ did }) => did === 'same' || did === 'worse')
          : []
      const belongs = other.closed !== undefined && other.found !== undefined && (ownerOf(other.found) === 'reel' ? isReel : isPrinter)
      return [
        ...out.filter(({ cause }) => cause !== other.found),
        ...(belongs ? [{ cause: other.found!, did: 'fixed' as const }] : []),
      ].map((told) => ({
        ...told,
        elsewhere: other.partName,
      }))
    })
}

/** Whose a cause is: one that only a reel keeps is the reel's, any other the machine's. */
function ownerOf(id: string): 'reel' | 'printer' {
  const remedies = causes.get(id)?.remedies ?? []
  return isOfFilament(id) || remedies.every(({ keeps }) => keeps === 'spool') ? 'reel' : 'printer'
}

/** What was found by changing settings, and the layer of the shelf to which it belongs: the last word on each setting. */
export interface Keepable {
  readonly keeps: 'spool' | 'printer' | 'profile'
  readonly values: SettingValues
}

/** What tries that helped changed, by the layer that keeps it; nothing where more was changed at once. */
export function keepableOf({ tries }: Pick<FaultCase, 'tries'>): Keepable[] {
  const byLayer = new Map<Keepable['keeps'], Record<string, number | string>>()
  for (const { cause, words, change, did, mixed } of tries) {
    if (!change || mixed || (did !== 'fixed' && did !== 'better')) continue
    const keeps = causes.get(cause)?.remedies.find((remedy) => remedy.words === words)?.keeps ?? 'profile'
    const layer = keeps === 'nothing' ? 'profile' : keeps
    byLayer.set(layer, { ...byLayer.get(layer), ...change })
  }
  return [...byLayer].map(([keeps, values]) => ({ keeps, values }))
}

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
