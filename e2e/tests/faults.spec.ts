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
  await expect(first).toBeVisible()
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
  await expect(next.getByRole('status')).toHaveCount(0)
  await next.getByRole('button', { name: 'I try this' }).click()
  await expect(next).toContainText('One thing at a time')
  await page.getByRole('group', { name: 'What came of try 1' }).getByRole('button', { name: 'worse' }).click()
  await expect(causes.getByText('ruled out')).toHaveCount(1)
  await expect(next.locator('p').first()).not.toHaveText(words)

  // The change becomes a column beside the one that failed.
  await next.getByRole('button', { name: 'Wipe 1 mm' }).click()
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
  expect(text).toContain('| worse |')
  await page.getByLabel('What it was').fill('It was the wipe.')
  await page.getByRole('combobox', { name: 'It was' }).click()
  await page.getByRole('option', { name: 'The nozzle is not wiped before it leaves' }).click()
  await page.getByRole('button', { name: 'Close the case' }).click()
  const found = page.getByRole('region', { name: 'Found' })
  await expect(found).toContainText('It was the wipe.')
  await expect(found).toContainText('The nozzle is not wiped before it leaves')
  await page.reload()
  await expect(found).toContainText('It was the wipe.')

  // Passed on as a file it is a case again, with all that was told.
  const [json] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'JSON' }).click()])
  const bytes = readFileSync(await json.path())
  const cases = page.getByRole('region', { name: 'Cases', exact: true })
  const known = await cases.getByRole('listitem').count()
  await page.getByLabel('Case from a file').setInputFiles({ name: 'case.json', mimeType: 'application/json', buffer: bytes })
  await expect(cases.getByRole('listitem')).toHaveCount(known + 1)
  await expect(found).toContainText('It was the wipe.')
  await page
    .getByLabel('Case from a file')
    .setInputFiles({ name: 'no.json', mimeType: 'application/json', buffer: Buffer.from('{"format": 1}') })
  await expect(page.getByRole('alert')).toContainText(/format: This is no case/)
  await expect(cases.getByRole('listitem')).toHaveCount(known + 1)
})

test('what made it go away is kept on its layer by name, and that can be undone; the printer remembers', async ({ page }) => {
  // A case of a copy: what is kept in a column must not touch the lineups that other tests open.
  const server = page.request
  const cases = (await (await server.get('/api/cases')).json()) as {
    id: string
    fault: string
    lineup: string
    candidate: { id: string }
  }[]
  const { id: _, ...split } = cases.find(({ fault }) => fault === 'splitBand')!
  const { candidates, ...lineup } = await (await server.get(`/api/lineups/${split.lineup}`)).json()
  const failed = { ...candidates.find(({ id }: { id: string }) => id === split.candidate.id), id: crypto.randomUUID() }
  const answer = await server.post('/api/lineups', { data: { ...lineup, candidates: [failed] } })
  expect(answer.ok(), await answer.text()).toBe(true)
  const copy = await answer.json()
  const made = await (await server.post('/api/cases', { data: { ...split, lineup: copy.id, candidate: failed } })).json()
  // Who goes on faster than the server stores has not met another window.
  await page.route('**/api/cases/*', async (route) => {
    const answer = await route.fetch()
    await page.waitForTimeout(400)
    await route.fulfill({ response: answer })
  })
  await page.goto(`/faults/${made.id}`)
  await page.getByRole('group', { name: 'What came of try 1' }).getByRole('button', { name: 'gone' }).click()
  await page.getByLabel('What it was').fill('Too cold high up.')
  await page.getByRole('button', { name: 'Close the case' }).click()
  const keep = page.getByRole('region', { name: 'Found' }).getByRole('button', { name: /^Keep .*nozzle temperature 220 °C/ })
  await expect(keep).toBeVisible()
  await expect(page.getByRole('alert')).toHaveCount(0)
  await keep.click()
  const said = page.getByText(/^Kept .*nozzle temperature 220 °C/).last()
  await expect(said).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(keep).toBeEnabled()

  await page.goto('/shelf/printers')
  await page
    .getByRole('link', { name: /^Cutter/ })
    .first()
    .click()
  const had = page.getByRole('region', { name: /^Faults of Cutter/ })
  await had.getByRole('link').first().click()
  await expect(page).toHaveURL(/\/faults\/[0-9a-f-]{36}/)
  await server.delete(`/api/cases/${made.id}`)
  await server.delete(`/api/lineups/${copy.id}`)
})

test('a print of the log begins a case', async ({ page }) => {
  await page.goto('/log')
  await page
    .getByRole('option', { name: /good carry hook everyday/ })
    .first()
    .click()
  await page.getByRole('link', { name: /what went wrong/ }).click()
  await expect(page.getByRole('region', { name: 'New case' })).toContainText('The print of')
  await page
    .getByRole('region', { name: 'New case' })
    .getByRole('button', { name: /Strings/ })
    .click()
  await expect(page.getByRole('region', { name: 'Causes' })).toBeVisible()
})

test('from a height of the layers a case begins at that height', async ({ page }) => {
  await new LedgerPage(page).openCopy(1)
  await page.getByRole('link', { name: 'layers' }).click()
  await page.getByRole('button', { name: 'Go to' }).click()
  await page.getByRole('menuitem', { name: /^What went wrong here/ }).click()
  await expect(page.getByRole('region', { name: 'New case' }).getByLabel('Seen at')).toHaveValue(/^\d+\.?\d*$/)
  await page
    .getByRole('region', { name: 'New case' })
    .getByRole('button', { name: /Gaps and dull patches/ })
    .click()
  await expect(page.getByRole('region', { name: 'Causes' })).toContainText(/melt load \d+ % at \d/)
})

test('the workshop’s cases are there; an open one tells how often a fault must be gone; the place is accessible in both themes', async ({
  page,
  desk,
}) => {
  await page.goto('/faults')
  const cases = page.getByRole('region', { name: 'Cases', exact: true })
  await expect(cases.getByRole('button', { name: /A band of split layers/ })).toBeVisible()
  await cases.getByRole('button', { name: /A band of split layers/ }).click()
  await expect(page.getByRole('region', { name: 'Causes' })).toBeVisible()
  await page.getByRole('group', { name: 'What came of try 1' }).getByRole('button', { name: 'gone' }).click()
  await expect(page.getByText(/print the same 2 times more/)).toBeVisible()
  // A case whose server is killed goes on where it was.
  expect(desk.kill('server')).toBe(true)
  await expect(async () => {
    await page.reload()
    await expect(page.getByText(/print the same 2 times more/)).toBeVisible({ timeout: 2000 })
  }).toPass()
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
