import { expect, test } from '../desk'
import { expectAccessible } from './accessible'
import { LedgerPage, SMALL } from './ledgerPage'

test('an entry is found by any word, tells usual values, and works out what a setting does', async ({ page }) => {
  await page.goto('/handbook')
  await page.getByLabel('Find in the handbook').fill('perimeter')
  await page
    .getByRole('link', { name: /^Walls/ })
    .first()
    .click()
  await expect(page.getByRole('article', { name: 'Walls' })).toContainText('add a wall before density')
  await expect(page.getByRole('figure', { name: 'What walls does' })).toContainText('Strength')
  await expectAccessible(page)
  await page.goto('/handbook/page/models')
  await expect(page.locator('.katex').first()).toBeVisible()
  await expectAccessible(page)
  await page.goto('/handbook/material/ABS')
  await expect(page.getByRole('article')).toContainText('no flame, spark or heat')
})

test('it opens beside a row, a figure and a key of the ledger', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1, {}, SMALL)
  await page.getByRole('button', { name: 'Layer height: what is it?', exact: true }).click()
  await expect(page.getByRole('dialog', { name: 'Layer height' })).toContainText('half the height, twice the layers')
  await page.keyboard.press('Escape')
  await ledger.cell('seam', 0).click()
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog', { name: 'Seam' })).toBeVisible()
  await page.keyboard.press('Escape')
  await ledger.figure('risks', 0).getByRole('button').click()
  await page
    .getByRole('button', { name: /^What is / })
    .first()
    .click()
  await expect(page.getByRole('dialog').last()).toBeVisible()
})

test('a school is chosen for one printer, and what follows says so', async ({ page }) => {
  await page.goto('/handbook/page/schools')
  const own = page.getByRole('region', { name: 'Your schools' })
  await own.getByRole('combobox', { name: 'Printer' }).click()
  await page.getByRole('option', { name: 'Lugger 250' }).click()
  await own
    .getByRole('group', { name: 'Fan on PLA' })
    .getByRole('button', { name: /nearly off/ })
    .click()
  await expect(own.getByRole('group', { name: 'Fan on PLA' }).getByRole('button', { name: /nearly off/ })).toHaveAttribute(
    'aria-pressed',
    'true',
  )
  await expectAccessible(page)
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1, {}, SMALL)
  await expect(ledger.cell('fanSpeed', 0)).toContainText('8')
  await expect(ledger.cell('fanSpeed', 0)).toContainText('from the school that you chose')
  await page.goto('/handbook/school/S1')
  await own.getByRole('combobox', { name: 'Printer' }).click()
  await page.getByRole('option', { name: 'Lugger 250' }).click()
  await own.getByRole('button', { name: /nearly off/ }).click()
  await expect(own.getByText('not chosen')).toBeVisible()
})

test('the palette goes anywhere, and the keys stand on a sheet', async ({ page }) => {
  await page.goto('/log')
  await expect(page.getByRole('navigation', { name: 'Places' })).toBeVisible()
  await page.keyboard.press('Control+k')
  await page.getByPlaceholder(/A place, lineup, part/).fill('strings')
  await expectAccessible(page)
  await page.getByRole('option', { name: 'Strings', exact: true }).first().click()
  await expect(page).toHaveURL(/\/handbook\/(figure|check)\/strings/)
  await page.keyboard.press('Control+k')
  await expect(page.getByText('Lately')).toBeVisible()
  await page.keyboard.press('Escape')
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('fill to the right')
  await expectAccessible(page)
})
