import { type FaultId, faultIds, faults, isFaultId } from '@sable/core/faults/faults'
import { asksOf, nextOf } from '@sable/core/faults/next'
import { type Tried, type TryResult, tryResults } from '@sable/core/faults/outcomes'
import { causesAsFile } from '@sable/core/faults/passedOn'
import { sceneOf } from '@sable/core/faults/spec/scene'
import { questions } from '@sable/core/faults/table/questions'
import { type Answers, type Weighed, weigh } from '@sable/core/faults/weigh'
import { StageCache } from '@sable/core/pipeline/stageCache'
import { InputError } from '@sable/core/units/errors'
import { formatDuration } from '@sable/core/units/format'
import type { Command } from 'commander'
import { candidateOf, predictWith } from '../candidate'
import { loadPart, loadProfile } from '../files'
import { openKernel } from '../openKernel'
import { readNumber, type SharedOptions, withLoad } from '../options'
import { plainJson, print } from '../report'

interface FaultOptions extends SharedOptions {
  readonly profile?: string
  readonly at?: number
  readonly answer: readonly string[]
  readonly tried: readonly string[]
}

const collect = (one: string, before: readonly string[]): readonly string[] => [...before, one]

export function addFault(program: Command): void {
  withLoad(
    program
      .command('fault')
      .description(`causes of a fault in this very print, and the one next thing to try: ${faultIds.join(', ')}`)
      .argument('<kind>', 'what it looks like')
      .argument('<model>', 'STL, 3MF or OBJ file'),
  )
    .option('--profile <file>', 'profile file')
    .option('--at <mm>', 'height at which it is seen', readNumber('--at'))
    .option('--answer <question=answer>', 'what a person can tell; again for another', collect, [])
    .option('--tried <cause=result>', `what came of a change for a cause: ${tryResults.join(', ')}; times as result*3`, collect, [])
    .action(async (kind: string, model: string, options: FaultOptions) => {
      const fault = faults[faultOf(kind)]
      const part = await loadPart(model)
      const file = options.profile === undefined ? undefined : await loadProfile(options.profile)
      const { setup, overrides } = candidateOf(file, options)
      const prediction = predictWith(part, file, options, await openKernel(), new StageCache())
      const top = prediction.tracks.z.at(-1) ?? 0
      if (options.at !== undefined && (options.at < 0 || options.at > top))
        throw new InputError(
          'height-outside',
          `${options.at} mm is not between the bed and the top of the print.`,
          '--at',
          `Give a height from 0 to ${top.toFixed(1)} mm.`,
        )
      const scene = sceneOf(setup, prediction, overrides, options.at)
      const answers = answersOf(options.answer)
      const tried = options.tried.map((one) => triedOf(one, fault.causes))
      const weighed = weigh(fault, scene, answers, tried)
      const [ask] = asksOf(fault, scene, answers, tried)
      const [next] = nextOf(fault, scene, answers, tried)
      if (!options.json) return print(asText(weighed, ask, next))
      print(
        plainJson({
          fault: fault.id,
          causes: causesAsFile(weighed),
          ...(ask ? { ask: { id: ask.question.id, asks: ask.question.asks, answers: wordsOf(ask.question), bits: ask.bits } } : {}),
          ...(next
            ? {
                next: {
                  cause: next.cause.id,
                  words: next.remedy.words,
                  minutes: next.minutes,
                  grams: next.grams,
                  bits: next.bits,
                  ...(next.values ? { change: next.values } : {}),
                  ...(next.remedy.trial ? { trial: next.remedy.trial } : {}),
                  ...(next.remedy.caution === undefined ? {} : { caution: next.remedy.caution }),
                },
              }
            : {}),
        }),
      )
    })
}

const wordsOf = ({ answers }: (typeof questions)[number]): Readonly<Record<string, string>> =>
  Object.fromEntries(Object.entries(answers).map(([id, { words }]) => [id, words]))

function faultOf(kind: string): FaultId {
  if (isFaultId(kind)) return kind
  throw new InputError('fault-unknown', `There is no fault "${kind}".`, '<kind>', `Choose one of ${faultIds.join(', ')}.`)
}

/** "sound=hissing" of each. */
function answersOf(pairs: readonly string[]): Answers {
  return Object.fromEntries(
    pairs.map((pair) => {
      const [id = '', answer = ''] = pair.split('=').map((part) => part.trim())
      const question = questions.find((one) => one.id === id)
      if (!question)
        throw new InputError(
          'question-unknown',
          `There is no question "${id}".`,
          '--answer',
          `Answer one of ${questions.map((one) => one.id).join(', ')}.`,
        )
      if (!(answer in question.answers))
        throw new InputError(
          'answer-unknown',
          `"${answer}" does not answer "${question.asks}"`,
          '--answer',
          `Say one of ${Object.keys(question.answers).join(', ')}.`,
        )
      return [id, answer]
    }),
  )
}

/** "wet=same", "cold=fixed*3" */
function triedOf(text: string, causes: readonly string[]): Tried {
  const [, cause = '', did = '', times] = /^\s*([a-zA-Z]+)\s*=\s*([a-z]+)(?:\*(\d+))?\s*$/.exec(text) ?? []
  if (!causes.includes(cause))
    throw new InputError(
      'cause-unknown',
      `"${text}" names no cause of this fault.`,
      '--tried',
      `Name one of ${causes.join(', ')}, as in --tried ${causes[0]}=same.`,
    )
  if (!(tryResults as readonly string[]).includes(did))
    throw new InputError(
      'result-unknown',
      `"${text}" does not tell what came of it.`,
      '--tried',
      `Say one of ${tryResults.join(', ')}, as in --tried ${cause}=same.`,
    )
  return { cause, did: did as TryResult, ...(times === undefined ? {} : { times: Number(times) }) }
}

function asText(
  weighed: readonly Weighed[],
  ask: ReturnType<typeof asksOf>[number] | undefined,
  next: ReturnType<typeof nextOf>[number] | undefined,
): string {
  const lines = weighed.flatMap(({ cause, odds, factors, ruledOut }) => [
    `${odds >= 1 ? `${odds.toFixed(1)} to 1` : `1 to ${(1 / odds).toFixed(odds > 0.1 ? 1 : 0)}`}  ${cause.name}${ruledOut ? ' (ruled out)' : ''}`,
    ...factors.map(({ what, factor, basis }) => `    ×${factor >= 1 ? factor.toFixed(1) : factor.toFixed(2)}  ${what} (${basis})`),
  ])
  return [
    ...lines,
    ...(ask
      ? ['', `Would tell most: ${ask.question.asks} --answer ${ask.question.id}=${Object.keys(ask.question.answers).join(' | ')}`]
      : []),
    ...(next
      ? [
          '',
          `Next: ${next.remedy.words}, for “${next.cause.name}” (about ${formatDuration(60 * next.minutes)} and ${Math.round(next.grams)} g).`,
          ...(next.values
            ? [
                `  ${Object.entries(next.values)
                  .map(([name, value]) => `--set ${name}=${value}`)
                  .join(' ')}`,
              ]
            : []),
          ...(next.remedy.trial ? [`  sable trial ${next.remedy.trial}`] : []),
          ...(next.remedy.caution === undefined ? [] : [`  Caution: ${next.remedy.caution}`]),
        ]
      : ['', 'Nothing is left to try that was not ruled out.']),
  ].join('\n')
}
