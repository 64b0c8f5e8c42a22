import { screen } from '@testing-library/react'
import type { UserEvent } from '@testing-library/user-event'

/** Chooses from a list as a person would: opens it, and presses an option by its name. */
export async function choose(user: UserEvent, list: string, option: string | RegExp): Promise<void> {
  await user.click(screen.getByRole('combobox', { name: list }))
  await user.click(screen.getByRole('option', { name: option }))
}

/** Names of what a list offers. It is closed again. */
export async function offeredBy(user: UserEvent, list: string): Promise<string[]> {
  await user.click(screen.getByRole('combobox', { name: list }))
  const names = screen.getAllByRole('option').map((option) => option.textContent ?? '')
  await user.keyboard('{Escape}')
  return names
}
