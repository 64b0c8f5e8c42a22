import { join } from 'node:path'
import { test } from '../desk'

const folder = join(import.meta.dirname, '../../docs/screenshots')

test('a plate of the demo', async ({ page }) => {
  await page.goto('/queue/plates')
  await page.getByRole('row', { name: /^All of it/ }).waitFor({ timeout: 120_000 })
  await page.getByRole('status').waitFor({ state: 'detached', timeout: 120_000 })
  await page.screenshot({ path: join(folder, 'plate.png') })
})

test('the queue of the fair', async ({ page }) => {
  await page.goto('/queue?hours=24')
  await page.getByRole('region', { name: 'The plan' }).waitFor({ timeout: 60_000 })
  await page.getByRole('status').waitFor({ state: 'detached', timeout: 60_000 })
  await page.screenshot({ path: join(folder, 'queue.png') })
})
