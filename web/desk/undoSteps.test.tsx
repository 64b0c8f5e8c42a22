import type { Lineup } from '@sable/contract/lineup'
import { noPurpose } from '@sable/core/physics/strength/purpose'
import { beforeEach, describe, expect, it } from 'vitest'
import { edit, openLineup, redo, undo, useDesk } from './deskStore'
import { renameLineup } from './edits'
import { purposes } from './purposes'

const lineup = (more: Partial<Lineup> = {}): Lineup =>
  ({
    id: 'a',
    name: 'Hook',
    partId: 'p',
    placement: { scale: 1, rotateDeg: [0, 0, 0] },
    purpose: noPurpose,
    candidates: [],
    revision: 1,
    demo: false,
    createdAt: '',
    updatedAt: '',
    ...more,
  }) as Lineup
const name = (): string | undefined => useDesk.getState().content?.name

describe('undo', () => {
  beforeEach(() => sessionStorage.clear())

  it('outlives opening the lineup again, as after a reload, back and forth', () => {
    openLineup(lineup())
    edit((content) => renameLineup(content, 'Hook II'))
    edit((content) => renameLineup(content, 'Hook III'))
    undo()
    openLineup(lineup({ id: 'b', name: 'Other' }))
    undo()
    expect(name()).toBe('Other')
    openLineup(lineup({ name: 'Hook II', revision: 3 }))
    redo()
    expect(name()).toBe('Hook III')
    undo()
    undo()
    expect(name()).toBe('Hook')
  })

  it('is let go where the lineup stands otherwise than it did', () => {
    openLineup(lineup())
    edit((content) => renameLineup(content, 'Hook II'))
    openLineup(lineup({ name: 'Changed elsewhere', revision: 7 }))
    undo()
    expect(name()).toBe('Changed elsewhere')
  })

  it('is not stopped by what a browser kept of another day', () => {
    sessionStorage.setItem('sable.undo.a', 'not JSON')
    openLineup(lineup())
    undo()
    expect(name()).toBe('Hook')
  })
})

describe('what a part is for', () => {
  it('follows the part, and is nothing in particular until it is said', () => {
    localStorage.clear()
    expect(purposes.of('p')).toEqual(noPurpose)
    purposes.keep('p', { ...noPurpose, kind: 'show' })
    expect(purposes.of('p').kind).toBe('show')
    expect(purposes.of('q').kind).toBe('work')
    localStorage.setItem('sable.purposes', '[1')
    expect(purposes.of('p')).toEqual(noPurpose)
  })
})
