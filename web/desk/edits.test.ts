import type { LineupContent } from '@sable/contract/lineup'
import { noPurpose } from '@sable/core/physics/strength/purpose'
import { beforeEach, describe, expect, it } from 'vitest'
import { contentOf, edit, openLineup, redo, undo, useDesk } from './deskStore'
import {
  addCandidate,
  copyName,
  duplicateCandidate,
  moveCandidate,
  nextName,
  removeCandidate,
  renameCandidate,
  setPart,
  setValue,
} from './edits'
import { createOutbox } from './outbox'

const candidate = (id: string, name = id) => ({
  id,
  name,
  printer: 'lugger',
  nozzle: 'bore-0.4',
  material: 'pla',
  values: {},
  overrides: [],
})
const content: LineupContent = {
  name: 'Hook',
  partId: 'p',
  placement: { scale: 1, rotateDeg: [0, 0, 0] },
  purpose: noPurpose,
  candidates: [candidate('a'), candidate('b'), candidate('c')],
}
const names = (of: LineupContent): string => of.candidates.map(({ name }) => name).join()

describe('edits of a lineup', () => {
  it('set a value, and give it back to the shelf', () => {
    const set = setValue(content, 'b', 'wallCount', 5)
    expect(set.candidates[1]?.values).toEqual({ wallCount: 5 })
    expect(setValue(set, 'b', 'wallCount', undefined).candidates[1]?.values).toEqual({})
    expect(content.candidates[1]?.values).toEqual({})
  })

  it('add, duplicate, rename, move and remove', () => {
    expect(names(addCandidate(content, candidate('d')))).toBe('a,b,c,d')
    expect(names(duplicateCandidate(content, 'a', 'x'))).toBe('a,a 2,b,c')
    expect(names(renameCandidate(content, 'b', '  best  '))).toBe('a,best,c')
    expect(renameCandidate(content, 'b', '   ')).toBe(content)
    expect(names(moveCandidate(content, 'c', 0))).toBe('c,a,b')
    expect(moveCandidate(content, 'a', -1)).toBe(content)
    expect(names(removeCandidate(content, 'b'))).toBe('a,c')
  })

  it('find a free name for a copy', () => {
    expect(nextName('sturdy', ['sturdy', 'sturdy 2'])).toBe('sturdy 3')
    expect(nextName('sturdy 2', ['sturdy 2'])).toBe('sturdy 3')
    expect(copyName('Dory 220', ['Dory 220'])).toBe('Dory 220 copy')
    expect(copyName('Dory 220', ['Dory 220', 'Dory 220 copy'])).toBe('Dory 220 copy 2')
    expect(nextName('x'.repeat(80), []).length).toBeLessThanOrEqual(80)
  })

  it('lay another part as it was modelled', () => {
    const turned = { ...content, placement: { scale: 2, rotateDeg: [90, 0, 0] as [number, number, number] } }
    expect(setPart(turned, 'q').placement).toEqual({ scale: 1, rotateDeg: [0, 0, 0] })
    expect(setPart(turned, 'p')).toBe(turned)
  })
})

describe('undo and redo', () => {
  const lineup = { ...content, id: 'l', revision: 1, demo: false, updatedAt: '' }
  beforeEach(() => openLineup(lineup))

  it('go back and forth step by step, and a new edit forgets what was undone', () => {
    edit((before) => removeCandidate(before, 'a'))
    edit((before) => renameCandidate(before, 'b', 'best'))
    undo()
    expect(names(useDesk.getState().content as LineupContent)).toBe('b,c')
    undo()
    expect(useDesk.getState().content).toEqual(contentOf(lineup))
    redo()
    expect(names(useDesk.getState().content as LineupContent)).toBe('b,c')
    edit((before) => removeCandidate(before, 'b'))
    redo()
    expect(names(useDesk.getState().content as LineupContent)).toBe('c')
  })

  it('count neither an edit that changes nothing nor what is said about saving', () => {
    edit((before) => setValue(before, 'a', 'wallCount', undefined))
    useDesk.setState({ save: { kind: 'saving' }, revision: 2 })
    expect(useDesk.temporal.getState().pastStates).toHaveLength(0)
  })

  it('do not reach back into another lineup', () => {
    edit((before) => removeCandidate(before, 'a'))
    openLineup({ ...lineup, id: 'm', name: 'Tray' })
    undo()
    expect(useDesk.getState().content?.name).toBe('Tray')
  })
})

describe('the outbox', () => {
  const storage = () => {
    const kept = new Map<string, string>()
    return {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => void kept.set(key, value),
      removeItem: (key: string) => void kept.delete(key),
    }
  }
  const valid: LineupContent = {
    ...content,
    partId: '2b1c6a52-2f0e-4b47-9d2c-1f6f6f3f2a10',
    candidates: [{ ...candidate('7c1c6a52-2f0e-4b47-9d2c-1f6f6f3f2a11', 'a') }],
  }

  it('keeps what was typed until just that has been saved', () => {
    const outbox = createOutbox(storage())
    outbox.put('l', { ...valid, revision: 3 })
    outbox.clear('l', { ...valid, name: 'an earlier version' })
    expect(outbox.take('l')).toEqual({ ...valid, revision: 3 })
    outbox.clear('l', valid)
    expect(outbox.take('l')).toBeUndefined()
  })

  it('passes over what it cannot read', () => {
    const broken = storage()
    broken.setItem('sable.unsaved.l', '{"half":')
    expect(createOutbox(broken).take('l')).toBeUndefined()
  })
})
