import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { describe, expect, it, vi } from 'vitest'
import { DraftField } from './DraftField'
import { EditableText } from './EditableText'

/** A number from 1 to 9 as its owner keeps it. */
function Digit() {
  const [digit, setDigit] = useState(5)
  const take = (text: string): boolean => {
    const fits = /^[1-9]$/.test(text)
    if (fits) setDigit(Number(text))
    return fits
  }
  return (
    <>
      <DraftField label="Digit" text={String(digit)} onCommit={take} />
      <output>{digit}</output>
    </>
  )
}

describe('a field', () => {
  it('hands on at once what can be taken', async () => {
    const user = userEvent.setup()
    render(<Digit />)
    const field = screen.getByLabelText<HTMLInputElement>('Digit')
    await user.clear(field)
    await user.type(field, '7')
    expect(screen.getByRole('status').textContent).toBe('7')
    expect(field.getAttribute('aria-invalid')).toBe('false')
  })

  it('keeps what cannot be taken until it is left, marked, and changes nothing', async () => {
    const user = userEvent.setup()
    render(<Digit />)
    const field = screen.getByLabelText<HTMLInputElement>('Digit')
    await user.type(field, 'x')
    expect(field.value).toBe('5x')
    expect(field.getAttribute('aria-invalid')).toBe('true')
    expect(screen.getByRole('status').textContent).toBe('5')
    await user.tab()
    expect(field.value).toBe('5')
    expect(field.getAttribute('aria-invalid')).toBe('false')
  })
})

describe('a text that can be edited', () => {
  it.each([
    ['{Enter}', ['hook 2']],
    ['{Escape}', []],
  ])('ends with %s', async (key, committed) => {
    const user = userEvent.setup()
    const taken = vi.fn()
    render(<EditableText label="Name" text="hook" onCommit={taken} />)
    await user.click(screen.getByRole('button', { name: 'Name: hook. Rename' }))
    await user.keyboard(`hook 2${key}`)
    expect(taken.mock.calls.flat()).toEqual(committed)
    expect(screen.queryByRole('textbox')).toBeNull()
  })
})
