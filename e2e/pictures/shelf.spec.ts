import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { LedgerPage } from '../tests/ledgerPage'

const picture = (name: string): string => join(import.meta.dirname, '../../docs/screenshots', `${name}.png`)

test('a spool', async ({ page }) => {
  await page.goto('/shelf/spools/storm-black')
  await expect(page.getByRole('article')).toBeVisible()
  await page.screenshot({ path: picture('spool') })
})

test('one profile on each printer', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await ledger.menu(0, 'On each printer')
  await page
    .getByRole('row', { name: /^Dory 220 \d+ min/ })
    .getByRole('button', { name: 'Why' })
    .click()
  await expect(page.getByRole('dialog').getByText('…', { exact: true })).toHaveCount(0, { timeout: 30_000 })
  await page.screenshot({ path: picture('each-printer') })
})
