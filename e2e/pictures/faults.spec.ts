import { join } from 'node:path'
import { test } from '../desk'

const folder = join(import.meta.dirname, '../../docs/screenshots')

test('a case of split layers', async ({ page }) => {
  await page.goto('/faults')
  await page.getByRole('button', { name: /A band of split layers/ }).click()
  await page.getByRole('region', { name: 'Causes' }).waitFor({ timeout: 60_000 })
  await page.getByRole('region', { name: 'Next' }).getByRole('status').waitFor({ state: 'detached', timeout: 60_000 })
  await page.screenshot({ path: join(folder, 'faults.png') })
})
