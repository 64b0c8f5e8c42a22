import type { Page } from '../desk'

/** Goes to another address of the application as its own links do: nothing is loaded or computed anew. */
export const visit = (page: Page, address: string): Promise<void> =>
  page.evaluate((to) => {
    history.pushState(null, '', to)
    dispatchEvent(new PopStateEvent('popstate'))
  }, address)
