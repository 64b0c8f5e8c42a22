import { readFileSync } from 'node:fs'
import { expect, test } from '../desk'
import { expectAccessible } from './accessible'
import { LedgerPage } from './ledgerPage'

test('a fault is worked from a column: asked, weighed, tried one change at a time, closed, passed on', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1)
  const bench = page.url()
  await page.getByRole('button', { name: 'Actions for everyday' }).click()
  await page.getByRole('menuitem', { name: /^What went wrong/ }).click()
  await expect(page.getByLabel('Candidate', { exact: true })).toContainText('everyday')
  await page
    .getByRole('region', { name: 'New case' })
    .getByRole('button', { name: /Strings/ })
    .click()
  const causes = page.getByRole('region', { name: 'Causes' })
  const first = causes.getByRole('button').first()
  await expect(first).toBeVisible({ timeout: 60_000 })
  await expectAccessible(page)

  // What only a person can tell moves the odds, and can be taken back.
  const questions = page.getByRole('region', { name: 'Questions' })
  const asked = await questions.locator('p').first().innerText()
  const before = await causes.innerText()
  await questions.getByRole('button').first().click()
  await expect.poll(() => causes.innerText()).not.toBe(before)
  await questions.getByRole('button', { name: /^Take the answer back/ }).click()
  await expect.poll(() => causes.innerText()).toBe(before)
  expect(asked).toContain('would tell most')

  // One thing at a time, with what else it does; what did nothing is ruled out and not offered again.
  const next = page.getByRole('region', { name: 'Next' })
  const words = await next.locator('p').first().innerText()
  await expect(next.getByRole('status')).toHaveCount(0, { timeout: 60_000 })
  await next.getByRole('button', { name: 'I try this' }).click()
  await expect(next).toContainText('One thing at a time')
  await page.getByRole('group', { name: 'What came of try 1' }).getByRole('button', { name: 'the same' }).click()
  await expect(causes.getByText('ruled out')).toHaveCount(1)
  await expect(next.locator('p').first()).not.toHaveText(words)

  // The change becomes a column beside the one that failed.
  await next.getByRole('button', { name: 'As a column' }).click()
  await expect(page).toHaveURL(bench)
  await ledger.settled()
  expect(await ledger.names()).toHaveLength(2)

  await page.goto('/faults')
  await page
    .getByRole('button', { name: /Strings carry hook/ })
    .first()
    .click()
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Markdown' }).click()])
  const text = readFileSync(await file.path()).toString()
  expect(text).toContain('# Strings: carry hook, everyday')
  expect(text).toContain('| the same |')
  await page.getByLabel('What it was').fill('It was the wipe.')
  await page.getByRole('button', { name: 'Close the case' }).click()
  await expect(page.getByRole('region', { name: 'Found' })).toContainText('It was the wipe.')
  await page.reload()
  await expect(page.getByRole('region', { name: 'Found' })).toContainText('It was the wipe.')
})

test('from a height of the layers a case begins at that height', async ({ page }) => {
  await new LedgerPage(page).openCopy(1)
  await page.getByRole('link', { name: 'layers' }).click()
  await page.getByRole('button', { name: 'Go to' }).click({ timeout: 60_000 })
  await page.getByRole('menuitem', { name: /^What went wrong here/ }).click()
  await expect(page.getByRole('region', { name: 'New case' }).getByLabel('Seen at')).toHaveValue(/^\d+\.?\d*$/)
  await page
    .getByRole('region', { name: 'New case' })
    .getByRole('button', { name: /Gaps and dull patches/ })
    .click()
  await expect(page.getByRole('region', { name: 'Causes' })).toContainText(/melt load \d+ % at \d/, { timeout: 60_000 })
})

test('the workshop’s cases are there; an open one tells how often a fault must be gone; the place is accessible in both themes', async ({
  page,
}) => {
  await page.goto('/faults')
  const cases = page.getByRole('region', { name: 'Cases' })
  await expect(cases.getByRole('button', { name: /A band of split layers/ })).toBeVisible()
  await cases.getByRole('button', { name: /A band of split layers/ }).click()
  await expect(page.getByRole('region', { name: 'Causes' })).toBeVisible({ timeout: 60_000 })
  await page.getByRole('group', { name: 'What came of try 1' }).getByRole('button', { name: 'gone' }).click()
  await expect(page.getByText(/counts as gone after 3 prints in a row/)).toBeVisible()
  // What is deleted comes back with one press.
  await page.getByRole('button', { name: 'Delete' }).click()
  await expect(cases.getByRole('button', { name: /A band of split layers/ })).toHaveCount(0)
  await page.getByRole('button', { name: 'Bring it back' }).click()
  await expect(cases.getByRole('button', { name: /A band of split layers/ })).toHaveCount(1)
  await page.getByRole('button', { name: 'Paper theme' }).click()
  await expectAccessible(page)
  await page.goto('/faults/new')
  await expect(page.getByRole('button', { name: /Steps on a curve/ })).toBeEnabled()
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Sable theme' }).click()
})
