import { ruledOut, type ToldTry } from './experiment'
import type { Changed } from './sincePrint'

/** A change that did not make a fault go away, on a printer and from a reel: once it is known it is not tried again. */
export interface RuledOut extends Changed {
  readonly fault: string
  readonly printer: string
  readonly spool?: string | undefined
  /** By how many tries. */
  readonly times: number
  /** Where that came out, by their questions. */
  readonly questions: readonly string[]
}

/** A try as far as it can rule something out. */
type OneTry = Pick<ToldTry, 'printer' | 'spool' | 'changed' | 'did'>

/** What was asked of prints, by an experiment or by a case. */
export interface Asked {
  readonly question: string
  readonly fault: string
  readonly tries: readonly OneTry[]
}

/** Faults are told in words: those that read alike are one. */
export const sameFault = (a: string, b: string): boolean => plain(a) === plain(b)
const plain = (words: string): string => words.trim().toLowerCase().replace(/\s+/g, ' ')

/** What all experiments ruled out, by fault, printer and reel; what was tried most often first. A change that helped elsewhere with them is none. */
export function ruledOutBook(experiments: readonly Asked[]): RuledOut[] {
  const book = new Map<string, RuledOut>()
  const keyOf = (fault: string, { printer, spool = '' }: OneTry, { label, was, is }: Changed): string =>
    [plain(fault), printer, spool, label, was, is].join('\n')
  const helped = new Set<string>()
  for (const { question, fault, tries } of experiments) {
    if (fault.trim() === '') continue
    for (const one of tries) {
      const [change] = one.changed
      if (change && one.changed.length === 1 && one.did === 'helped') helped.add(keyOf(fault, one, change))
      for (const out of ruledOut([one])) {
        const key = keyOf(fault, one, out)
        const known = book.get(key)
        book.set(key, {
          ...out,
          fault: fault.trim(),
          printer: one.printer,
          spool: one.spool,
          times: (known?.times ?? 0) + 1,
          questions: [...new Set([...(known?.questions ?? []), question])],
        })
      }
    }
  }
  return [...book]
    .flatMap(([key, out]) => (helped.has(key) ? [] : [out]))
    .sort((a, b) => b.times - a.times || a.label.localeCompare(b.label))
}
