import { expect, test } from '../desk'
import { expectAccessible } from './accessible'
import { choose } from './choose'
import { LedgerPage } from './ledgerPage'

test('a search runs on the server, is paused and goes on, and a point of it becomes a column', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1)
  await page.getByRole('link', { name: 'trade-offs' }).click()
  const form = page.getByRole('region', { name: 'New search' })
  await expectAccessible(page)
  await form.getByLabel('Values of Layer height').fill('0.2, thick')
  await expect(form.getByText('"thick" is no number.')).toBeVisible()
  await expect(form.getByRole('button', { name: 'Search', exact: true })).toBeDisabled()
  await form.getByLabel('Values of Layer height').fill('0.16, 0.24')
  await form.getByLabel('Values of Infill density').fill('15, 30')
  await form.getByRole('button', { name: 'Let Outer wall speed be' }).click()
  await expect(form.getByText('All 16 variants are tried.')).toBeVisible()
  await form.getByRole('button', { name: 'Search', exact: true }).click()

  await expect(page.getByText(/^Searching|^Waiting/)).toBeVisible()
  await page.getByRole('button', { name: 'Pause' }).click()
  await expect(page.getByText('Paused')).toBeVisible()
  await page.getByRole('button', { name: 'Go on' }).click()
  await expect(page.getByText(/^Done/)).toBeVisible()
  await expect(page.getByRole('img', { name: /^16 variants by Time and Surface Ra; \d+ of them are on the front/ })).toBeVisible()
  await expect(page.getByText(/\d+ % of stages reused/)).toBeVisible()

  // Under an hour and 40 N, as the part's purpose says; a stricter limit leaves fewer.
  const meeting = page.getByText(/of 16 meet all/)
  const before = Number.parseInt(await meeting.innerText(), 10)
  await choose(page.getByLabel('Up', { exact: true }), 'strength')
  const limit = page.getByRole('slider', { name: 'Limit of Strength' })
  await limit.focus()
  for (let i = 0; i < 30; i++) await page.keyboard.press('ArrowUp')
  await expect.poll(async () => Number.parseInt(await meeting.innerText(), 10)).toBeLessThan(before)
  await page.keyboard.press('Delete')

  await page.getByRole('button', { name: /^Strongest/ }).click()
  await expect(page).toHaveURL(/variant=\d+/)
  const panel = page.getByRole('complementary', { name: 'Variants' })
  await expect(panel.locator('dl').first().getByText('5', { exact: true })).toHaveCount(1)
  await panel.getByRole('button', { name: 'As a column' }).click()
  await ledger.settled()
  expect(await ledger.names()).toEqual(['everyday', 'everyday 2'])
  await expect(ledger.cell('wallCount', 1)).toContainText('5')
})
