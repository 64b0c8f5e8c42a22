import { z } from 'zod'
import { type Changed, type MadeWith, sincePrint } from './sincePrint'

/** What a try did to what was asked about. */
export const verdicts = ['helped', 'same', 'worse'] as const
export type TryVerdict = (typeof verdicts)[number]

/** One print of an experiment, and what its change did. The first one is where it began, and changed nothing. */
const trySchema = z.object({ print: z.uuid(), did: z.enum(verdicts).optional(), note: z.string().max(2000).default('') })

/** A question to prints: what is held, one thing changed at a time, and what came of it. */
export const experimentSchema = z.object({
  question: z.string().min(1).max(300),
  /** What is to go away, or to get better. */
  fault: z.string().max(200).default(''),
  /** What stays as it is throughout. */
  held: z.string().max(1000).default(''),
  tries: z.array(trySchema).max(60).default([]),
  verdict: z.string().max(2000).default(''),
})
export type Experiment = z.infer<typeof experimentSchema>

/** A try with what was changed for it since the one before. */
export interface ToldTry {
  readonly print: string
  readonly name: string
  readonly at: string
  readonly printer: string
  readonly spool: string | undefined
  readonly did: TryVerdict | undefined
  readonly note: string
  readonly changed: readonly Changed[]
}

/** A print as an experiment needs it. */
export interface TriedPrint extends MadeWith {
  readonly id: string
  readonly name: string
  readonly at: string
}

/** Tries in their order, each beside the one before; prints that are gone are left out. */
export function toldTries({ tries }: Pick<Experiment, 'tries'>, prints: readonly TriedPrint[]): ToldTry[] {
  let before: TriedPrint | undefined
  return tries.flatMap(({ print: id, did, note }) => {
    const print = prints.find((one) => one.id === id)
    if (!print) return []
    const changed = before ? sincePrint(before, print) : []
    before = print
    return [{ print: id, name: print.name, at: print.at, printer: print.printer, spool: print.spool, did, note, changed }]
  })
}

/** What is ruled out: a single change that did not help. Of several at once nothing is ruled out. */
export const ruledOut = (tries: readonly Pick<ToldTry, 'changed' | 'did'>[]): Changed[] =>
  tries.flatMap(({ changed, did }) => (changed.length === 1 && (did === 'same' || did === 'worse') ? changed : []))

/** By how many tries the same single change helped: once is chance, twice is a sign. */
export function confirmed(tries: readonly ToldTry[]): { readonly change: Changed; readonly times: number }[] {
  const counts = new Map<string, { readonly change: Changed; times: number }>()
  for (const { changed, did } of tries) {
    const [change] = changed
    if (!change || changed.length !== 1 || did !== 'helped') continue
    const key = `${change.label} ${change.was} ${change.is}`
    const known = counts.get(key)
    if (known) known.times++
    else counts.set(key, { change, times: 1 })
  }
  return [...counts.values()]
}

const words: Readonly<Record<TryVerdict, string>> = { helped: 'helped', same: 'did nothing', worse: 'made it worse' }
export const didWords = (did: TryVerdict | undefined): string => (did === undefined ? 'not judged' : words[did])
const changeWords = ({ label, was, is }: Changed): string => `${label}: ${was} → ${is}`

/** An experiment as a page to pass on, in Markdown. */
export function asMarkdown(experiment: Experiment, tries: readonly ToldTry[]): string {
  const out = ruledOut(tries)
  return [
    `# ${experiment.question}`,
    ...(experiment.fault === '' ? [] : ['', `Fault: ${experiment.fault}.`]),
    ...(experiment.held === '' ? [] : ['', `Held: ${experiment.held}`]),
    '',
    '| try | print | changed | it |',
    '|---|---|---|---|',
    ...tries.map(
      ({ name, at, changed, did }, i) =>
        `| ${i + 1} | ${name}, ${at.slice(0, 10)} | ${changed.map(changeWords).join('; ') || (i === 0 ? 'where it began' : 'nothing')} | ${i === 0 ? '' : didWords(did)} |`,
    ),
    ...(out.length === 0 ? [] : ['', 'Ruled out:', '', ...out.map((change) => `- ${changeWords(change)}`)]),
    ...confirmed(tries).map(({ change, times }) => `\n${changeWords(change)} helped ${times === 1 ? 'once' : `${times} times`}.`),
    ...(experiment.verdict === '' ? [] : ['', `**Verdict:** ${experiment.verdict}`]),
    '',
  ].join('\n')
}
