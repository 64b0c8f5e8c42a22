import type { Lineup, LineupWrite } from '@sable/contract/lineup'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { RequestError } from '../api/client'
import { candidateOf, lineupOf } from '../testing/lineups'
import { setSetup } from './edits'

const stored = new Map<string, string>()
vi.stubGlobal('localStorage', {
  getItem: (key: string) => stored.get(key) ?? null,
  setItem: (key: string, text: string) => stored.set(key, text),
  removeItem: (key: string) => stored.delete(key),
})
const write = vi.fn<(id: string, write: LineupWrite) => Promise<Lineup>>()
vi.mock('../api/lineups', () => ({ writeLineup: (id: string, content: LineupWrite) => write(id, content) }))

const { outbox, restoreUnsaved, settleConflict, startAutosave } = await import('./autosave')
const { edit, openLineup, undo, useDesk } = await import('./deskStore')

/** A server that takes every write and counts revisions on. */
const takes = async (id: string, { revision, ...content }: LineupWrite): Promise<Lineup> => ({
  ...lineupOf(),
  ...content,
  id,
  revision: revision + 1,
})
const refusesWith = (more: object) => async (): Promise<Lineup> => {
  throw new RequestError({
    type: 'about:blank',
    title: 'No',
    status: 0,
    detail: 'The server does not answer.',
    code: 'server-away',
    where: '',
    remedy: '',
    ...more,
  })
}
const rename = (name: string): void => edit((content) => ({ ...content, name }))
const settle = (): Promise<unknown> => vi.advanceTimersByTimeAsync(10_000)
const state = (): string => useDesk.getState().save.kind

let stop: () => void
beforeEach(() => {
  vi.useFakeTimers()
  stored.clear()
  write.mockReset().mockImplementation(takes)
  openLineup(lineupOf())
  stop = startAutosave(() => {})
})
afterEach(() => {
  stop()
  vi.useRealTimers()
})

describe('what is edited', () => {
  it('is written once it rests, with the revision that it started from, and stands in the browser until then', async () => {
    rename('one')
    rename('two')
    expect(state()).toBe('saving')
    expect(outbox.take(lineupOf().id)?.name).toBe('two')
    await settle()
    expect(write).toHaveBeenCalledOnce()
    expect(write.mock.calls[0]![1]).toMatchObject({ name: 'two', revision: 3 })
    expect(state()).toBe('saved')
    expect(useDesk.getState().revision).toBe(4)
    expect(outbox.take(lineupOf().id)).toBeUndefined()
  })

  it('leaves nothing behind in the browser, in whatever order its fields were written', async () => {
    edit((content) => setSetup(content, content.candidates[0]!.id, 'spool', 'storm-black', 'pla'))
    await settle()
    expect(state()).toBe('saved')
    expect(outbox.take(lineupOf().id)).toBeUndefined()
  })

  it('and undone before it rested is not written at all', async () => {
    rename('one')
    undo()
    await settle()
    expect(write).not.toHaveBeenCalled()
    expect(state()).toBe('saved')
    expect(outbox.take(lineupOf().id)).toBeUndefined()
  })

  it('while a write is under way is written after it, one write at a time', async () => {
    let answer = (): void => {}
    write.mockImplementationOnce(async (id, content) => {
      await new Promise<void>((resolve) => {
        answer = resolve
      })
      return takes(id, content)
    })
    rename('one')
    await vi.advanceTimersByTimeAsync(300)
    rename('two')
    await settle()
    expect(write).toHaveBeenCalledOnce()
    answer()
    await settle()
    expect(write.mock.calls.map(([, { name, revision }]) => [name, revision])).toEqual([
      ['one', 3],
      ['two', 4],
    ])
    expect(state()).toBe('saved')
  })

  it('waits for a server that is away, and is written once it is back', async () => {
    write.mockImplementationOnce(refusesWith({})).mockImplementationOnce(refusesWith({}))
    rename('kept')
    await vi.advanceTimersByTimeAsync(1000)
    expect(state()).toBe('waiting')
    expect(outbox.take(lineupOf().id)?.name).toBe('kept')
    await settle()
    expect(write).toHaveBeenCalledTimes(3)
    expect(state()).toBe('saved')
  })

  it('was stored although its answer was cut off: what was typed since goes over it, and nobody is asked', async () => {
    const held: { lineup?: Lineup } = {}
    write.mockImplementationOnce(async (id, content) => {
      held.lineup = await takes(id, content)
      return refusesWith({})()
    })
    rename('one')
    await vi.advanceTimersByTimeAsync(300)
    expect(state()).toBe('waiting')
    write.mockImplementationOnce(async () => refusesWith({ status: 409, code: 'stale-write', current: held.lineup })())
    rename('two')
    await settle()
    expect(state()).toBe('saved')
    expect(write.mock.calls.at(-1)![1]).toMatchObject({ name: 'two', revision: held.lineup!.revision })
  })

  it('of another lineup is never written to the one that was open before', async () => {
    rename('one')
    await settle()
    const other = lineupOf([candidateOf('other')], { id: '00000000-0000-4000-8000-00000000cccc', name: 'Other', revision: 8 })
    openLineup(other)
    await settle()
    expect(write).toHaveBeenCalledOnce()
    rename('Other still')
    await settle()
    expect(write.mock.calls[1]).toMatchObject([other.id, { name: 'Other still', revision: 8 }])
  })
})

describe('two windows on one lineup', () => {
  const theirs = lineupOf([candidateOf('theirs')], { name: 'Theirs', revision: 9 })
  beforeEach(async () => {
    write.mockImplementationOnce(refusesWith({ code: 'stale-write', status: 409, current: theirs }))
    rename('Mine')
    await settle()
    expect(state()).toBe('conflict')
  })

  it('write nothing until it is said which is kept', async () => {
    rename('Mine again')
    await settle()
    expect(write).toHaveBeenCalledOnce()
  })

  it('keep mine over theirs', async () => {
    settleConflict('mine')
    await settle()
    expect(write.mock.calls[1]![1]).toMatchObject({ name: 'Mine', revision: 9 })
    expect(state()).toBe('saved')
  })

  it('keep theirs, with mine one undo away', async () => {
    settleConflict('theirs')
    expect(useDesk.getState().content?.name).toBe('Theirs')
    undo()
    expect(useDesk.getState().content?.name).toBe('Mine')
  })
})

describe('what never reached the server', () => {
  it('is put back on the desk and written, as an edit that can be undone', async () => {
    const { id, revision: _, demo: __, updatedAt: ___, ...content } = lineupOf()
    outbox.put(id, { ...content, name: 'Typed before the fall', revision: 3 })
    restoreUnsaved(lineupOf())
    expect(useDesk.getState().content?.name).toBe('Typed before the fall')
    await settle()
    expect(write.mock.calls[0]![1]).toMatchObject({ name: 'Typed before the fall', revision: 3 })
    undo()
    expect(useDesk.getState().content?.name).toBe(lineupOf().name)
  })

  it('is forgotten where the server has it after all', async () => {
    const { id, revision: _, demo: __, updatedAt: ___, ...content } = lineupOf()
    outbox.put(id, { ...content, revision: 2 })
    restoreUnsaved(lineupOf())
    await settle()
    expect(write).not.toHaveBeenCalled()
    expect(outbox.take(id)).toBeUndefined()
  })
})
