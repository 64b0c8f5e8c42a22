import type { Check } from '@sable/core/checks/check'
import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { openLineup, useDesk } from '../../desk/deskStore'
import { candidateOf, lineupOf } from '../../testing/lineups'
import { Converters } from './Converters'
import { Risks } from './Risks'

describe('sums at the printer', () => {
  const number = (label: string, nth = 0): number => Number(screen.getAllByLabelText<HTMLInputElement>(label)[nth]!.value)
  const type = async (label: string, text: string, nth = 0): Promise<void> => {
    const field = screen.getAllByLabelText(label)[nth]!
    await user.clear(field)
    await user.type(field, text)
  }
  const user = userEvent.setup()

  it('follow each other, whichever is typed (CP-F1, CP-F11, CP-A2, common practice)', async () => {
    render(<Converters setup={undefined} cells={undefined} />)
    await user.click(screen.getByRole('button', { name: 'Convert' }))
    await type('the same mm/min', '3000')
    expect(number('Speed mm/s')).toBe(50)
    await type('Flow mm³/s', '8')
    expect(number('Speed mm/s', 1)).toBe(100)
    await type('Thickness mm', '1,6')
    expect(number('Walls')).toBe(4)
    await type('Length m', '335')
    expect(number('Filament g')).toBeGreaterThan(980)
    expect(number('Filament g')).toBeLessThan(1020)
  })

  it('tell what another body wants for the same heat, five to twenty degrees more for hardened steel (common practice)', async () => {
    render(<Converters setup={undefined} cells={undefined} />)
    await user.click(screen.getByRole('button', { name: 'Convert' }))
    await type('Set temperature, °C', '210')
    const told = screen.getByLabelText('Set temperature, °C').parentElement!
    const other = Number(told.querySelector('.figure:not(input)')!.textContent)
    expect(other).toBeGreaterThanOrEqual(215)
    expect(other).toBeLessThanOrEqual(230)
    await type('Set temperature, °C', 'warm')
    expect(told.querySelector('.figure:not(input)')!.textContent).toBe('–')
  })
})

describe('risks of a candidate', () => {
  const check = (id: string, severity: Check['severity'], more: Partial<Check> = {}): Check =>
    ({ id, severity, evidence: `${id} is so.`, means: '', todo: '', ...more }) as Check

  it('are counted by gravity, and none is said in words', () => {
    const candidate = candidateOf('one')
    const { rerender } = render(<Risks checks={[]} candidate={candidate} />)
    expect(screen.getByText('none found')).toBeTruthy()
    rerender(<Risks checks={[check('a', 'stop'), check('b', 'note'), check('c', 'note')]} candidate={candidate} />)
    expect(screen.getByRole('button').textContent).toBe('1 stop, 2 notes')
  })

  it('tell what they mean, where practitioners disagree, and are settled with one press', async () => {
    openLineup(lineupOf([candidateOf('one')]))
    const user = userEvent.setup()
    const candidate = useDesk.getState().content!.candidates[0]!
    const thin = check('thin', 'caution', {
      means: 'It will break.',
      school: 'Some print it all the same.',
      fix: { values: { wallCount: 4 } },
    })
    render(<Risks checks={[thin]} candidate={candidate} />)
    await user.click(screen.getByRole('button', { name: /1 caution/ }))
    const popover = await screen.findByRole('dialog', { name: 'Risks of one' })
    expect(popover.textContent).toContain('thin is so.It will break.')
    expect(popover.textContent).toContain('Practitioners disagree. Some print it all the same.')
    await user.click(screen.getByRole('button', { name: /^Take / }))
    expect(useDesk.getState().content!.candidates[0]!.values).toEqual({ wallCount: 4 })
  })
})
