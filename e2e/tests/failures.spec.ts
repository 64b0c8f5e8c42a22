import { expect, test } from '../desk'
import { LedgerPage, SMALL } from './ledgerPage'

test('the database killed in the middle of an edit: what was typed is kept and saved once it is back', async ({ page, desk }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1, {}, SMALL)
  expect(desk.kill('database')).toBe(true)
  await ledger.type('bottomLayers', 0, '11')
  await ledger.type('topLayers', 0, '12')
  await expect(ledger.cell('topLayers', 0)).toContainText('12')
  // The start script brings the database back by itself.
  await ledger.settled()
  await page.reload()
  await ledger.settled()
  await expect(ledger.cell('bottomLayers', 0)).toContainText('11')
  await expect(ledger.cell('topLayers', 0)).toContainText('12')
})

test('the server killed and the page reloaded before it was back: what was typed is still there', async ({ page, desk }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1, {}, SMALL)
  expect(desk.kill('server')).toBe(true)
  await ledger.type('bottomLayers', 0, '4')
  await ledger.type('topLayers', 0, '5')
  await expect(async () => {
    await page.reload()
    await expect(page.getByRole('grid')).toBeVisible()
  }).toPass()
  await ledger.settled()
  await expect(ledger.cell('bottomLayers', 0)).toContainText('4')
  await expect(ledger.cell('topLayers', 0)).toContainText('5')
})
