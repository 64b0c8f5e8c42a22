import { expect, test } from '../desk'
import { LedgerPage } from './ledgerPage'

test('the demo opens with three candidates, each with figures that differ as the profiles do', async ({ page }) => {
  const ledger = new LedgerPage(page)
  const lineups = (await (await page.request.get('/api/lineups')).json()) as { id: string; demo: boolean }[]
  await ledger.open(`/bench/${lineups.find(({ demo }) => demo)?.id}`)
  await expect(page).toHaveURL(/\/bench\/[0-9a-f-]{36}\/ledger$/)
  expect(await ledger.names()).toEqual(['everyday', 'sturdy', 'quick'])
  await expect(ledger.figure('time', 1)).toContainText(/\+\d+ %/)
  await expect(ledger.figure('time', 2)).toContainText(/−\d+ %/)
  await expect(ledger.figure('strength', 1)).toContainText(/\+\d+ %/)
  await expect(ledger.figure('surface', 2)).toContainText(/\+\d+ %/)
  await expect(ledger.cell('infillSpeed', 2)).toContainText(/gets \d+: flow/)
  await expect(page.locator('canvas')).toBeVisible()
})

test('no request leaves the machine, and nothing is logged as an error', async ({ page, desk }) => {
  const outside: string[] = []
  const errors: string[] = []
  page.on('request', (request) => {
    const isInside = ['blob:', 'data:', `${desk.address}/`].some((start) => request.url().startsWith(start))
    if (!isInside) outside.push(request.url())
  })
  page.on('console', (message) => {
    if (message.type() === 'error') errors.push(message.text())
  })
  page.on('pageerror', (error) => errors.push(error.message))
  await new LedgerPage(page).openCopy()
  expect(outside).toEqual([])
  expect(errors).toEqual([])
})
