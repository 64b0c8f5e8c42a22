import { readFileSync } from 'node:fs'
import { writeStl } from '@sable/core/formats/writeStl'
import { blockMesh } from '@sable/core/testing/solids'
import { expect, test } from '../desk'
import { choose } from './choose'
import { LedgerPage, SMALL } from './ledgerPage'

const stl = (name: string, bytes: Uint8Array) => ({ name, mimeType: 'model/stl', buffer: Buffer.from(bytes) })

test('an STL dropped on the part strip is computed with the same candidates', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  const before = await ledger.figures(0)
  const bytes = writeStl(blockMesh(24, 18, 6))
  const transfer = await page.evaluateHandle(
    (content) => {
      const data = new DataTransfer()
      data.items.add(new File([new Uint8Array(content)], 'test block.stl'))
      return data
    },
    [...bytes],
  )
  await page.getByRole('region', { name: 'Part' }).dispatchEvent('drop', { dataTransfer: transfer })
  await ledger.replacePart()
  await expect(page.getByRole('region', { name: 'Part' })).toContainText('test block')
  await expect(page.getByRole('region', { name: 'Part' })).toContainText('24.0 × 18.0 × 6.0')
  await ledger.settled()
  expect(await ledger.names()).toEqual(['everyday', 'sturdy', 'quick'])
  expect(await ledger.figures(0)).not.toEqual(before)
  await page.getByRole('button', { name: /^Undo/ }).click()
  await expect(page.getByRole('region', { name: 'Part' })).toContainText('carry hook')
  await ledger.settled()
  expect(await ledger.figures(0)).toEqual(before)
})

test('a file that is no model is refused with its name and a way out', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(3, {}, SMALL)
  await page.getByLabel('Model file').setInputFiles(stl('notes.stl', new TextEncoder().encode('just some notes')))
  await expect(page.getByRole('alert')).toContainText('notes.stl: This is a text file, but not an STL')
  await page.getByLabel('Model file').setInputFiles(stl('cut.stl', writeStl(blockMesh(1, 1, 1)).slice(0, 222)))
  await expect(page.getByRole('alert')).toContainText('The header promises 12 triangles, but the file ends after 2')
  await page.getByRole('button', { name: 'Close' }).click()
  await expect(page.getByRole('region', { name: 'Part' })).toContainText('carry hook')
})

test('a part that does not fit the printer and one thinner than a line are told as risks', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await page.getByLabel('Model file').setInputFiles(stl('long.stl', writeStl(blockMesh(400, 8, 2))))
  await ledger.replacePart()
  await expect(page.getByRole('region', { name: 'Part' })).toContainText('400.0')
  await ledger.settled()
  await ledger.figure('risks', 0).getByRole('button').click()
  await expect(page.getByRole('dialog')).toContainText('The part does not fit Lugger 250: X 400.0 mm of 250 mm')
  await page.keyboard.press('Escape')
  await page.getByLabel('Model file').setInputFiles(stl('foil.stl', writeStl(blockMesh(30, 0.15, 4))))
  await ledger.replacePart()
  await expect(page.getByRole('region', { name: 'Part' })).toContainText('foil')
  await expect(ledger.figure('risks', 0)).toContainText('1 stop')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await ledger.settled()
})

test('the part can be scaled and turned', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1)
  await page.getByRole('button', { name: 'Orientation and scale' }).click()
  await page.getByRole('button', { name: 'Turn a quarter about x' }).click()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('region', { name: 'Part' })).toContainText('50.0 × 9.0 × 87.8')
  await page.getByRole('button', { name: /^Undo/ }).click()
  await expect(page.getByRole('region', { name: 'Part' })).toContainText('50.0 × 87.8 × 9.0')
  await ledger.settled()
})

test('the part is saved as it lies, as 3MF and as STL', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1)
  for (const [hint, ending, magic] of [
    ['3MF', '3mf', 'PK'],
    ['STL', 'stl', ''],
  ] as const) {
    await page.getByRole('region', { name: 'Part' }).getByRole('button', { name: 'carry hook' }).click()
    const saving = page.waitForEvent('download')
    await page.getByRole('option', { name: `Save in this orientation ${hint}` }).click()
    const saved = await saving
    expect(saved.suggestedFilename()).toBe(`carry-hook.${ending}`)
    const bytes = readFileSync(await saved.path())
    expect(bytes.length).toBeGreaterThan(1000)
    expect(bytes.toString('latin1', 0, magic.length)).toBe(magic)
    if (ending === 'stl') expect(bytes.readUInt32LE(80)).toBe(760)
  }
})

test('what the part is for decides the strength that is told and whether a candidate meets it', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await expect(ledger.figure('strength', 0)).toContainText('bend along Y')
  const column = (name: string) => page.getByRole('columnheader', { name: new RegExp(name) })
  await expect(column('sturdy')).toContainText('meets all')
  await expect(column('quick')).toContainText('misses strength')
  await page.getByRole('button', { name: /^Purpose: / }).click()
  await choose(page.getByLabel('Load', { exact: true }), 'crush')
  await choose(page.getByLabel('Along', { exact: true }), 'z')
  await page.getByLabel('Time at most').fill('25')
  await page.keyboard.press('Escape')
  await expect(ledger.figure('strength', 0)).toContainText('crush along Z')
  await expect(column('sturdy')).toContainText('misses time')
  await ledger.settled()
  await page.reload()
  await ledger.settled()
  await expect(page.getByRole('button', { name: /^Purpose: .*crush along Z.*under 25 min/ })).toBeVisible()
})

test('six orientations are computed side by side, and one is taken', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await page.getByRole('button', { name: 'Orientation and scale' }).click()
  await page.getByRole('button', { name: 'Compare six orientations' }).click()
  const table = page.getByRole('table', { name: 'Six orientations' })
  await expect(table.getByText('…')).toHaveCount(0, { timeout: 90_000 })
  // Lying flat needs no supports; on its left side it does.
  const supports = (way: string) =>
    table
      .getByRole('row', { name: new RegExp(way) })
      .locator('td')
      .nth(1)
  await expect(supports('as it lies')).toHaveText('0.0 g')
  await expect(supports('on its left')).not.toHaveText('0.0 g')
  await table
    .getByRole('row', { name: /on its front/ })
    .getByRole('button', { name: 'Use this' })
    .click()
  await expect(page.getByRole('region', { name: 'Part' })).toContainText('50.0 × 9.0 × 87.8')
  // The load keeps its place on the part.
  await expect(ledger.figure('strength', 0)).toContainText('bend along Z')
  await ledger.settled()
})
