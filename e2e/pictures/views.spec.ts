import { join } from 'node:path'
import { expect, test } from '../desk'
import { choose } from '../tests/choose'
import { LedgerPage } from '../tests/ledgerPage'

const picture = (name: string): string => join(import.meta.dirname, '../../docs/screenshots', `${name}.png`)

test('trade-offs', async ({ page }) => {
  test.setTimeout(600_000)
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await page.getByRole('link', { name: 'trade-offs' }).click()
  const form = page.getByRole('region', { name: 'New search' })
  await form.getByLabel('Values of Layer height').fill('0.12 to 0.28 by 0.02')
  await form.getByRole('button', { name: 'Search', exact: true }).click()
  await expect(page.getByText(/^Done/)).toBeVisible({ timeout: 500_000 })
  await page.getByRole('button', { name: /^Smoothest/ }).click()
  await page.mouse.move(640, 780)
  await page.screenshot({ path: picture('trade-offs') })
})

test('layers of two candidates', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await page.getByRole('link', { name: 'layers' }).click()
  await choose(page.getByLabel('Beside'), { label: 'quick' })
  await choose(page.getByLabel('Coloured by'), 'limiter')
  await expect(page.getByRole('img', { name: /^Drawing of quick/ })).toBeVisible({ timeout: 60_000 })
  const drawing = page.getByRole('group', { name: /^quick, layer/ })
  await drawing.focus()
  for (let i = 0; i < 30; i++) await page.keyboard.press('ArrowLeft')
  await page.waitForTimeout(1000)
  await page.screenshot({ path: picture('layers') })
})

test('surface of two candidates', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await page.getByRole('link', { name: 'surface' }).click()
  await choose(page.getByLabel('Beside'), { label: 'quick' })
  await expect(page.getByRole('img', { name: /^quick wearing/ })).toBeVisible({ timeout: 60_000 })
  await page.waitForTimeout(1500)
  const box = (await page.getByRole('img', { name: /^everyday wearing/ }).boundingBox())!
  for (const dx of [0, 3]) await page.mouse.move(box.x + box.width * 0.45 + dx, box.y + box.height * 0.66)
  await page.waitForTimeout(1000)
  await page.screenshot({ path: picture('surface') })
})

test('load', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await page.getByRole('link', { name: 'load' }).click()
  await choose(page.getByLabel('Beside'), { label: 'quick' })
  await expect(page.getByRole('region', { name: 'Solved', exact: true }).getByText(/move it by 1 mm/)).toHaveCount(2, { timeout: 90_000 })
  await expect(page.getByText(/^Under 40 N/)).toBeVisible()
  await page.waitForTimeout(1500)
  await page.screenshot({ path: picture('load') })
})
