import { openKernel } from '@sable/cli/openKernel'
import { triesUntilFirst, type WorkedCase, workCase } from '@sable/soak/workCase'
import { hiddenIds } from '@sable/standins/hidden'

/** Three hundred workshops in which something went wrong: after how many tries of advice the true cause stands first, and stays there. */
const CASES = 300
/** Seeds that nothing was looked at with while the tables were made. */
const FIRST_SEED = 50_000

const kernel = await openKernel()
const worked: WorkedCase[] = []
let unseen = 0
for (let seed = FIRST_SEED; worked.length < CASES; seed++) {
  const one = workCase(seed, kernel, hiddenIds[seed % hiddenIds.length])
  if (one) worked.push(one)
  else unseen++
}
const share = (cases: readonly WorkedCase[], within: number): number =>
  Number(
    (cases.filter((one) => (triesUntilFirst(one) ?? Number.POSITIVE_INFINITY) <= within).length / Math.max(1, cases.length)).toFixed(3),
  )
const print = (figure: string, values: object): boolean => process.stdout.write(`${JSON.stringify({ figure, ...values })}\n`)

/** Against chance: the true cause stands first before anything was tried. */
const atOnce = share(worked, 0)
const figureOf = (cases: readonly WorkedCase[]) => ({
  atOnce: share(cases, 0),
  withinThree: share(cases, 3),
  withinFive: share(cases, 5),
  cases: cases.length,
})
print('faults.truthFirst', { ...figureOf(worked), ratio: Number((share(worked, 3) / atOnce).toFixed(2)), to: 'before any try', unseen })
for (const hidden of hiddenIds) print(`faults.truthFirst.${hidden}`, figureOf(worked.filter((one) => one.hidden === hidden)))

/** What a result says of a cause: how much oftener it comes where the cause is true. */
const results = worked.flatMap(({ tries, truths }) => tries.map(({ cause, did }) => ({ did, isTrue: truths.includes(cause) })))
const of = (isTrue: boolean, did?: string): number =>
  results.filter((one) => one.isTrue === isTrue && (did === undefined || one.did === did)).length
for (const did of ['fixed', 'better', 'same', 'worse', 'another'])
  print(`faults.says.${did}`, {
    ratio: Number(((of(true, did) + 0.5) / of(true) / ((of(false, did) + 0.5) / of(false))).toFixed(2)),
    to: 'tries for other causes',
    tries: of(true, did) + of(false, did),
  })
