import type { Locator, Page } from '../desk'

/** Chooses from a list by the id or the name of an option, as a person would: opens it, and presses the option. */
export async function choose(list: Locator, option: string | { readonly label: string }): Promise<void> {
  await list.click()
  const page: Page = list.page()
  const wanted =
    typeof option === 'string' ? page.locator(`[role=option][data-id="${option}"]`) : page.getByRole('option', { name: option.label })
  await wanted.click()
}
