import { join } from 'node:path'
import { expect, test } from '../desk'

const picture = (name: string): string => join(import.meta.dirname, '../../docs/screenshots', `${name}.png`)
const black = '/trials?spool=storm-black&printer=lugger&nozzle=bore-0.4'

test('trials', async ({ page }) => {
  await page.goto(`${black}&kind=temperature`)
  await expect(page.getByRole('button', { name: 'I print this' })).toBeEnabled({ timeout: 60_000 })
  await page.screenshot({ path: picture('trials') })
})

test('a flow ladder under the ruler', async ({ page }) => {
  await page.addInitScript(() => localStorage.setItem('sable.theme', 'light'))
  await page.goto(`${black}&kind=flowLadder`)
  await page.getByRole('button', { name: 'I print this' }).click({ timeout: 60_000 })
  await page.getByLabel('First fault in front').fill('14.2')
  await page.getByLabel('First fault at the back').fill('16.5')
  await expect(page.getByRole('table', { name: 'Constants before and after' })).toBeVisible()
  await expect(page.getByRole('listbox')).toBeVisible({ timeout: 60_000 })
  await page.waitForTimeout(500)
  await page.screenshot({ path: picture('trial-reading') })
})
