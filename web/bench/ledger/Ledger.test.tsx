import { act, fireEvent, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { openLineup, redo, undo, useDesk } from '../../desk/deskStore'
import { LedgerOnDesk, Surroundings } from '../../testing/LedgerOnDesk'
import { candidateOf, lineupOf } from '../../testing/lineups'
import type { Refusal } from '../../ui/Notice'

// Nothing is computed here: what the figures are is tested in the core, how they come in a browser.
vi.mock('../../predictions/predictionPool', () => ({ PredictionPool: class {} }))

const refused = vi.fn<(refusal: Refusal) => void>()

function openLedger(lineup = lineupOf()) {
  refused.mockClear()
  openLineup(lineup)
  const user = userEvent.setup()
  render(
    <Surroundings>
      <LedgerOnDesk onRefusal={refused} />
    </Surroundings>,
  )
  return user
}

const row = (setting: string): HTMLElement => {
  const found = document.querySelector<HTMLElement>(`[data-setting=${setting}]`)
  if (!found) throw new Error(`no row ${setting}`)
  return found
}
const cell = (setting: string, column: number): HTMLElement => row(setting).querySelectorAll('td')[column]!
const stored = (setting: string, column: number): unknown =>
  (useDesk.getState().content?.candidates[column]?.values as Record<string, unknown>)[setting]
const names = (): string[] => useDesk.getState().content!.candidates.map(({ name }) => name)

describe('cells by keyboard', () => {
  let user: ReturnType<typeof userEvent.setup>
  beforeEach(() => {
    user = openLedger()
  })

  it('take what is typed; Enter goes down, Tab to the right', async () => {
    await user.click(cell('topLayers', 0))
    await user.keyboard('7{Tab}8{Enter}')
    expect([stored('topLayers', 0), stored('topLayers', 1)]).toEqual([7, 8])
    // Enter went down in the second column.
    await user.keyboard('3{Enter}')
    expect(stored('bottomLayers', 1)).toBe(3)
    expect(stored('bottomLayers', 0)).toBeUndefined()
  })

  it('are left as they were by Escape, and given back to the shelf by Delete', async () => {
    await user.click(cell('wallCount', 0))
    await user.keyboard('9{Escape}')
    expect(stored('wallCount', 0)).toBe(3)
    await user.keyboard('{Delete}')
    expect(stored('wallCount', 0)).toBeUndefined()
    expect(cell('wallCount', 0).textContent).toContain('from common practice')
  })

  it('are selected with Shift, filled to the right, and undone step by step', async () => {
    await user.click(cell('topLayers', 0))
    await user.keyboard('7{Enter}{ArrowUp}')
    await user.keyboard('{Shift>}{ArrowRight}{ArrowRight}{/Shift}{Control>}d{/Control}')
    expect([0, 1, 2].map((column) => stored('topLayers', column))).toEqual([7, 7, 7])
    act(undo)
    expect([0, 1, 2].map((column) => stored('topLayers', column))).toEqual([7, 5, undefined])
    act(undo)
    expect(stored('topLayers', 0)).toBeUndefined()
    act(redo)
    expect(stored('topLayers', 0)).toBe(7)
  })

  it('are copied and pasted as a block, all of it or nothing', async () => {
    await user.click(cell('topLayers', 0))
    await user.keyboard('7{Tab}8{Enter}{ArrowUp}{Shift>}{ArrowLeft}{/Shift}')
    const setData = vi.fn()
    fireEvent.copy(screen.getByRole('grid'), { clipboardData: { setData } })
    expect(setData).toHaveBeenCalledWith('text/plain', '7\t8')
    await user.keyboard('{ArrowDown}')
    await user.paste('6\t5')
    expect([stored('bottomLayers', 0), stored('bottomLayers', 1)]).toEqual([6, 5])
    await user.paste('6\tmany')
    expect(refused).toHaveBeenCalledOnce()
    expect([stored('bottomLayers', 0), stored('bottomLayers', 1)]).toEqual([6, 5])
  })

  it('refuse what cannot be with its range, in their place, and lose nothing', async () => {
    await user.click(cell('layerHeight', 1))
    await user.keyboard('5{Enter}')
    expect(screen.getByRole('alert').textContent).toContain('Give a number from 0.02 to 1.2 mm.')
    expect(screen.getByRole<HTMLInputElement>('textbox').value).toBe('5')
    expect(stored('layerHeight', 1)).toBe(0.2)
    await user.keyboard('{Escape}')
    expect(cell('layerHeight', 1).textContent).toContain('0.20')
  })

  it('take a wall thickness for a count, and tell it beside the count', async () => {
    await user.click(cell('lineWidth', 0))
    await user.keyboard('0.4{Enter}')
    await user.click(cell('wallCount', 0))
    await user.keyboard('1.6 mm{Enter}')
    expect(stored('wallCount', 0)).toBe(4)
    expect(cell('wallCount', 0).textContent).toContain('1.6 mm')
  })

  it('go to the ends of rows and of the table, and never out of it', async () => {
    const grid = screen.getByRole('grid')
    await user.click(cell('wallCount', 1))
    await user.keyboard('{End}')
    expect(cell('wallCount', 2).id).toBe(grid.getAttribute('aria-activedescendant'))
    await user.keyboard('{ArrowRight}{Home}')
    expect(cell('wallCount', 0).id).toBe(grid.getAttribute('aria-activedescendant'))
    await user.keyboard('{Control>}{Home}{/Control}{ArrowUp}')
    expect(cell('printer', 0).id).toBe(grid.getAttribute('aria-activedescendant'))
  })

  it('show every layer under a value at a right click', async () => {
    await user.pointer({ keys: '[MouseRight]', target: cell('retractLength', 0) })
    expect(await screen.findByRole('dialog', { name: /Retraction/ })).toBeTruthy()
  })
})

describe('what a column prints with', () => {
  it('is chosen in its cell; another nozzle tells what it changed', async () => {
    const user = openLedger()
    await user.click(cell('nozzle', 0))
    await user.keyboard('{Enter}')
    await user.keyboard('0.6 mm b{Enter}')
    expect(useDesk.getState().content?.candidates[0]?.nozzle).toBe('bore-0.6')
    const drawer = await screen.findByRole('dialog')
    expect(drawer.textContent).toContain('Line width')
  })
})

describe('columns', () => {
  it('are duplicated, renamed, made first and removed, and all of it can be undone', async () => {
    const user = openLedger()
    const choose = async (column: number, item: string): Promise<void> => {
      await user.click(screen.getAllByRole('button', { name: /^Actions for / })[column]!)
      await user.click(await screen.findByRole('menuitem', { name: new RegExp(`^${item}`) }))
    }
    await choose(1, 'Duplicate')
    expect(names()).toEqual(['everyday', 'sturdy', 'sturdy 2', 'quick'])
    await user.click(screen.getByRole('button', { name: 'Candidate: sturdy 2. Rename' }))
    await user.keyboard('sturdiest{Enter}')
    await choose(2, 'Make first')
    expect(names()).toEqual(['sturdiest', 'everyday', 'sturdy', 'quick'])
    await choose(3, 'Move left')
    await choose(0, 'Remove')
    expect(names()).toEqual(['everyday', 'quick', 'sturdy'])
    for (let step = 0; step < 5; step++) act(undo)
    expect(names()).toEqual(['everyday', 'sturdy', 'quick'])
  })

  it('that are gone leave an empty ledger, which says what a candidate is and adds one', async () => {
    const user = openLedger(lineupOf([]))
    await user.click(screen.getByRole('button', { name: 'Add a candidate' }))
    expect(names()).toHaveLength(1)
    expect(screen.getByRole('grid')).toBeTruthy()
  })

  it('mark what differs from the first', () => {
    openLedger()
    expect(cell('wallCount', 1).textContent).toContain('differs')
    expect(cell('layerHeight', 1).textContent).not.toContain('differs')
  })
})

describe('rows', () => {
  it('are found by what others call them, or by their difference alone', async () => {
    const user = openLedger()
    const search = screen.getByRole('searchbox')
    await user.type(search, 'perimeter')
    expect([...document.querySelectorAll('[data-setting]')].map((one) => one.getAttribute('data-setting'))).toContain('wallCount')
    await user.clear(search)
    await user.type(search, 'no such thing')
    expect(screen.getByText('No setting is called “no such thing”.')).toBeTruthy()
    await user.clear(search)
    await user.click(screen.getByLabelText('Only differences'))
    expect(document.querySelector('[data-setting=lineWidth]')).toBeNull()
    expect(row('wallCount')).toBeTruthy()
  })

  it('that are words take what is meant, and nothing where nothing is: Enter commits, Escape leaves', async () => {
    const user = openLedger()
    await user.click(cell('nozzle', 0))
    await user.keyboard('0.4 mm hard')
    expect(screen.getAllByRole('option').map(({ textContent }) => textContent)).toEqual(['0.4 mm hardened'])
    await user.keyboard('{Enter}')
    expect(useDesk.getState().content?.candidates[0]?.nozzle).toBe('hard-0.4')
    await user.click(cell('printer', 1))
    const before = useDesk.getState().content?.candidates[1]?.printer
    await user.keyboard('{Enter}{ArrowDown}{Escape}')
    expect(useDesk.getState().content?.candidates[1]?.printer).toBe(before)
    await user.click(cell('printer', 1))
    await user.keyboard('nowhere')
    expect(screen.getByText('Nothing is called so.')).toBeTruthy()
    await user.keyboard('{Enter}{Escape}')
    expect(useDesk.getState().content?.candidates[1]?.printer).toBe(before)
  })

  it('that mean nothing stay away until what they depend on is chosen', async () => {
    const user = openLedger()
    expect(document.querySelector('[data-setting=supportDensity]')).toBeNull()
    await user.click(cell('supports', 1))
    await user.keyboard('{Enter}')
    await user.click(screen.getByRole('option', { name: 'plain' }))
    expect(stored('supports', 1)).toBe('plain')
    expect(row('supportDensity')).toBeTruthy()
  })

  it('all agree where one candidate is like the other', async () => {
    const user = openLedger(lineupOf([candidateOf('one'), candidateOf('two')]))
    await user.click(screen.getByLabelText('Only differences'))
    expect(screen.getByText('All candidates agree in every setting.')).toBeTruthy()
  })
})
