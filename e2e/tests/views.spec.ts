import { readFileSync } from 'node:fs'
import { expect, test } from '../desk'
import { expectAccessible } from './accessible'
import { choose } from './choose'
import { LedgerPage } from './ledgerPage'

test('layers: the log and the drawing share a height, a line tells what it is, and the address keeps the place', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await page.getByRole('link', { name: 'layers' }).click()
  const height = page.getByRole('slider', { name: 'Height' })
  await expect(height).toHaveAttribute('aria-valuetext', /^Layer 23 of 45/)
  await height.focus()
  await page.keyboard.press('Home')
  await expect(height).toHaveAttribute('aria-valuetext', 'Layer 1 of 45, 0.20 mm')
  await page.keyboard.press('ArrowUp')
  await expect(page).toHaveURL(/z=0\.400/)
  const drawing = page.getByRole('group', { name: /^everyday, layer 2/ })
  await drawing.focus()
  await page.keyboard.press('ArrowRight')
  const line = page.getByRole('status', { name: 'The line' })
  await expect(line).toContainText(/Asked\s*\d+ mm\/s/)
  await expect(line).toContainText(/(runs as asked|held|slowed|too short)/)
  await choose(page.getByLabel('Beside'), { label: 'quick' })
  await expect(page.getByRole('img', { name: /^Drawing of quick, layer 2/ })).toBeVisible()
  await choose(page.getByLabel('Coloured by'), 'limiter')
  // The address follows once the height rests.
  await page.getByRole('button', { name: 'Next risk' }).click()
  await expect(page).toHaveURL(/z=1\.200/)
  await page.reload()
  await expect(page.getByLabel('Coloured by')).toHaveAttribute('data-value', 'limiter')
  await expect(height).toHaveAttribute('aria-valuetext', /, 1\.20 mm$/)
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Table of the layers' }).click()
  await expect(page.getByRole('dialog').getByRole('row').nth(2)).toContainText(/^2\s*0\.40/)
})

test('layers: the playhead runs along printing time into the next layer', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1)
  await page.getByRole('link', { name: 'layers' }).click()
  const height = page.getByRole('slider', { name: 'Height' })
  await expect(height).toBeVisible()
  await choose(page.getByLabel('Seconds of printing in one of watching'), '60')
  const before = await height.getAttribute('aria-valuenow')
  await page.getByRole('button', { name: 'Play' }).click()
  await expect.poll(() => height.getAttribute('aria-valuenow')).not.toBe(before)
  await page.getByRole('button', { name: 'Pause' }).click()
  await choose(page.getByLabel('Cut'), 'y')
  await expect(page.getByRole('img', { name: /cut across Y/ })).toBeVisible()
})

test('surface: a map is read by pointing, with its cause, and by its table', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1)
  await page.getByRole('link', { name: 'surface' }).click()
  const map = page.getByRole('img', { name: 'everyday wearing a map of roughness Ra' })
  await expect(map).toBeVisible()
  const box = (await map.boundingBox())!
  const told = page.getByRole('status', { name: 'Under the pointer' })
  await expect(async () => {
    await page.mouse.move(box.x + box.width * (0.44 + 0.02 * Math.random()), box.y + box.height * 0.66)
    await expect(told).toContainText(/µm\s*layer \d+, z \d/, { timeout: 1500 })
  }).toPass()
  await expect(told).toContainText(/level top|stand as steps|on an upright face/)
  await expectAccessible(page)
  await choose(page.getByLabel('Map', { exact: true }), 'bond')
  await expect(page).toHaveURL(/map=bond/)
  await page.getByRole('button', { name: 'Table of the map' }).click()
  await expect(page.getByRole('dialog').getByRole('columnheader', { name: 'bonding' })).toBeVisible()

  // Where something went wrong a case begins, at that height.
  await page.keyboard.press('Escape')
  await expect(async () => {
    await page.mouse.click(box.x + box.width * 0.45, box.y + box.height * 0.66)
    await page.getByRole('link', { name: /^What went wrong at \d/ }).click({ timeout: 1500 })
  }).toPass()
  await expect(page.getByRole('region', { name: 'New case' }).getByLabel('Seen at')).toHaveValue(/^\d/)
})

test('load: what the part bears is the ledger’s figure, a change is applied, and two clicks place the load', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1)
  await expect(ledger.figure('strength', 0)).toContainText('bend along Y, solved')
  const newtons = await ledger.value('strength', 0).innerText()
  await page.getByRole('link', { name: 'load' }).click()
  const view = page.getByRole('region', { name: 'Load' })
  // The ledger's figure, solved from its lines: less than its sections say of a hook that is also twisted.
  const solved = view.getByRole('region', { name: 'Solved', exact: true })
  await expect(solved).toContainText(newtons)
  await expect(solved).toContainText(/\d N to \d+(\.\d)? N.*(Lines break|Layers part) at x.*N move it by 1 mm\. Its sections say/s)
  await expect(view.getByText(/^Under 40 N, as wanted; drawn moved \d+ × as far\./)).toBeVisible()
  await expect(view).toContainText('never a rating')
  await page.getByRole('button', { name: 'Table by height' }).click()
  await expect(page.getByRole('dialog').getByRole('columnheader', { name: /layers’ limit/ })).toBeVisible()
  await page.keyboard.press('Escape')
  await expectAccessible(page)

  await page.getByRole('button', { name: 'by sections' }).click()
  const borne = view.getByText('everyday bears').locator('..')
  const bySections = (await borne.innerText()).match(/[\d.]+ N/)![0]
  await expect(page.getByRole('img', { name: /Free body: 40 N pressing across at \d+ mm, held at \d+ mm, a moment of \d/ })).toBeVisible()
  await expect(page.getByRole('img', { name: /^Weakest section of everyday: \d+ lines/ })).toBeVisible()
  await expect(view).toContainText('never a rating')
  await expectAccessible(page)

  const solid = page.getByRole('img', { name: /how near each section is to failing/ })
  await page.getByRole('button', { name: 'Point at hold and load' }).click()
  const box = (await solid.boundingBox())!
  await page.mouse.click(box.x + box.width * 0.69, box.y + box.height * 0.42)
  await expect(view.getByText('Click the part where it is loaded.')).toBeVisible()
  await page.mouse.click(box.x + box.width * 0.42, box.y + box.height * 0.62)
  await expect(view.getByRole('combobox', { name: 'Load' })).toHaveAttribute('data-value', 'bendHigh')
  await page.getByRole('button', { name: 'Undo (Ctrl Z)' }).click()
  await expect(view.getByRole('combobox', { name: 'Load' })).toHaveAttribute('data-value', 'bend')

  await page
    .getByRole('row', { name: /^one wall more/ })
    .getByRole('button', { name: 'Apply' })
    .click()
  await expect(borne).not.toContainText(bySections)
})

test('load: a case is picked face by face, its worst place found, and it is the ledger’s figure; undo brings the old load back', async ({
  page,
}) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1)
  await page.getByRole('link', { name: 'load' }).click()
  const view = page.getByRole('region', { name: 'Load' })
  const solved = view.getByRole('region', { name: 'Solved', exact: true })
  await expect(solved).toContainText('loaded along Y')
  await expect(view.getByText(/^Under 40 N/)).toBeVisible()
  await page.getByRole('button', { name: 'Case', exact: true }).click()
  const cases = view.getByRole('region', { name: 'Cases' })
  await expect(cases.getByText('Click where it is held.')).toBeVisible()
  const box = (await page.getByRole('img', { name: /how near each place/ }).boundingBox())!
  await page.mouse.click(box.x + box.width * 0.675, box.y + box.height * 0.405)
  await expect(cases.getByText('held at a face')).toBeVisible()
  await expect(cases.getByText('Click where it is loaded.')).toBeVisible()
  await page.mouse.click(box.x + box.width * 0.45, box.y + box.height * 0.66)
  await expect(cases.getByRole('textbox', { name: 'So much' })).toHaveValue('40')
  await expect(solved).toContainText('in “Case 1”')
  await expectAccessible(page)
  const before = await solved.innerText()
  await cases.getByRole('textbox', { name: 'So much' }).fill('20')
  // Half of the load is borne twice as often, and the newtons stay.
  await expect(solved).not.toContainText(before.match(/under ([\d.]+) ×/)![0])
  await expect(solved).toContainText('in “Case 1”')
  const told = await solved.innerText()
  await page.getByRole('link', { name: 'ledger' }).click()
  await expect(ledger.figure('strength', 0)).toContainText('Case 1, solved')
  expect(told).toContain((await ledger.value('strength', 0).innerText()).split(/\s/)[0]!)
  for (let i = 0; i < 4; i++) await page.getByRole('button', { name: 'Undo (Ctrl Z)' }).click()
  await expect(ledger.figure('strength', 0)).toContainText('bend along Y')
})

test('load: a part is held in a box that is pointed at, moved by so much, and bears its own weight besides', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1)
  await page.getByRole('link', { name: 'load' }).click()
  const view = page.getByRole('region', { name: 'Load' })
  const solved = view.getByRole('region', { name: 'Solved', exact: true })
  await expect(view.getByText(/^Under 40 N/)).toBeVisible()
  await page.getByRole('button', { name: 'Case', exact: true }).click()
  const cases = view.getByRole('region', { name: 'Cases' })
  await cases.getByRole('button', { name: 'a box about it' }).click()
  const box = (await page.getByRole('img', { name: /how near each place/ }).boundingBox())!
  await page.mouse.click(box.x + box.width * 0.675, box.y + box.height * 0.405)
  await expect(cases.getByText('held in a box')).toBeVisible()
  await cases.getByRole('textbox', { name: 'Hold 1, sides along the part’s own Z' }).fill('30')
  // Its own weight alone is a load.
  await cases.getByRole('checkbox', { name: 'its own weight' }).click()
  await cases.getByRole('textbox', { name: 'Times its own weight' }).fill('5')
  await expect(solved).toContainText('in “Case 1”')
  const byWeight = await solved.innerText()
  await choose(cases.getByRole('combobox', { name: 'Or all of the end' }), { label: 'at −Y' })
  await choose(cases.getByRole('combobox', { name: 'Acts at an end' }), { label: 'moved by' })
  await cases.getByRole('textbox', { name: 'So much' }).fill('3')
  await expect(solved).not.toContainText(byWeight.match(/under ([\d.]+) ×/)![0])
  await expect(solved).toContainText('in “Case 1”')
  await expectAccessible(page)
})

test('what is shown is saved as a picture and as drawings, and a lineup goes on one page', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1)
  await expect(ledger.figure('strength', 0)).toContainText('solved')
  const strength = (await ledger.value('strength', 0).innerText()).trim()
  await page.getByRole('link', { name: 'load' }).click()
  await expect(page.getByText(/^Under 40 N/)).toBeVisible()
  const saved = async (kind: string): Promise<Buffer> => {
    await page.getByRole('button', { name: 'Save what is shown' }).click()
    const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('menuitem', { name: kind }).click()])
    return readFileSync(await file.path())
  }
  // A solid has no lines of its own: its drawing holds the picture.
  expect((await saved('SVG')).toString()).toContain('data:image/png;base64,')
  await page.getByRole('button', { name: 'by sections' }).click()
  await expect(page.getByRole('img', { name: /^Free body/ })).toBeVisible()
  // The signature that every PNG begins with (ISO/IEC 15948).
  expect([...(await saved('PNG')).subarray(0, 8)]).toEqual([137, 80, 78, 71, 13, 10, 26, 10])
  const svg = (await saved('SVG')).toString()
  expect(svg).toContain('http://www.w3.org/2000/svg')
  expect(svg).not.toContain('class=')

  await page.getByRole('button', { name: 'Export' }).click()
  await page.getByRole('menuitem', { name: 'One-page sheet' }).click()
  const sheet = page.getByRole('region', { name: 'Sheet' })
  await expect(sheet.getByRole('row', { name: new RegExp(`^Strength ${strength}`) })).toBeVisible()
  await expect(sheet.getByRole('row', { name: /^Walls \(perimeters/ })).toBeVisible()
  await expect(sheet).toContainText('never a rating')
  const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1')
  expect(pdf.match(/\/Type \/Page\b/g)).toHaveLength(1)
})

test('layers: a box is pulled over the part, turned and copied, its values hold there, and each pull is one step back', async ({
  page,
}) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1)
  await page.getByRole('link', { name: 'layers' }).click()
  await page.getByRole('button', { name: 'Places' }).click()
  const panel = page.getByRole('complementary', { name: 'Places of everyday' })
  await panel.getByRole('button', { name: 'Draw a box' }).click()
  const over = (await page.getByRole('group', { name: 'Boxes of places' }).boundingBox())!
  const drag = async (from: readonly [number, number], to: readonly [number, number]): Promise<void> => {
    await page.mouse.move(...from)
    await page.mouse.down()
    await page.mouse.move(...to, { steps: 4 })
    await page.mouse.up()
  }
  const at = (u: number, v: number) => [over.x + u * over.width, over.y + v * over.height] as const
  await drag(at(0.4, 0.3), at(0.75, 0.6))
  const box = page.getByRole('button', { name: /^place 1: arrows move it/ })
  await expect(box).toHaveAttribute('aria-pressed', 'true')
  await expect(panel.getByRole('textbox', { name: 'Turned' })).toHaveValue('0')
  const turn = (await page.locator('[data-handle=turn]').boundingBox())!
  await drag([turn.x + 6, turn.y + 6], [turn.x + 80, turn.y + 40])
  await expect(panel.getByRole('textbox', { name: 'Turned' })).not.toHaveValue('0')
  const x = panel.getByRole('textbox', { name: 'x from' })
  const before = Number(await x.inputValue())
  await box.focus()
  await page.keyboard.press('ArrowRight')
  await expect.poll(async () => Number(await x.inputValue())).toBeCloseTo(before + 1, 1)
  await choose(panel.getByRole('combobox', { name: 'Add a setting' }), { label: 'Infill density' })
  await panel.getByRole('textbox', { name: 'Infill density' }).fill('90')
  await panel.getByRole('button', { name: 'Copy place 1' }).click()
  await expect(panel.getByRole('button', { name: /^place 2/ })).toHaveAttribute('aria-pressed', 'true')
  await page.getByRole('button', { name: /^Undo/ }).click()
  await expect(panel.getByRole('button', { name: /^place 2/ })).toHaveCount(0)
  await expectAccessible(page)
  await page.getByRole('link', { name: 'ledger' }).click()
  await ledger.settled()
  await expect(page.locator('[data-row=overrides] td').first()).toContainText('place 1')
})

test('surface: a box is put round faces, a picture sets the speed of the wall there, and what will be seen of it is shown', async ({
  page,
}) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1)
  await page.getByRole('link', { name: 'surface' }).click()
  await page.getByRole('button', { name: 'Places' }).click()
  const panel = page.getByRole('complementary', { name: 'Places of everyday' })
  await panel.getByRole('button', { name: 'Box round faces' }).click()
  const map = page.getByRole('img', { name: /^everyday wearing a map/ })
  await expect(map).toBeVisible()
  const shown = (await map.boundingBox())!
  await page.mouse.click(shown.x + shown.width * 0.45, shown.y + shown.height * 0.68)
  await expect(panel.getByRole('button', { name: /^place 1/ })).toContainText('box')
  await expect(panel.getByText('Click another face to widen the box')).toBeVisible()
  await panel.getByRole('button', { name: 'Done picking' }).click()
  const picture = async (grey: 'halves' | 'flat') =>
    Buffer.from(
      await page.evaluate(async (kind) => {
        const canvas = new OffscreenCanvas(32, 16)
        const context = canvas.getContext('2d')!
        context.fillStyle = '#ffffff'
        context.fillRect(0, 0, 32, 16)
        context.fillStyle = kind === 'halves' ? '#000000' : '#fdfdfd'
        context.fillRect(0, 0, 16, 16)
        return [...new Uint8Array(await (await canvas.convertToBlob({ type: 'image/png' })).arrayBuffer())]
      }, grey),
    )
  const give = async (name: string, buffer: Buffer): Promise<void> =>
    panel.getByLabel(/^Picture of place/).setInputFiles({ name, mimeType: 'image/png', buffer })
  await give('fog.png', await picture('flat'))
  await expect(panel.getByRole('alert')).toContainText('fog.png is nearly the same grey everywhere')
  await give('poem.png', Buffer.from('Gather ye rosebuds'))
  await expect(panel.getByRole('alert')).toContainText('poem.png cannot be read as a picture')
  await give('halves.png', await picture('halves'))
  const seen = panel.getByRole('figure', { name: 'What will be seen of the picture' })
  await expect(seen).toContainText(/\d+ % of its contrast is left/)
  await expect(seen.getByRole('img', { name: 'The picture as it will be seen' })).toBeVisible()
  await panel.getByRole('button', { name: 'laid on the front' }).click()
  await expect(panel.getByRole('button', { name: 'laid on the front' })).toHaveAttribute('aria-pressed', 'true')
  await expectAccessible(page)
})
