import { join } from 'node:path'
import { expect, test } from '../desk'
import { LedgerPage } from '../tests/ledgerPage'

const picture = (name: string): string => join(import.meta.dirname, '../../docs/screenshots', `${name}.png`)

test('six orientations', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await page.getByRole('button', { name: 'Orientation and scale' }).click()
  await page.getByRole('button', { name: 'Compare six orientations' }).click()
  await expect(page.getByRole('table', { name: 'Six orientations' }).getByText('…')).toHaveCount(0, { timeout: 90_000 })
  await page.screenshot({ path: picture('orientations') })
})
