import { join } from 'node:path'
import { expect, test } from '../desk'

const picture = (name: string): string => join(import.meta.dirname, '../../docs/screenshots', `${name}.png`)

test('a spool', async ({ page }) => {
  await page.goto('/shelf/spools/storm-black')
  await expect(page.getByRole('article')).toBeVisible()
  await page.screenshot({ path: picture('spool') })
})
