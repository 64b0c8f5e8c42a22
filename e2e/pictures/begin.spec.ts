import { join } from 'node:path'
import { expect, test } from '../desk'
import { LedgerPage } from '../tests/ledgerPage'

const picture = (name: string): string => join(import.meta.dirname, '../../docs/screenshots', `${name}.png`)

test('three candidates suggested for a part', async ({ page }) => {
  const parts = await (await page.request.get('/api/parts')).json()
  await page.goto(`/bench/new?part=${parts.find(({ name }: { name: string }) => name === 'battery tray').id}`)
  await expect(page.getByRole('region', { name: 'Suggested' }).getByRole('button', { name: /on the bench$/ })).toBeEnabled({
    timeout: 60_000,
  })
  await page.screenshot({ path: picture('begin') })
})

test('profiles by materials', async ({ page }) => {
  await new LedgerPage(page).openCopy()
  await page.goto(page.url().replace('/ledger', '/matrix'))
  await expect(page.getByRole('button', { name: /best of all/ }).first()).toBeVisible({ timeout: 60_000 })
  await expect(page.getByRole('button', { name: 'Stop' })).toHaveCount(0, { timeout: 60_000 })
  await page.screenshot({ path: picture('matrix') })
})

test('an entry of the handbook', async ({ page }) => {
  await page.goto('/handbook/setting/layerHeight')
  await expect(page.getByRole('figure')).toContainText('Strength', { timeout: 60_000 })
  await page.waitForTimeout(1500)
  await page.screenshot({ path: picture('handbook') })
})
