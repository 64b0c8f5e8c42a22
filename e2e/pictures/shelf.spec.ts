import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { LedgerPage } from '../tests/ledgerPage'

const picture = (name: string): string => join(import.meta.dirname, '../../docs/screenshots', `${name}.png`)

test('a spool', async ({ page }) => {
  await page.goto('/shelf/spools/storm-black')
  await expect(page.getByRole('article')).toBeVisible()
  await page.screenshot({ path: picture('spool') })
})

test('a printer tells its limits', async ({ page }) => {
  await page.addInitScript(() => localStorage.setItem('sable.theme', 'light'))
  await page.goto('/shelf/printers/dory')
  await page.getByRole('button', { name: 'Read limits …' }).click()
  await page
    .getByLabel('Text from the machine')
    .fill(
      'echo:  M201 X1000.00 Y1000.00 Z100.00 E5000.00\necho:  M203 X300.00 Y300.00 Z12.00 E50.00\necho:  M204 P1000.00 R1000.00 T1200.00\necho:  M205 B20000 S0 T0 J0.02',
    )
  await page.screenshot({ path: picture('printer-limits') })
})

test('every layer under a value', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await ledger.cell('nozzleTemperature', 0).click()
  await page.keyboard.press('Alt+Enter')
  await expect(page.getByText(/in \d+ columns? of/).first()).toBeVisible()
  await page.screenshot({ path: picture('layers-of-a-value') })
})

test('what another nozzle changes', async ({ page }) => {
  await page.addInitScript(() => localStorage.setItem('sable.theme', 'light'))
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await ledger.cell('nozzle', 0).dblclick()
  await page.getByRole('combobox', { name: 'Nozzle' }).selectOption('bore-0.6')
  await ledger.settled()
  await page.screenshot({ path: picture('another-nozzle') })
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
