import type { Address } from '@sable/core/shelf/address'
import { ProblemError } from '../../http/problems'
import type { OpenTransport } from './transport'

/** So many readings are taken, and their middle is told; nothing is waited for longer, ms. */
const READINGS = 5
const PATIENCE_MS = 8000
/** What such instruments send: a number and its unit, with whatever stands around it. */
const READING = /(-?\d+(?:[.,]\d+)?)\s*(kg|g)\b/i

/** Reads a scale at the end of a wire, g. @throws ProblemError where none answers, or says nothing that is a weight */
export async function readScale(address: Address, open: OpenTransport): Promise<number> {
  const readings: number[] = []
  const silent = (why: string): ProblemError =>
    new ProblemError(
      502,
      'scale-silent',
      `The scale tells no weight (${why}).`,
      `${address.host}:${address.port}`,
      'Switch it on, or type what it shows.',
    )
  return new Promise((done, fail) => {
    const timer = setTimeout(() => finish(silent(`nothing for ${PATIENCE_MS / 1000} s`)), PATIENCE_MS)
    let close = (): void => {}
    const finish = (problem?: ProblemError): void => {
      clearTimeout(timer)
      close()
      if (problem) fail(problem)
      else done(readings.sort((a, b) => a - b)[readings.length >> 1]!)
    }
    open(address, {
      onLine: (line) => {
        const found = READING.exec(line)
        if (!found || readings.length === READINGS) return
        readings.push(Number(found[1]!.replace(',', '.')) * (found[2]!.toLowerCase() === 'kg' ? 1000 : 1))
        if (readings.length === READINGS) finish()
      },
      onClose: (why) => readings.length < READINGS && finish(silent(why)),
    }).then(
      (transport) => {
        close = transport.close
        if (readings.length === READINGS) close()
      },
      (error: unknown) => finish(silent(error instanceof Error ? error.message : String(error))),
    )
  })
}
