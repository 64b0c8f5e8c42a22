import { readFileSync } from 'node:fs'
import AxeBuilder from '@axe-core/playwright'
import { expect, test } from '@playwright/test'
import { writeStl } from '@sable/core/formats/writeStl'
import { blockMesh } from '@sable/core/testing/solids'
import { LedgerPage } from './ledger'

const stl = (name: string, bytes: Uint8Array) => ({ name, mimeType: 'model/stl', buffer: Buffer.from(bytes) })

test('the demo opens with three candidates, each with figures that differ as the profiles do', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.open('/')
  await expect(page).toHaveURL(/\/bench\/[0-9a-f-]{36}\/ledger$/)
  expect(await ledger.names()).toEqual(['everyday', 'sturdy', 'quick'])
  await expect(ledger.figure('time', 1)).toContainText(/\+\d+ %/)
  await expect(ledger.figure('time', 2)).toContainText(/−\d+ %/)
  await expect(ledger.figure('bend', 1)).toContainText(/\+\d+ %/)
  await expect(ledger.figure('surface', 2)).toContainText(/\+40 %/)
  await expect(ledger.cell('infillSpeed', 2)).toContainText(/gets \d+: flow/)
  await expect(page.locator('canvas')).toBeVisible()
})

test('no request leaves the machine, and nothing is logged as an error', async ({ page }) => {
  const outside: string[] = []
  const errors: string[] = []
  page.on('request', (request) => {
    if (!/^(blob:|data:|http:\/\/localhost:4920\/)/.test(request.url())) outside.push(request.url())
  })
  page.on('console', (message) => {
    if (message.type() === 'error') errors.push(message.text())
  })
  page.on('pageerror', (error) => errors.push(error.message))
  await new LedgerPage(page).openCopy()
  expect(outside).toEqual([])
  expect(errors).toEqual([])
})

test('an edited cell changes the figures of its column alone; undo, redo and reload keep what is on screen', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  const before = [await ledger.figures(0), await ledger.figures(1)]
  await ledger.type('wallCount', 0, '6')
  await ledger.settled()
  await expect(ledger.value('bend', 0)).not.toHaveText(before[0]![4]!)
  const after = await ledger.figures(0)
  expect(after).not.toEqual(before[0])
  expect(await ledger.figures(1)).toEqual(before[1])

  await page.keyboard.press('Control+z')
  await expect(ledger.cell('wallCount', 0)).toContainText('3')
  await ledger.settled()
  expect(await ledger.figures(0)).toEqual(before[0])
  await page.keyboard.press('Control+y')
  await expect(ledger.cell('wallCount', 0)).toContainText('6')
  await ledger.settled()
  await page.reload()
  await ledger.settled()
  expect(await ledger.figures(0)).toEqual(after)
  await ledger.cell('wallCount', 0).click()
  await page.keyboard.press('Delete')
  await expect(ledger.cell('wallCount', 0)).toContainText('from common practice')
  await page.getByRole('button', { name: /^Undo/ }).click()
  await ledger.type('wallCount', 0, '3')
  await ledger.settled()
})

test('a computation that takes long shows its progress and can be stopped and begun again, while cells stay editable', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await page.getByRole('region', { name: 'Part' }).getByRole('button', { name: 'carry hook' }).click()
  await page.getByRole('menuitem', { name: /^shade/ }).click()
  const stop = page.getByRole('button', { name: 'Stop computing this column' }).first()
  await expect(stop).toBeVisible()
  await expect(page.getByText(/^(layers|regions|toolpath|motion) \d+ %$/).first()).toBeVisible()
  await stop.click()
  const again = page.getByRole('button', { name: 'Compute', exact: true })
  await expect(again).toBeVisible()
  await ledger.cell('wallCount', 1).click()
  await page.keyboard.type('2')
  await page.keyboard.press('Enter')
  await expect(ledger.cell('wallCount', 1)).toContainText('2')
  await again.click()
  await ledger.settled()
  await expect(ledger.value('time', 0)).not.toBeEmpty()
})

test('works like a spreadsheet: arrows, Tab, copy, paste, fill right', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await ledger.cell('topLayers', 0).click()
  await page.keyboard.type('7')
  await page.keyboard.press('Tab')
  await page.keyboard.type('8')
  await page.keyboard.press('Enter')
  await expect(ledger.cell('topLayers', 0)).toContainText('7')
  await expect(ledger.cell('topLayers', 1)).toContainText('8')
  // Enter went down to the bottom layers of the same column; back up, select both columns and copy them.
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('Shift+ArrowLeft')
  await page.keyboard.press('Control+c')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Control+v')
  await expect(ledger.cell('bottomLayers', 0)).toContainText('7')
  await expect(ledger.cell('bottomLayers', 1)).toContainText('8')
  await ledger.cell('topLayers', 0).click()
  await page.keyboard.press('Control+d')
  await expect(ledger.cell('topLayers', 2)).toContainText('7')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(ledger.cell('topLayers', 1)).toContainText('5')
  await ledger.settled()
})

test('a value that cannot be is refused in its cell with its range, and nothing is lost', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await ledger.type('layerHeight', 1, '5')
  await expect(page.getByRole('alert')).toContainText('Give a number from 0.02 to 1.2 mm.')
  await page.keyboard.press('Escape')
  await expect(ledger.cell('layerHeight', 1)).toContainText('0.20')
})

test('candidates are added, duplicated, renamed, reordered and removed, and all of it can be undone', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await ledger.menu(1, 'Duplicate')
  expect(await ledger.names()).toEqual(['everyday', 'sturdy', 'sturdy 2', 'quick'])
  await ledger.columns.nth(2).click()
  await page.keyboard.type('sturdiest')
  await page.keyboard.press('Enter')
  await ledger.menu(2, 'Make first')
  expect(await ledger.names()).toEqual(['sturdiest', 'everyday', 'sturdy', 'quick'])
  // By keyboard: the grip takes Space, arrows and Space.
  await page.getByRole('button', { name: /^Move quick/ }).focus()
  await page.keyboard.press('Space')
  await page.waitForTimeout(300)
  await page.keyboard.press('ArrowLeft')
  await page.waitForTimeout(300)
  await page.keyboard.press('Space')
  await expect.poll(() => ledger.names()).toEqual(['sturdiest', 'everyday', 'quick', 'sturdy'])
  await page.getByRole('button', { name: 'Candidate', exact: true }).click()
  await expect(ledger.columns).toHaveCount(5)
  await ledger.menu(4, 'Remove')
  await ledger.menu(0, 'Remove')
  expect(await ledger.names()).toEqual(['everyday', 'quick', 'sturdy'])
  for (let i = 0; i < 7; i++) await page.getByRole('button', { name: /^Undo/ }).click()
  expect(await ledger.names()).toEqual(['everyday', 'sturdy', 'quick'])
  await ledger.settled()
})

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
  await ledger.openCopy()
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
  await expect(page.getByRole('region', { name: 'Part' })).toContainText('400.0')
  await ledger.settled()
  await ledger.figure('risks', 0).getByRole('button').click()
  await expect(page.getByRole('dialog')).toContainText('The part does not fit Lugger 250: X 400.0 mm of 250 mm')
  await page.keyboard.press('Escape')
  await page.getByLabel('Model file').setInputFiles(stl('foil.stl', writeStl(blockMesh(30, 0.15, 4))))
  await expect(page.getByRole('region', { name: 'Part' })).toContainText('foil')
  await expect(ledger.figure('risks', 0)).toContainText('1 stop')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await ledger.settled()
})

test('the part can be scaled and turned', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await page.getByRole('button', { name: 'Lie and scale' }).click()
  await page.getByRole('button', { name: 'Turn a quarter about x' }).click()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('region', { name: 'Part' })).toContainText('50.0 × 9.0 × 87.8')
  await page.getByRole('button', { name: /^Undo/ }).click()
  await expect(page.getByRole('region', { name: 'Part' })).toContainText('50.0 × 87.8 × 9.0')
  await ledger.settled()
})

test('the lineup goes out as CSV and as JSON, and the JSON comes in again', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  const figures = await ledger.figures(1)
  const exported = async (item: RegExp): Promise<string> => {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      (async () => {
        await page.getByRole('button', { name: 'Export' }).click()
        await page.getByRole('menuitem', { name: item }).click()
      })(),
    ])
    return readFileSync(await download.path(), 'utf8')
  }
  const csv = await exported(/^CSV/)
  expect(csv.split('\r\n')[0]).toBe(',unit,everyday,sturdy,quick')
  expect(csv).toMatch(/^Time,s,\d+\.\d+,\d+\.\d+,\d+\.\d+$/m)
  expect(csv).toMatch(/^Walls,,3,5,2$/m)
  const json = await exported(/^JSON/)
  const address = page.url()
  await page.getByLabel('Lineup file').setInputFiles({ name: 'again.json', mimeType: 'application/json', buffer: Buffer.from(json) })
  await expect(page).not.toHaveURL(address)
  await ledger.settled()
  expect(await ledger.names()).toEqual(['everyday', 'sturdy', 'quick'])
  expect(await ledger.figures(1)).toEqual(figures)
  const broken = json.replace('"wallCount": 5', '"wallCount": 500')
  await page.getByLabel('Lineup file').setInputFiles({ name: 'broken.json', mimeType: 'application/json', buffer: Buffer.from(broken) })
  await expect(page.getByRole('alert')).toContainText('broken.json, candidate "sturdy", wallCount: 500 is not a possible walls.')
  await page.getByRole('button', { name: 'Lineups' }).click()
  await page.getByRole('menuitem', { name: 'Remove this lineup' }).click()
  await page.getByRole('alertdialog').getByRole('button', { name: 'Remove', exact: true }).click()
  await expect(page).toHaveURL(/\/ledger$/)
  await ledger.settled()
})

test('two windows: the second write is told, shown both, and nothing is lost', async ({ context }) => {
  const [here, there] = [new LedgerPage(await context.newPage()), new LedgerPage(await context.newPage())]
  await here.openCopy()
  await there.open(here.page.url())
  await here.type('wallCount', 2, '4')
  await here.settled()
  await there.type('topLayers', 2, '9')
  const question = there.page.getByRole('alertdialog', { name: 'Changed in another window' })
  await expect(question).toBeVisible()
  await question.getByRole('button', { name: 'Take the other version' }).click()
  await expect(there.cell('wallCount', 2)).toContainText('4')
  await expect(there.cell('topLayers', 2)).toContainText('3')
  await there.page.keyboard.press('Control+z')
  await expect(there.cell('topLayers', 2)).toContainText('9')
  await there.type('topLayers', 2, '3')
  await there.type('wallCount', 2, '2')
  await there.settled()
})

test('finding settings, showing only differences, and the paper theme', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await page.getByRole('searchbox').fill('perimeter')
  await expect(page.locator('[data-setting]')).toHaveCount(4)
  await page.getByRole('searchbox').fill('')
  await page.getByLabel('Only differences').check()
  await expect(page.locator('[data-setting=layerHeight]')).toBeVisible()
  await expect(page.locator('[data-setting=lineWidth]')).toHaveCount(0)
  await page.getByLabel('Only differences').uncheck()
  await page.getByRole('button', { name: 'Paper theme' }).click()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'light')
  await page.reload()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'light')
})

for (const theme of ['dark', 'light'] as const) {
  test(`the ledger passes the accessibility rules of WCAG 2.2 AA in the ${theme} theme`, async ({ page }) => {
    await page.addInitScript((chosen) => localStorage.setItem('sable.theme', chosen), theme)
    await new LedgerPage(page).openCopy()
    const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']).analyze()
    expect(violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`)).toEqual([])
  })
}

test('an address that leads nowhere says so and leads back', async ({ page }) => {
  await page.goto('/bench/00000000-0000-4000-8000-000000000000/ledger')
  await expect(page.getByRole('heading')).toHaveText('There is no such lineup.')
  await page.getByRole('link', { name: 'Go to the bench' }).click()
  await expect(page.getByRole('grid')).toBeVisible()
})

test('at 1280 × 800 four candidates, the verdict and twelve rows stand without scrolling', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await ledger.menu(0, 'Duplicate')
  await ledger.settled()
  await expect(ledger.columns.nth(3)).toBeInViewport({ ratio: 1 })
  const inView = await page
    .locator('[data-verdict], [data-setting]')
    .evaluateAll((rows) => rows.filter((row) => row.getBoundingClientRect().bottom <= innerHeight).length)
  expect(inView).toBeGreaterThanOrEqual(7 + 12)
  await ledger.menu(1, 'Remove')
  await ledger.settled()
})

test('exceptions are set for places of a candidate, change its figures, and can be undone', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  const before = await ledger.figures(1)
  await page.getByRole('button', { name: 'Exceptions of sturdy' }).click()
  await page.getByRole('button', { name: 'Place', exact: true }).click()
  await page.getByRole('button', { name: 'Done' }).click()
  await ledger.settled()
  expect(await ledger.value('time', 1).innerText()).not.toBe(before[0])
  await expect(page.getByRole('button', { name: 'Exceptions of sturdy' })).toContainText('place 1')
  await page.reload()
  await ledger.settled()
  await expect(page.getByRole('button', { name: 'Exceptions of sturdy' })).toContainText('place 1')
})

test('a candidate goes out as a program, and the program dropped in is timed on each printer', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  const saving = page.waitForEvent('download')
  await ledger.menu(0, 'Write program')
  const saved = await saving
  expect(saved.suggestedFilename()).toBe('carry-hook-everyday.gcode')
  const path = await saved.path()
  expect(readFileSync(path, 'utf8')).toMatch(/^; Program by Sable Lantern[\s\S]*LOOK BEFORE RUNNING[\s\S]*G28/)
  await page.getByLabel('Model file').setInputFiles({ name: 'hook.gcode', mimeType: 'text/plain', buffer: readFileSync(path) })
  const dialog = page.getByRole('dialog', { name: 'hook.gcode' })
  const table = dialog.getByRole('table', { name: 'Time on each printer' })
  // On the printer that it was written for it takes what the ledger foretold.
  await expect(table.locator('tbody tr').first().locator('td').nth(1)).toHaveText(
    `${(await ledger.value('time', 0).innerText()).trim()} min`,
  )
  await expect(dialog).toContainText('45 layers')
  await dialog.getByRole('button', { name: 'Close' }).click()
  await expect(dialog).toHaveCount(0)
})

test('settings that mean nothing stay out of sight until what they depend on is chosen', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await expect(page.locator('[data-setting=supportDensity]')).toHaveCount(0)
  await ledger.cell('supports', 1).click()
  await page.keyboard.type('p')
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-setting=supportDensity]')).toHaveCount(1)
})
