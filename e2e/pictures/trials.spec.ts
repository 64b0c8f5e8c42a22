import { join } from 'node:path'
import { expect, test } from '../desk'

const picture = (name: string): string => join(import.meta.dirname, '../../docs/screenshots', `${name}.png`)
const black = '/trials?spool=storm-black&printer=lugger&nozzle=bore-0.4'

test('trials', async ({ page }) => {
  await page.goto(`${black}&kind=temperature`)
  await expect(page.getByRole('button', { name: 'I print this' })).toBeEnabled({ timeout: 60_000 })
  await page.screenshot({ path: picture('trials') })
})
