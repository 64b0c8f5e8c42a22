import { expect, type Page, test } from '../desk'
import { choose } from './choose'
import { LedgerPage, SMALL } from './ledgerPage'

/** Few steps between the two, since each is computed. */
const few = { everyday: { wallCount: 3, infillDensity: 15 }, sturdy: { wallCount: 5, infillDensity: 25, topLayers: 5 } }

/** The trail from everyday to sturdy, computed. */
async function openTrail(page: Page): Promise<LedgerPage> {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(2, few, SMALL)
  await page.getByRole('link', { name: 'steps' }).click()
  await computed(page)
  return ledger
}
const computed = async (page: Page): Promise<void> => {
  await expect(page.locator('[data-step]').first()).toBeVisible()
  await expect(page.getByRole('region', { name: 'Steps' }).locator('.animate-pulse')).toHaveCount(0)
}
const steps = (page: Page) => page.locator('[data-step]')
const names = (page: Page): Promise<string[]> => steps(page).evaluateAll((rows) => rows.map((row) => row.getAttribute('data-step') ?? ''))
const row = (page: Page, id: string) => page.locator(`[data-step=${id}]`)

test('a trail begins and ends at the two candidates’ own figures, in the order of common practice', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(2, few)
  const [from, to] = [await ledger.value('time', 0).innerText(), await ledger.value('time', 1).innerText()]
  await page.getByRole('link', { name: 'steps' }).click()
  await computed(page)
  await expect(page.getByRole('row', { name: new RegExp(`^everyday ${from} min`) })).toBeVisible()
  await expect(page.getByRole('row', { name: new RegExp(`^sturdy ${to} min`) })).toBeVisible()
  expect((await names(page)).slice(0, 2)).toEqual(['infillDensity', 'wallCount'])
  await expect(row(page, 'wallCount')).toContainText('3 → 5')
  await expect(row(page, 'wallCount')).toContainText(/\+[\d.]+ min\s*\+\d+ %/)
  // First by sections; then each step's load is solved, all at once.
  await expect(page.getByText('strength solved', { exact: true })).toBeVisible()
  await expect(row(page, 'wallCount')).toContainText(/\+[\d.]+ N/)
  await expect(page.getByText(new RegExp(`From ${from} min to ${to} min: infill density 15 to 25 %`))).toBeVisible()
})

test('a step is switched off, which makes another candidate, and the address keeps it', async ({ page }) => {
  const ledger = await openTrail(page)
  await page.getByRole('checkbox', { name: 'Take the step walls' }).click()
  await expect(page.getByText(/sturdy, \d+ of \d+ steps/)).toBeVisible()
  await page.reload()
  await expect(page.getByRole('checkbox', { name: 'Take the step walls' })).not.toBeChecked()
  await page.getByRole('button', { name: 'As a candidate' }).click()
  await ledger.settled()
  expect(await ledger.names()).toEqual(['everyday', 'sturdy', 'sturdy 2'])
  await expect(ledger.cell('wallCount', 2)).toContainText('3')
  await expect(ledger.cell('infillDensity', 2)).toContainText('25')
})

test('steps are moved by keys, and sorted by what each gains', async ({ page }) => {
  await openTrail(page)
  const before = await names(page)
  await page.getByRole('button', { name: /^Move infill density/ }).focus()
  await page.keyboard.press('ArrowDown')
  await expect.poll(() => names(page)).toEqual([before[1], before[0], ...before.slice(2)])
  await choose(page.getByLabel('Measured by'), 'strength')
  await page.getByRole('button', { name: 'Most gain first' }).click()
  await expect(page.getByRole('button', { name: 'Most gain first' })).toBeVisible()
  // Of all these steps two walls more strengthen a hook most.
  await expect.poll(async () => (await names(page))[0]).toBe('wallCount')
})

test('equal candidates have no steps, and one candidate has none to lead to', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1, {}, SMALL)
  await ledger.menu(0, 'Duplicate')
  await page.getByRole('link', { name: 'steps' }).click()
  await expect(page.getByText(/say the same/)).toBeVisible()
})
