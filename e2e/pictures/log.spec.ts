import { join } from 'node:path'
import { expect, test } from '../desk'

const picture = (name: string): string => join(import.meta.dirname, '../../docs/screenshots', `${name}.png`)

test('a print of the day book', async ({ page }) => {
  await page.goto('/log')
  await page.getByRole('option').filter({ hasText: 'Nov' }).filter({ hasText: 'sturdy' }).nth(1).click()
  await expect(page.getByRole('table', { name: 'Constants before and after' })).toBeVisible()
  await page.screenshot({ path: picture('log') })
})

test('looking back', async ({ page }) => {
  await page.goto('/log?view=back')
  await expect(page.getByRole('img', { name: /of \d+ prints ended/ })).toBeVisible()
  await page.screenshot({ path: picture('looking-back') })
})
