import { act, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { IconButton } from './Button'
import { Hints } from './Hints'

beforeEach(() => vi.useFakeTimers())
afterEach(() => vi.useRealTimers())

function open(): HTMLElement {
  render(
    <>
      <IconButton label="Weigh the reel">g</IconButton>
      <p>elsewhere</p>
      <Hints />
    </>,
  )
  return screen.getByRole('button', { name: 'Weigh the reel' })
}
const rest = (on: Element): void => {
  fireEvent.pointerOver(on, { pointerType: 'mouse' })
  act(() => void vi.advanceTimersByTime(600))
}

it('shows what a thing is once a pointer rests on it, describes it by that, and goes when the pointer does', () => {
  const button = open()
  fireEvent.pointerOver(button, { pointerType: 'mouse' })
  expect(screen.queryByRole('tooltip')).toBeNull()
  act(() => void vi.advanceTimersByTime(600))
  expect(screen.getByRole('tooltip').textContent).toContain('Weigh the reel')
  expect(button.getAttribute('aria-describedby')).toBeTruthy()
  rest(screen.getByText('elsewhere'))
  expect(screen.queryByRole('tooltip')).toBeNull()
  expect(button.getAttribute('aria-describedby')).toBeNull()
})

it('goes with any key and any press, so that it never stands before what is done', () => {
  const button = open()
  rest(button)
  fireEvent.keyDown(button, { key: 'Escape' })
  expect(screen.queryByRole('tooltip')).toBeNull()
  rest(button)
  fireEvent.pointerDown(button)
  expect(screen.queryByRole('tooltip')).toBeNull()
})

it('is not shown by a finger, which has no way to rest', () => {
  const button = open()
  fireEvent.pointerOver(button, { pointerType: 'touch' })
  act(() => void vi.advanceTimersByTime(600))
  expect(screen.queryByRole('tooltip')).toBeNull()
})
