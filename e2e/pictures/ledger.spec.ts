import { join } from 'node:path'
import { expect, test } from '../desk'
import { choose } from '../tests/choose'
import { LedgerPage } from '../tests/ledgerPage'

const picture = (name: string): string => join(import.meta.dirname, '../../docs/screenshots', `${name}.png`)

test('the ledger as it opens', async ({ page }) => {
  await new LedgerPage(page).open('/')
  await page.screenshot({ path: picture('ledger-dark') })
})

test('the paper theme, four candidates', async ({ page }) => {
  await page.addInitScript(() => localStorage.setItem('sable.theme', 'light'))
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await ledger.menu(1, 'Duplicate')
  await ledger.settled()
  await ledger.type('layerHeight', 2, '0.28')
  await ledger.settled()
  // New figures fade in.
  await page.screenshot({ animations: 'disabled', path: picture('ledger-light') })
})

test('why a figure is what it is, and what would move it', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await ledger.value('strength', 0).click()
  await page.getByRole('button', { name: 'Try single changes' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'Computing' })).toHaveCount(0, { timeout: 60_000 })
  await expect(page.getByRole('dialog').getByRole('status')).toHaveCount(0, { timeout: 60_000 })
  await page.screenshot({ path: picture('why') })
})

test('steps from one candidate to another', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await page.getByRole('link', { name: 'steps' }).click()
  await choose(page.getByLabel('To candidate'), { label: 'quick' })
  await expect(page.getByRole('region', { name: 'Steps' }).locator('.animate-pulse')).toHaveCount(0, { timeout: 60_000 })
  await expect(page.getByText('strength solved', { exact: true })).toBeVisible({ timeout: 90_000 })
  await page.screenshot({ path: picture('steps') })
})
