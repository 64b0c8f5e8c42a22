import { readFileSync } from 'node:fs'
import { expect, test } from '@playwright/test'
import { LedgerPage } from './ledgerPage'

test('the lineup goes out as CSV and as JSON, and the JSON comes in again', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
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
  expect(csv.split('\r\n')[0]).toBe(',unit,everyday,sturdy,quick')
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
  await page.getByRole('menuitem', { name: 'Remove this lineup' }).click()
  await page.getByRole('alertdialog').getByRole('button', { name: 'Remove', exact: true }).click()
  await expect(page).toHaveURL(/\/ledger$/)
  await ledger.settled()
})

test('two windows: the second write is told, shown both, and nothing is lost', async ({ context }) => {
  const [here, there] = [new LedgerPage(await context.newPage()), new LedgerPage(await context.newPage())]
  await here.openCopy()
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
