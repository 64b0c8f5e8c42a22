import { describe, expect, it, vi } from 'vitest'
import { mergeRecord } from './mergeRecord'
import { RecordWriter } from './recordWriter'

interface Nozzle {
  readonly name: string
  readonly bore: number
  readonly range?: { readonly from?: number; readonly to?: number }
}

class Stale extends Error {}
class Away extends Error {}

/** A server that holds one record and answers when it is let. */
function server(first: Nozzle) {
  const held = { record: first, revision: 1, writes: 0 }
  const waiting: (() => void)[] = []
  let away = false
  let cutOff = false
  const writer = new RecordWriter<Nozzle>({
    async send(_, record, revision) {
      await new Promise<void>((resolve) => waiting.push(resolve))
      if (away) throw new Away()
      if (revision !== held.revision) throw new Stale()
      held.record = record
      held.writes++
      held.revision++
      if (cutOff) throw new Away()
      return held.revision
    },
    isAway: (error) => error instanceof Away,
    staleOf: (error) => (error instanceof Stale ? held : undefined),
    onChange: () => {},
    retryMs: 5,
  })
  const change = (part: Partial<Nozzle>) =>
    writer.write(
      'n',
      () => held,
      (latest) => ({ ...latest, ...part }),
    )
  const answer = async (): Promise<void> => {
    await vi.waitFor(() => expect(waiting.length).toBeGreaterThan(0))
    waiting.shift()!()
    await new Promise((resolve) => setTimeout(resolve))
  }
  return { held, writer, change, answer, leave: (is: boolean) => (away = is), cutOff: (is: boolean) => (cutOff = is), waiting }
}

describe('a record that is changed faster than the server answers', () => {
  it('is written once at a time, and what was typed meanwhile goes together, over the revision that came back', async () => {
    const { held, change, answer, waiting, writer } = server({ name: 'a', bore: 0.4 })
    const all = [change({ bore: 0.5 }), change({ name: 'ab' }), change({ name: 'abc' })]
    expect(writer.wantedOf('n')).toEqual({ name: 'abc', bore: 0.5 })
    expect(waiting.length).toBe(1)
    await answer()
    expect(held.record).toEqual({ name: 'a', bore: 0.5 })
    await answer()
    await Promise.all(all)
    expect(held).toMatchObject({ record: { name: 'abc', bore: 0.5 }, revision: 3, writes: 2 })
    expect(writer.wantedOf('n')).toBeUndefined()
  })

  it('is not written when nothing changes', async () => {
    const { held, change } = server({ name: 'a', bore: 0.4 })
    await change({ bore: 0.4 })
    expect(held.writes).toBe(0)
  })

  it('stays wanted while nobody answers, and is stored as soon as somebody does', async () => {
    const { held, change, answer, leave, writer } = server({ name: 'a', bore: 0.4 })
    leave(true)
    const first = change({ bore: 0.6 })
    await Promise.all([expect(first).rejects.toThrow(Away), answer()])
    expect(writer.wantedOf('n')).toMatchObject({ bore: 0.6 })
    leave(false)
    await answer()
    expect(held.record.bore).toBe(0.6)
  })

  it('that was stored although its answer was cut off is no conflict: what was typed since is stored over it', async () => {
    const { held, change, answer, cutOff } = server({ name: 'a', bore: 0.4 })
    cutOff(true)
    const first = change({ bore: 0.6 })
    await Promise.all([expect(first).rejects.toThrow(Away), answer()])
    cutOff(false)
    const second = change({ name: 'b' })
    await answer()
    await answer()
    await second
    expect(held.record).toEqual({ name: 'b', bore: 0.6 })
  })

  it('is a conflict only when another one wrote, never when it was this page itself', async () => {
    const { held, change, answer, writer } = server({ name: 'a', bore: 0.4 })
    for (let i = 0; i < 5; i++) void change({ bore: 0.5 + i / 10 })
    await answer()
    await answer()
    expect(held.record.bore).toBeCloseTo(0.9)
    held.revision++
    const stale = writer.write(
      'n',
      () => ({ record: held.record, revision: held.revision - 1 }),
      (latest) => ({ ...latest, name: 'b' }),
    )
    await Promise.all([expect(stale).rejects.toThrow(Stale), answer()])
    expect(writer.wantedOf('n')).toBeUndefined()
  })
})

describe('a change put into a record that has moved on', () => {
  const before: Nozzle = { name: 'a', bore: 0.4, range: { from: 200, to: 220 } }
  it('keeps what others changed', () => {
    expect(mergeRecord(before, { ...before, bore: 0.6 }, { ...before, name: 'b' })).toEqual({ ...before, name: 'b', bore: 0.6 })
    expect(mergeRecord(before, { ...before, range: { from: 200, to: 230 } }, { ...before, range: { from: 190, to: 220 } }).range).toEqual({
      from: 190,
      to: 230,
    })
  })
  it('takes a field back that was emptied', () => {
    expect(mergeRecord(before, { name: 'a', bore: 0.4 }, before)).toEqual({ name: 'a', bore: 0.4 })
  })
})
