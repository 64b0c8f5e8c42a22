import { Firmware } from '@sable/standins/printer/firmware'
import { Machine } from '@sable/standins/printer/machine'
import { truthFrom } from '@sable/standins/truth'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { checksumOf, LineStream, programLines } from './lineStream'

/** A wire on which lines are lost or damaged as it is told, with a stand-in at its end. */
function over(
  program: readonly string[],
  spoil: (count: number, line: string) => string | undefined,
  answers: (line: string) => boolean = () => true,
) {
  const run: string[] = []
  class Remembering extends Machine {
    override run(word: string, values: Readonly<Record<string, number>>): void {
      run.push(`${word}${values.X === undefined ? '' : ` X${values.X}`}`)
      super.run(word, values)
    }
  }
  const inbox: string[] = []
  const toHost: string[] = []
  const firmware = new Firmware(new Remembering(truthFrom(2)), (line) => {
    if (answers(line)) toHost.push(line)
  })
  toHost.length = 0
  let count = 0
  const stream = new LineStream(program, (line) => {
    const arrives = spoil(count++, line)
    if (arrives !== undefined) inbox.push(arrives)
  })
  return { run, stream, firmware, inbox, toHost }
}

function play({ stream, firmware, inbox, toHost }: ReturnType<typeof over>): void {
  stream.begin()
  for (let round = 0, silent = 0; round < 200_000 && !stream.isDone; round++) {
    const [line] = inbox.splice(0, 1)
    if (line !== undefined) firmware.receive(line)
    firmware.advance(0.2)
    const heard = toHost.splice(0, toHost.length)
    for (const one of heard) stream.receive(one)
    silent = heard.length > 0 || inbox.length > 0 ? 0 : silent + 1
    if (silent > 400) {
      silent = 0
      stream.nudge()
    }
  }
}

const program = Array.from({ length: 120 }, (_, i) => `G1 X${i + 1} F6000`)
const asRun = program.map((_, i) => `G1 X${i + 1}`)

describe('a program line by line', () => {
  it('comes over whole and in order, with no more on its way than a machine buffers', () => {
    const wire = over(program, (_, line) => line)
    play(wire)
    expect(wire.stream.isDone).toBe(true)
    expect(wire.run).toEqual(asRun)
  })

  it('whatever line is damaged or lost, every line is run once, in its order', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ at: fc.integer({ min: 1, max: 130 }), how: fc.constantFrom('lost', 'damaged') }), { maxLength: 12 }),
        (faults) => {
          const wire = over(program, (count, line) => {
            const fault = faults.find(({ at }) => at === count)
            if (!fault) return line
            return fault.how === 'lost' ? undefined : line.replace('X', 'Y')
          })
          play(wire)
          expect(wire.stream.isDone).toBe(true)
          expect(wire.run).toEqual(asRun)
        },
      ),
      { numRuns: 60 },
    )
  })

  it('whatever answer is lost, too', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 2, max: 120 }), { maxLength: 6 }), (lost) => {
        let count = 0
        const wire = over(
          program,
          (_, line) => line,
          (line) => !(line.startsWith('ok') && lost.includes(count++)),
        )
        play(wire)
        expect(wire.stream.isDone).toBe(true)
        expect(wire.run).toEqual(asRun)
      }),
      { numRuns: 40 },
    )
  })

  it('held it sends nothing more, and goes on where it was', () => {
    const wire = over(program, (_, line) => line)
    wire.stream.begin()
    for (let round = 0; round < 60; round++) {
      const [line] = wire.inbox.splice(0, 1)
      if (line !== undefined) wire.firmware.receive(line)
      wire.firmware.advance(0.5)
      if (round === 20) wire.stream.pause()
      for (const one of wire.toHost.splice(0)) wire.stream.receive(one)
    }
    const held = wire.stream.accepted
    expect(held).toBeLessThan(60)
    wire.stream.resume()
    play({ ...wire, stream: Object.assign(wire.stream, { begin: () => {} }) })
    expect(wire.run).toEqual(asRun)
  })

  it('taken up by another server at the line that the machine says it awaits', () => {
    const wire = over(program, (_, line) => line)
    wire.stream.begin()
    for (let round = 0; round < 40; round++) {
      const [line] = wire.inbox.splice(0, 1)
      if (line !== undefined) wire.firmware.receive(line)
      wire.firmware.advance(0.5)
      for (const one of wire.toHost.splice(0)) wire.stream.receive(one)
    }
    // The server died with answers unread; what it had written down lags behind.
    const written = wire.stream.accepted - 3
    wire.inbox.length = 0
    wire.toHost.length = 0
    const next = new LineStream(program, (line) => void wire.inbox.push(line), written)
    next.takeUp()
    play({ ...wire, stream: Object.assign(next, { begin: () => {} }) })
    expect(wire.run).toEqual(asRun)
  })
})

describe('what is sent of a program', () => {
  it('are its lines without comments', () => {
    expect(programLines('; head\nG28 ; home\n\n  M107\r\nG1 X1')).toEqual(['G28', 'M107', 'G1 X1'])
  })

  it('the checksum is the XOR of the characters before the star (the worked example of open firmware, from memory)', () => {
    expect(checksumOf('N3 T0')).toBe(57)
  })
})
