import { act, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { openLineup, undo, useDesk } from '../../desk/deskStore'
import { choose, offeredBy } from '../../testing/choose'
import { BenchOn } from '../../testing/LedgerOnDesk'
import { candidateOf, lineupOf } from '../../testing/lineups'
import { OverridesDialog } from '../ledger/OverridesDialog'
import { PlacementForm } from '../part/PlacementForm'
import { PurposeForm } from '../part/PurposeForm'

const content = () => useDesk.getState().content!
let user: ReturnType<typeof userEvent.setup>
beforeEach(() => {
  openLineup(lineupOf())
  user = userEvent.setup()
})

describe('what a part is for', () => {
  const Form = () => <PurposeForm purpose={useDesk((desk) => desk.content!.purpose)} />

  it('is told by choices, and by limits in the units of a person', async () => {
    render(<Form />)
    await choose(user, 'What is it for?', 'load')
    await choose(user, 'Load', 'bend')
    await user.type(screen.getByLabelText(/Time at most/), '90')
    await user.type(screen.getByLabelText(/Bears at least/), '2,5')
    expect(content().purpose).toMatchObject({ kind: 'load', load: { kind: 'bend' }, limits: { maxTimeS: 5400, minLoadN: 2.5 } })
    await user.clear(screen.getByLabelText(/Time at most/))
    expect(content().purpose.limits).toEqual({ minLoadN: 2.5 })
  })

  it('refuses a limit of nothing, and leaves the one before', async () => {
    render(<Form />)
    const grams = screen.getByLabelText<HTMLInputElement>(/Filament at most/)
    await user.type(grams, '20')
    await user.clear(grams)
    await user.type(grams, '-3')
    expect(grams.getAttribute('aria-invalid')).toBe('true')
    expect(content().purpose.limits.maxMassG).toBeUndefined()
  })

  it('asks for angles only where the load follows no axis', async () => {
    render(<Form />)
    expect(screen.queryByLabelText(/Up from the bed/)).toBeNull()
    await choose(user, 'Along', /direction/)
    const up = screen.getByLabelText(/Up from the bed/)
    await user.clear(up)
    await user.type(up, '30')
    expect(content().purpose.load).toMatchObject({ axis: 'free', elevationDeg: 30 })
  })

  it('says that a predicted load is no rating', () => {
    render(<Form />)
    expect(screen.getByText(/never a rating/)).toBeTruthy()
  })
})

describe('how a part lies', () => {
  const Form = () => <PlacementForm placement={useDesk((desk) => desk.content!.placement)} onCompare={() => {}} />

  it('is turned by angles and by quarters, which come round again', async () => {
    render(<Form />)
    const about = screen.getByLabelText(/^Turn about x/)
    await user.clear(about)
    await user.type(about, '45')
    for (let i = 0; i < 4; i++) await user.click(screen.getByRole('button', { name: 'Turn a quarter about z' }))
    expect(content().placement.rotateDeg).toEqual([45, 0, 0])
    await user.click(screen.getByRole('button', { name: 'As modelled' }))
    expect(content().placement).toEqual({ scale: 1, rotateDeg: [0, 0, 0] })
  })

  it('is scaled from inches, and never to nothing', async () => {
    render(<Form />)
    await user.click(screen.getByRole('button', { name: 'Inches to mm' }))
    expect(content().placement.scale).toBe(25.4)
    const scale = screen.getByLabelText(/^Scale/)
    await user.clear(scale)
    await user.type(scale, '0')
    expect(screen.getByText('Give a number above 0, up to 1000.')).toBeTruthy()
    expect(content().placement.scale).toBe(25.4)
    act(undo)
    expect(content().placement.scale).toBe(1)
  })
})

describe('overrides', () => {
  const Dialog = ({ onClose = () => {} }) => {
    const lineup = useDesk((desk) => desk.content!)
    return (
      <BenchOn content={lineup}>
        <OverridesDialog candidate={lineup.candidates[0]!} onClose={onClose} />
      </BenchOn>
    )
  }

  it('begin as half speed from the bed on, and are undone', async () => {
    render(<Dialog />)
    await user.click(screen.getByRole('button', { name: 'Place' }))
    expect(content().candidates[0]!.overrides).toEqual([{ name: 'place 1', fromZ: 0, values: {} }])
    act(undo)
    expect(content().candidates[0]!.overrides).toEqual([])
  })

  it('in a box offer what can differ there, and no more', async () => {
    render(<Dialog />)
    await user.click(screen.getByRole('button', { name: 'Place' }))
    await choose(user, 'Add a setting', 'Layer height')
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Only in a box' }).disabled).toBe(true)
    await user.click(screen.getByRole('button', { name: 'Give Layer height back' }))
    await user.click(screen.getByRole('button', { name: 'Only in a box' }))
    const offered = await offeredBy(user, 'Add a setting')
    expect(offered).toContain('Walls')
    expect(offered).not.toContain('Layer height')
    expect(offered).toContain('Supports')
    expect(offered).not.toContain('Skirt')
    await choose(user, 'Add a setting', 'Walls')
    const walls = screen.getByLabelText('Walls')
    await user.clear(walls)
    await user.type(walls, '7')
    expect(content().candidates[0]!.overrides[0]).toMatchObject({ box: { minX: -10 }, values: { wallCount: 7 } })
  })

  it('keep their last possible extent while an impossible one is typed', async () => {
    render(<Dialog />)
    await user.click(screen.getByRole('button', { name: 'Place' }))
    const top = screen.getByLabelText('To height')
    await user.type(top, '8')
    expect(content().candidates[0]!.overrides[0]).toMatchObject({ fromZ: 0, toZ: 8 })
    await user.type(top, 'x')
    expect(top.getAttribute('aria-invalid')).toBe('true')
    expect(content().candidates[0]!.overrides[0]).toMatchObject({ toZ: 8 })
  })

  it('are removed one by one, and the dialog is closed', async () => {
    openLineup(lineupOf([candidateOf('one', {}, { overrides: [{ name: 'tip', fromZ: 5, speedPercent: 60, values: {} }] })]))
    const closed = vi.fn()
    render(<Dialog onClose={closed} />)
    await user.click(screen.getByRole('button', { name: 'Remove tip' }))
    expect(screen.getByText('The same values hold everywhere.')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Done' }))
    expect(closed).toHaveBeenCalledOnce()
  })

  it('with a picture have its speeds and how often it goes round; laid on they get a box, and it is taken away', async () => {
    const picture = { columns: 2, rows: 1, greys: '0f', lay: 'wrapped' as const, times: 1, darkSpeed: 30, lightSpeed: 90 }
    openLineup(lineupOf([candidateOf('one', {}, { overrides: [{ name: 'sign', fromZ: 0, toZ: 8, values: {}, picture }] })]))
    render(<Dialog />)
    const own = () => content().candidates[0]!.overrides[0]!
    const light = screen.getByLabelText('White at')
    await user.clear(light)
    await user.type(light, '0')
    expect(light.getAttribute('aria-invalid')).toBe('true')
    await user.clear(light)
    await user.type(light, '120')
    await user.type(screen.getByLabelText('Times round'), '2')
    expect(own().picture).toMatchObject({ lightSpeed: 120, times: 12 })
    await user.click(screen.getByRole('button', { name: 'laid on the front' }))
    expect(own()).toMatchObject({ picture: { lay: 'laid' }, box: { minX: expect.any(Number) } })
    expect(screen.queryByLabelText('Times round')).toBeNull()
    // A picture has a height: it cannot be left without the one that it ends at.
    await user.clear(screen.getByLabelText('To height'))
    expect(own().toZ).toBe(8)
    await user.click(screen.getByRole('button', { name: 'Take the picture of sign away' }))
    expect(own().picture).toBeUndefined()
    act(undo)
    expect(own().picture).toBeDefined()
  })
})
