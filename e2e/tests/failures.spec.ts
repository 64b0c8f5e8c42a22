import { readdirSync, readFileSync } from 'node:fs'
import { expect, test } from '@playwright/test'
import { LedgerPage } from './ledgerPage'

/** Processes of this desk whose command line holds all of the words. */
function processes(...words: string[]): number[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .filter((pid) => {
      try {
        const line = readFileSync(`/proc/${pid}/cmdline`, 'utf8')
        return words.every((word) => line.includes(word))
      } catch {
        return false
      }
    })
    .map(Number)
}

const desk = process.env.SABLE_DATA as string

test('the database killed in the middle of an edit: what was typed is kept and saved once it is back', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1)
  const [database] = processes('mariadbd', desk)
  process.kill(database as number, 'SIGKILL')
  await ledger.type('bottomLayers', 0, '11')
  await ledger.type('topLayers', 0, '12')
  await expect(ledger.cell('topLayers', 0)).toContainText('12')
  // The start script brings the database back by itself.
  await ledger.settled()
  await page.reload()
  await ledger.settled()
  await expect(ledger.cell('bottomLayers', 0)).toContainText('11')
  await expect(ledger.cell('topLayers', 0)).toContainText('12')
})

test('the server killed and the page reloaded before it was back: what was typed is still there', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1)
  const [server] = processes('dist/server/main.js', desk)
  process.kill(server as number, 'SIGKILL')
  await ledger.type('bottomLayers', 0, '4')
  await ledger.type('topLayers', 0, '5')
  await expect(async () => {
    await page.reload()
    await expect(page.getByRole('grid')).toBeVisible()
  }).toPass()
  await ledger.settled()
  await expect(ledger.cell('bottomLayers', 0)).toContainText('4')
  await expect(ledger.cell('topLayers', 0)).toContainText('5')
})
