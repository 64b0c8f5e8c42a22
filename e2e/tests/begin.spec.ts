import { writeStl } from '@sable/core/formats/writeStl'
import { blockMesh } from '@sable/core/testing/solids'
import { expect, type Page, test } from '../desk'
import { expectAccessible } from './accessible'
import { LedgerPage } from './ledgerPage'

/** The same model twice is one part, under the name that it had first: each has a length of its own. */
const stl = (name: string, length: number) => ({ name, mimeType: 'model/stl', buffer: Buffer.from(writeStl(blockMesh(length, 17, 7))) })
const three = (page: Page) => page.getByRole('region', { name: 'Suggested' })

/** Presses Tab until something is under the cursor. */
async function tabTo(page: Page, name: RegExp): Promise<void> {
  for (let i = 0; i < 60; i++) {
    await page.keyboard.press('Tab')
    const told = await page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.textContent ?? '')
    if (name.test(told.trim())) return
  }
  throw new Error(`Nothing under the keyboard is called ${name}.`)
}

test('an own part comes to three own figures in few actions, by the keyboard alone', async ({ page }) => {
  // The file is what the system's own dialog hands over; it is waited for from the beginning, for it opens at once.
  const choosing = page.waitForEvent('filechooser')
  await page.goto('/bench/new')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('A new lineup')
  await tabTo(page, /^Load your model/)
  await page.keyboard.press('Enter')
  await (await choosing).setFiles(stl('own clip.stl', 26))
  await expect(page.getByText('own clip', { exact: true })).toBeVisible()
  // What is under the keyboard may be drawn anew once the part is measured, and a key pressed just then is lost.
  await expect(async () => {
    await tabTo(page, /Printer|Lugger|Dory/)
    await page.keyboard.press('Enter')
    await expect(page.getByRole('option').first()).toBeVisible({ timeout: 3000 })
  }).toPass()
  await page.keyboard.type('Cut')
  await expect(page.getByRole('option', { name: /^Cutter/ })).toBeFocused()
  await page.keyboard.press('Enter')
  await tabTo(page, /^to carry a load/)
  await page.keyboard.press('Enter')
  await tabTo(page, /^Bears at least/)
  await page.keyboard.type('20')
  await expect(three(page)).toBeVisible()
  await expectAccessible(page)
  await tabTo(page, /on the bench$/)
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/\/bench\/[0-9a-f-]{36}\/ledger/)
  await expect(page.getByRole('columnheader', { name: /fastest/ })).toBeVisible()
  await expect(page.locator('[data-row=time] td').first()).toContainText('min')
  await expect(page.locator('[data-setting=printer]')).toContainText('Cutter')
})

test('where no limit can be kept, the nearest is told and why', async ({ page }) => {
  await page.goto('/bench/new')
  await page.getByLabel('Model file').setInputFiles(stl('hurried.stl', 27))
  await page.getByRole('textbox', { name: 'Time at most' }).fill('0.5')
  await expect(three(page)).toContainText('Nothing that was tried keeps all limits')
  // To look at, nothing is asked about loads.
  await page.getByRole('button', { name: 'to look at' }).click()
  await expect(page.getByRole('textbox', { name: 'Bears at least' })).toHaveCount(0)
})

test('with an empty shelf, machine and material are taken from the starters', async ({ page }) => {
  await page.route('**/api/shelf', async (route) => {
    if (route.request().method() !== 'GET') return route.continue()
    const shelf = await (await route.fetch()).json()
    // Every record was deleted; what is added from then on is there.
    const added = (records: { starter: boolean; key: string }[]) => records.filter(({ key }) => key.startsWith('fresh-'))
    await route.fulfill({ json: { ...shelf, printers: added(shelf.printers), materials: added(shelf.materials), spools: [] } })
  })
  await page.goto('/bench/new')
  await page.getByLabel('Model file').setInputFiles(stl('lonely.stl', 28))
  await expect(page.getByText('Choose a machine and a material')).toBeVisible()
  await expect(page.getByRole('combobox', { name: 'One like' })).toBeVisible()
  await expect(page.getByRole('combobox', { name: 'Material' })).toBeVisible()
  await expectAccessible(page)
})

test('another model asks: a lineup of its own, or the place of the one that is there', async ({ page }) => {
  await page.goto('/bench')
  await expect(page.getByRole('region', { name: 'Part' })).toBeVisible()
  await page.getByLabel('Model file').setInputFiles(stl('second.stl', 29))
  const question = page.getByRole('alertdialog', { name: 'What about second?' })
  await question.getByRole('button', { name: 'A lineup of its own' }).click()
  await expect(page).toHaveURL(/\/bench\/new\?part=/)
  await expect(page.getByText('second', { exact: true })).toBeVisible()
})

test('the matrix has the library by materials, its cells become columns, and it is there again at once', async ({ page }) => {
  await new LedgerPage(page).openCopy(1)
  await page.goto(page.url().replace('/ledger', '/matrix?family=everyday'))
  const matrix = page.getByRole('table', { name: 'Profiles and what they are printed with' })
  await expect(matrix.getByRole('button', { name: /best of all/ }).first()).toBeVisible()
  await expect(page.getByRole('button', { name: 'Stop' })).toHaveCount(0)
  await expectAccessible(page)
  await matrix.getByRole('button', { name: /^Everyday, PLA with PETG/ }).click()
  await expect(page.getByText('Everyday, PLA, PETG is a column now.')).toBeVisible()
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click()
  const saving = page.waitForEvent('download')
  await page.getByRole('button', { name: 'CSV' }).click()
  expect((await saving).suggestedFilename()).toMatch(/matrix\.csv$/)
  // Kept in the browser: nothing is computed again.
  await page.reload()
  await expect(matrix.getByRole('button', { name: /best of all/ }).first()).toBeVisible()
  await expect(page.getByRole('button', { name: 'Stop' })).toHaveCount(0)
})

test('a profile is carried to another material, each change with its reason, and one is refused', async ({ page }) => {
  await page.goto('/shelf/profiles/everyday-pla')
  await page.getByRole('button', { name: 'Carry to another material' }).click()
  const sheet = page.getByRole('dialog', { name: /^Carry Everyday, PLA/ })
  await sheet.getByRole('combobox', { name: 'Material' }).click()
  await page.getByRole('option', { name: 'Flexible' }).click()
  await expect(sheet).toContainText('Flexible is laid at 20 mm/s')
  await expectAccessible(page)
  await sheet.getByRole('checkbox', { name: 'Take Infill speed' }).click()
  await sheet.getByRole('button', { name: 'Keep as a profile' }).click()
  await expect(page.getByRole('article', { name: 'Everyday, Flexible' })).toBeVisible()
  await expect(page.getByText('carried from')).toBeVisible()
  await page.getByRole('button', { name: 'Beside another' }).click()
  await expect(page.getByRole('table', { name: 'Differences' })).toBeVisible()
  await page.keyboard.press('Escape')
  await page.goto('/shelf/profiles/gallery-petg/sheet')
  await expect(page.getByRole('heading', { name: 'Gallery, PETG' })).toBeVisible()
})
