import { expect, test } from '../desk'
import { expectAccessible } from './accessible'
import { LedgerPage } from './ledgerPage'
import { visit } from './visit'

/** What somebody who chose it sees: the ledger, and a page of the shelf. */
test('both themes pass the accessibility rules of WCAG 2.2 AA', async ({ page }) => {
  await new LedgerPage(page).openCopy(2)
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Paper theme' }).click()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'light')
  await expectAccessible(page)
  await visit(page, '/shelf/printers/lugger')
  await expect(page.getByRole('article', { name: 'Lugger 250' })).toBeVisible()
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Sable theme' }).click()
  await visit(page, '/shelf/spools/storm-black')
  await expect(page.getByRole('article', { name: 'Storm black PLA' })).toBeVisible()
  await expectAccessible(page)
})
