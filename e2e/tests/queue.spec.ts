import { readFileSync } from 'node:fs'
import { expect, test } from '../desk'
import { expectAccessible } from './accessible'
import { LedgerPage } from './ledgerPage'

test('the fair is planned: bars with their ends, moved and begun by keyboard, undone, taken along', async ({ page }) => {
  await page.goto('/queue')
  const lanes = page.getByRole('group', { name: 'Lanes' })
  const bars = lanes.getByRole('button')
  await expect(page.getByRole('region', { name: 'The plan' })).toContainText(/All is done by .* no plan ends before/)
  await expect(bars).toHaveCount(16)
  await expect(page.getByRole('region', { name: 'Reels' })).toContainText(/will not last: \d+ g are wanted/)
  await expect(page.getByRole('region', { name: 'What if' })).toContainText(/Dory 220 is away.*cannot be printed/s)
  await expectAccessible(page)

  // A bar moves to the next printer where one of its ways is for that one, and back.
  const hook = lanes.getByRole('button', { name: /^carry hook, sturdy, for the gate on Lugger/ })
  await hook.focus()
  await page.keyboard.press('Alt+ArrowUp')
  await expect(lanes.getByRole('button', { name: /^carry hook, sturdy, for the gate on Dory/ })).toBeVisible()
  await page.getByRole('button', { name: /^Undo: .*moved/ }).click()
  await expect(hook).toBeVisible()
  // Where none is, it says what would do.
  await lanes.getByRole('button', { name: /^carry hook in amber on Cutter/ }).focus()
  await page.keyboard.press('Alt+ArrowUp')
  await expect(page.getByRole('alert')).toContainText(/was never foretold for Lugger 250.*put a column for Lugger 250/)

  // It is taken along as a calendar and as rows.
  const [calendar] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Calendar' }).click()])
  const text = readFileSync(await calendar.path()).toString()
  expect(text).toMatch(/^BEGIN:VCALENDAR\r\n/)
  expect(text.match(/SUMMARY:(Dory|Lugger|Cutter) \d+: /g)).toHaveLength(16)
  const [csv] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'CSV' }).click()])
  expect(
    readFileSync(await csv.path())
      .toString()
      .trim()
      .split('\r\n'),
  ).toHaveLength(17)

  // What is begun stands in the log, keeps its printer busy, and is out of the plan.
  const amber = lanes.getByRole('button', { name: /^carry hook in amber on Cutter/ })
  await amber.focus()
  await page.keyboard.press('Enter')
  await page.getByRole('region', { name: 'Picked' }).getByRole('button', { name: 'It starts now' }).click()
  await expect(bars).toHaveCount(15)
  await expect(page.getByRole('row', { name: /carry hook in amber/ })).toContainText('1 running')
  await page.goto('/log')
  await page.getByRole('option', { name: /running carry hook sturdy Cutter/ }).click()
  await expect(page.getByRole('article', { name: 'Print of carry hook' })).toContainText('running')
})

test('copies, deadlines and hours move the plan; a column of the bench goes into the queue', async ({ page }) => {
  await page.goto('/queue')
  const lanes = page.getByRole('group', { name: 'Lanes' })
  await expect(lanes.getByRole('button').first()).toBeVisible()
  const before = await lanes.getByRole('button').count()
  await page.getByLabel('Copies of finial, spare').fill('3')
  await page.keyboard.press('Enter')
  await expect(lanes.getByRole('button')).toHaveCount(before + 2)
  await page.getByLabel('shade, amber is wanted by').fill('2026-01-01T09:00')
  await expect(page.getByRole('region', { name: 'The plan' })).toContainText('Late: shade, amber')
  // Another window changes something else meanwhile: both stand.
  const other = await page.context().newPage()
  await other.goto(page.url())
  await other.getByLabel('Copies of finial without a brim').fill('2')
  await other.keyboard.press('Enter')
  await expect(other.getByRole('group', { name: 'Lanes' }).getByRole('button')).toHaveCount(before + 3)
  await page.getByLabel('Copies of carry hook to show').fill('2')
  await page.keyboard.press('Enter')
  await expect(lanes.getByRole('button')).toHaveCount(before + 4)
  await other.close()

  // And so it stands on paper, day by day.
  await page.getByRole('link', { name: 'page to print' }).click()
  await expect(page.getByRole('region', { name: 'Day sheet' }).getByRole('row', { name: /shade for the stand/ })).toContainText(
    'Lugger 250',
  )
  await expectAccessible(page)
  await page.goBack()
  await page.getByRole('checkbox', { name: 'away' }).first().click()
  await expect(lanes).not.toContainText('Dory 220')

  await new LedgerPage(page).openCopy(1)
  await page.getByRole('button', { name: 'Actions for everyday' }).click()
  await page.getByRole('menuitem', { name: /^Print it/ }).click()
  await page.getByRole('button', { name: 'Into the queue' }).click()
  await expect(page).toHaveURL(/\/queue\//)
  await expect(page.getByRole('row', { name: /carry hook, everyday/ }).first()).toBeVisible()
  await page.getByRole('button', { name: 'Paper theme' }).click()
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Sable theme' }).click()
})

test('a new queue says how it is filled; one that is deleted comes back with one press', async ({ page }) => {
  await page.goto('/queue')
  await page.getByRole('button', { name: 'New queue' }).click()
  await expect(page.getByText(/No job yet. On the bench/)).toBeVisible()
  await page.getByRole('button', { name: 'Delete' }).click()
  await expect(page.getByText(/No job yet. On the bench/)).toHaveCount(0)
  await page.getByRole('button', { name: 'Bring it back' }).click()
  await expect(page.getByRole('combobox', { name: 'Queue' })).toBeVisible()
})
