import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { choose } from '../tests/choose'
import { LedgerPage } from '../tests/ledgerPage'

const picture = (name: string): string => join(import.meta.dirname, '../../docs/screenshots', `${name}.png`)

test('overrides of a candidate', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await page.getByRole('button', { name: 'Overrides of sturdy' }).click()
  const dialog = page.getByRole('dialog')
  const place = dialog.getByRole('button', { name: 'Place', exact: true })
  await place.click()
  await dialog.getByLabel('Name').fill('eye of the hook')
  await dialog.getByRole('button', { name: 'Only in a box' }).click()
  for (const [field, value] of [
    ['x from', '-8'],
    ['x to', '8'],
    ['y from', '24'],
    ['y to', '44'],
  ] as const)
    await dialog.getByLabel(field).fill(value)
  await choose(dialog.getByLabel('Add a setting'), 'infillDensity')
  await dialog.getByRole('textbox', { name: 'Infill density' }).fill('60')
  await place.click()
  const second = dialog.getByRole('listitem').nth(1)
  await second.getByRole('textbox', { name: 'Name' }).fill('last millimetre')
  await second.getByRole('textbox', { name: 'From height' }).fill('8')
  await second.getByRole('textbox', { name: 'Speed' }).fill('60')
  await page.screenshot({ path: picture('overrides') })
})

test('six orientations', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await page.getByRole('button', { name: 'Orientation and scale' }).click()
  await page.getByRole('button', { name: 'Compare six orientations' }).click()
  await expect(page.getByRole('table', { name: 'Six orientations' }).getByText('…')).toHaveCount(0, { timeout: 90_000 })
  await page.screenshot({ path: picture('orientations') })
})
