import { type OnTable, onTableSchema } from '@sable/contract/instruments'
import type { Address } from '@sable/core/shelf/address'
import { ProblemError } from '../../http/problems'
import type { OpenTransport } from '../machines/transport'

/** Nothing is waited for longer, ms. */
const PATIENCE_MS = 8000

/** What is said where an instrument says nothing of use. */
interface Silence {
  readonly code: string
  readonly sentence: string
  readonly remedy: string
}

/**
 * Listens to an instrument at the end of a wire until it has said enough.
 *
 * @param ask a line that is sent to it first
 * @param heard returns what it said, once that is enough
 * @throws ProblemError where none answers, or says nothing of use
 */
function listenTo<T>(
  { address, open, ask }: { readonly address: Address; readonly open: OpenTransport; readonly ask?: string },
  { code, sentence, remedy }: Silence,
  heard: (line: string) => T | undefined,
): Promise<T> {
  const silent = (why: string): ProblemError =>
    new ProblemError(502, code, `${sentence} (${why}).`, `${address.host}:${address.port}`, remedy)
  return new Promise((done, fail) => {
    let isOver = false
    let close = (): void => {}
    const finish = (end: () => void): void => {
      if (isOver) return
      isOver = true
      clearTimeout(timer)
      close()
      end()
    }
    const timer = setTimeout(() => finish(() => fail(silent(`nothing for ${PATIENCE_MS / 1000} s`))), PATIENCE_MS)
    open(address, {
      onLine: (line) => {
        const told = isOver ? undefined : heard(line)
        if (told !== undefined) finish(() => done(told))
      },
      onClose: (why) => finish(() => fail(silent(why))),
    }).then(
      (transport) => {
        close = transport.close
        if (isOver) close()
        else if (ask !== undefined) transport.send(ask)
      },
      (error: unknown) => finish(() => fail(silent(error instanceof Error ? error.message : String(error)))),
    )
  })
}

/** So many weights are taken, and their middle is told. */
const READINGS = 5
/** What such instruments send: a number and its unit, with whatever stands around it. */
const WEIGHT = /(-?\d+(?:[.,]\d+)?)\s*(kg|g)\b/i
const LENGTH = /([+-]?\d+(?:[.,]\d+)?)\s*(mm|in)\b/i
const MM_PER_INCH = 25.4
const numberIn = (text: string): number => Number(text.replace(',', '.'))

/** Reads a scale, g. */
export function readScale(address: Address, open: OpenTransport): Promise<number> {
  const readings: number[] = []
  const silence = { code: 'scale-silent', sentence: 'The scale tells no weight', remedy: 'Switch it on, or type what it shows.' }
  return listenTo({ address, open }, silence, (line) => {
    const found = WEIGHT.exec(line)
    if (found) readings.push(numberIn(found[1]!) * (found[2]!.toLowerCase() === 'kg' ? 1000 : 1))
    return readings.length < READINGS ? undefined : readings.sort((a, b) => a - b)[READINGS >> 1]
  })
}

/** Reads a caliper that lies along an axis of what is measured, mm. */
export function readCaliper(address: Address, open: OpenTransport, axis: 'X' | 'Y' | 'Z'): Promise<number> {
  const silence = { code: 'caliper-silent', sentence: 'The caliper tells no length', remedy: 'Switch it on, or type what it shows.' }
  return listenTo({ address, open, ask: axis }, silence, (line) => {
    // Some send the number of their channel before a sign.
    const found = LENGTH.exec(line.replace(/^\d+[A-Z](?=[+-])/, ''))
    return found ? numberIn(found[1]!) * (found[2]!.toLowerCase() === 'in' ? MM_PER_INCH : 1) : undefined
  })
}

/** Looks at what lies on a machine's table. */
export function lookAtTable(address: Address, open: OpenTransport): Promise<OnTable> {
  const silence = { code: 'table-silent', sentence: 'What lies on the table is not to be seen', remedy: 'Start the stand-in again.' }
  return listenTo({ address, open }, silence, (line) => {
    try {
      return onTableSchema.parse(JSON.parse(line))
    } catch {
      return undefined
    }
  })
}
