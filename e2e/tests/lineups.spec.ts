import { readFileSync } from 'node:fs'
import { expect, test } from '../desk'
import { expectAccessible } from './accessible'
import { LedgerPage, SMALL } from './ledgerPage'
import { visit } from './visit'

test('the lineup goes out as CSV and as JSON, and the JSON comes in again', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(3, {}, SMALL)
  const figures = await ledger.figures(1)
  const exported = async (item: RegExp): Promise<string> => {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      (async () => {
        await page.getByRole('button', { name: 'Export' }).click()
        await page.getByRole('menuitem', { name: item }).click()
      })(),
    ])
    return readFileSync(await download.path(), 'utf8')
  }
  const csv = await exported(/^CSV/)
  // Spreadsheets know by its mark that it is Unicode.
  expect(csv.split('\r\n')[0]).toBe('\uFEFF,unit,everyday,sturdy,quick')
  expect(csv).toMatch(/^Time,s,\d+\.\d+,\d+\.\d+,\d+\.\d+$/m)
  expect(csv).toMatch(/^Walls,,3,5,2$/m)
  const json = await exported(/^JSON/)
  const address = page.url()
  await page.getByLabel('Lineup file').setInputFiles({ name: 'again.json', mimeType: 'application/json', buffer: Buffer.from(json) })
  await expect(page).not.toHaveURL(address)
  await ledger.settled()
  expect(await ledger.names()).toEqual(['everyday', 'sturdy', 'quick'])
  expect(await ledger.figures(1)).toEqual(figures)
  const broken = json.replace('"wallCount": 5', '"wallCount": 500')
  await page.getByLabel('Lineup file').setInputFiles({ name: 'broken.json', mimeType: 'application/json', buffer: Buffer.from(broken) })
  await expect(page.getByRole('alert')).toContainText('broken.json, candidate "sturdy", wallCount: 500 is not a possible walls.')
  await page.getByRole('button', { name: 'Lineups' }).click()
  const { pathname } = new URL(page.url())
  await page.getByRole('option', { name: 'Remove this lineup' }).click()
  // Gone at once, and brought back by a press.
  await page.getByRole('button', { name: 'Bring it back' }).click()
  await expect(page).toHaveURL((url) => url.pathname === pathname)
  await ledger.settled()
  expect(await ledger.figures(1)).toEqual(figures)
  await page.getByRole('button', { name: 'Lineups' }).click()
  await page.getByRole('option', { name: 'Remove this lineup' }).click()
  await expect(page.getByRole('button', { name: 'Bring it back' })).toBeVisible()
  await expect(page).toHaveURL((url) => url.pathname !== pathname && url.pathname.endsWith('/ledger'))
  // And long after the toast has gone, from the list of those removed.
  await page.reload()
  await ledger.settled()
  await page.getByRole('button', { name: 'Lineups' }).click()
  await page.getByRole('option', { name: 'Removed lineups …' }).click()
  const removed = page.getByRole('dialog', { name: 'Removed lineups' })
  await removed
    .getByRole('button', { name: /^Bring back/ })
    .first()
    .click()
  await expect(page).toHaveURL((url) => url.pathname === pathname)
  await ledger.settled()
  expect(await ledger.figures(1)).toEqual(figures)
})

test('two windows: the second write is told, shown both, and nothing is lost', async ({ context }) => {
  const [here, there] = [new LedgerPage(await context.newPage()), new LedgerPage(await context.newPage())]
  await here.openCopy(3, {}, SMALL)
  await there.open(here.page.url())
  await here.type('wallCount', 2, '4')
  await here.settled()
  await there.type('topLayers', 2, '9')
  const question = there.page.getByRole('alertdialog', { name: 'Changed in another window' })
  await expect(question).toBeVisible()
  await question.getByRole('button', { name: 'Take the other version' }).click()
  await expect(there.cell('wallCount', 2)).toContainText('4')
  await expect(there.cell('topLayers', 2)).toContainText('3')
  await there.page.keyboard.press('Control+z')
  await expect(there.cell('topLayers', 2)).toContainText('9')
  await there.type('topLayers', 2, '3')
  await there.type('wallCount', 2, '2')
  await there.settled()
})

test('an address that leads nowhere says so and leads back', async ({ page }) => {
  await page.goto('/bench/00000000-0000-4000-8000-000000000000/ledger')
  await expect(page.getByRole('heading')).toHaveText('There is no such lineup.')
  await page.getByRole('link', { name: 'Go to the bench' }).click()
  await expect(page.getByRole('grid')).toBeVisible()
})

test('a screen that cannot be loaded says so, in its own place, and offers to try again', async ({ page }) => {
  await page.route('**/assets/ShelfScreen-*.js', (route) => route.abort())
  await page.goto('/shelf/spools')
  await expect(page.getByRole('alert')).toContainText('This screen has met an error')
  await expect(page.getByRole('alert')).toContainText('What you typed is kept')
  await page.unroute('**/assets/ShelfScreen-*.js')
  await page.getByRole('button', { name: 'Reload the page' }).click()
  await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible()
})

test('the sheet has all candidates, four a page, and is printed once their figures are there', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(3, {}, SMALL)
  await ledger.menu(2, 'Duplicate')
  await ledger.menu(2, 'Duplicate')
  await ledger.settled()
  await visit(page, new URL(page.url()).pathname.replace('/ledger', '/sheet'))
  await expect(page.getByRole('button', { name: 'Print', exact: true })).toBeEnabled()
  await expect(page.getByRole('status').filter({ hasText: '2 upright A4 pages' })).toBeVisible()
  const sheets = page.locator('.sheet')
  await expect(sheets).toHaveCount(2)
  await expect(sheets.nth(0)).toContainText('A everyday')
  await expect(sheets.nth(1)).toContainText('page 2 of 2')
  await expect(sheets.nth(1).getByRole('columnheader', { name: /^E quick/ })).toBeVisible()
  await expect(sheets.nth(1)).not.toContainText('…')
  await expectAccessible(page)
})
