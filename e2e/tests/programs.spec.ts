import { readFileSync } from 'node:fs'
import { expect, test } from '../desk'
import { LedgerPage, SMALL } from './ledgerPage'

test('overrides of a place change nothing until they are told to, then its figures, and can be undone', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(2, {}, SMALL)
  const before = await ledger.figures(1)
  await page.getByRole('button', { name: 'Overrides of sturdy' }).click()
  await page.getByRole('button', { name: 'Place', exact: true }).click()
  await page.getByRole('button', { name: 'Done' }).click()
  await ledger.settled()
  expect(await ledger.figures(1)).toEqual(before)
  await page.getByRole('button', { name: 'Overrides of sturdy' }).click()
  await page.getByRole('dialog').getByLabel('Speed').fill('50')
  await page.getByRole('button', { name: 'Done' }).click()
  await ledger.settled()
  expect(await ledger.value('time', 1).innerText()).not.toBe(before[0])
  await expect(page.getByRole('button', { name: 'Overrides of sturdy' })).toContainText('place 1')
  await page.reload()
  await ledger.settled()
  await expect(page.getByRole('button', { name: 'Overrides of sturdy' })).toContainText('place 1')
})

test('a candidate goes out as a program, and the program dropped in is timed on each printer', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1)
  const saving = page.waitForEvent('download')
  await ledger.menu(0, 'Export G-code')
  const saved = await saving
  expect(saved.suggestedFilename()).toBe('carry-hook-everyday.gcode')
  const path = await saved.path()
  expect(readFileSync(path, 'utf8')).toMatch(/^; Program by Sable Lantern[\s\S]*LOOK BEFORE RUNNING[\s\S]*G28/)
  await page.getByLabel('Model file').setInputFiles({ name: 'hook.gcode', mimeType: 'text/plain', buffer: readFileSync(path) })
  const dialog = page.getByRole('dialog', { name: 'hook.gcode' })
  const table = dialog.getByRole('table', { name: 'Time on each printer' })
  // On the printer that it was written for it takes what the ledger foretold.
  await expect(table.locator('tbody tr').first().locator('td').nth(1)).toHaveText(
    `${(await ledger.value('time', 0).innerText()).trim()} min`,
  )
  await expect(dialog).toContainText('45 layers')
  await dialog.getByRole('button', { name: 'Close' }).click()
  await expect(dialog).toHaveCount(0)
})
