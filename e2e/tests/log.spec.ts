import { expect, type Page, test } from '../desk'
import { expectAccessible } from './accessible'
import { choose } from './choose'
import { LedgerPage } from './ledgerPage'
import { expectReached, zoomedIn } from './reach'

/** A machine and a reel of its own, so that no test sees what another has learned; and a lineup that is printed with them. */
async function ownLineup(page: Page, name: string): Promise<{ readonly lineup: string; readonly printer: string }> {
  const shelf = await (await page.request.get('/api/shelf')).json()
  const lugger = shelf.printers.find(({ key }: { key: string }) => key === 'lugger')
  const { starter: _, archived: __, revision: ___, ...record } = lugger
  const { key: printer } = await (await page.request.post('/api/shelf/printers', { data: { ...record, name } })).json()
  const reel = { key: 'new', name: `${name} reel`, material: 'pla', netG: 1000, weighings: [], dried: [], defaults: {} }
  const { key: spool } = await (await page.request.post('/api/shelf/spools', { data: reel })).json()
  const parts = await (await page.request.get('/api/parts')).json()
  const content = {
    name: `Of ${name}`,
    partId: parts.find((part: { name: string }) => part.name === 'carry hook').id,
    placement: { scale: 1, rotateDeg: [0, 0, 0] },
    purpose: { kind: 'work', seen: 'all', load: { kind: 'bend', axis: 'weakest' }, limits: {} },
    candidates: [
      {
        id: crypto.randomUUID(),
        name: 'own',
        printer,
        nozzle: 'bore-0.4',
        material: 'pla',
        spool,
        values: { layerHeight: 0.3 },
        overrides: [],
      },
    ],
  }
  const { id } = await (await page.request.post('/api/lineups', { data: content })).json()
  return { lineup: id, printer }
}

/** Half the width of the 80 % range of the time, per cent. */
const rangeOf = async (page: Page): Promise<number> => {
  const text = await page
    .getByRole('dialog')
    .getByText(/to .*min/)
    .first()
    .innerText()
  const [low, high] = text.match(/[\d.]+(?= min)/g)!.map(Number) as [number, number]
  return (100 * (high - low)) / (high + low)
}
const begin = async (page: Page, lineup: string): Promise<void> => {
  const ledger = new LedgerPage(page)
  await ledger.open(`/bench/${lineup}/ledger`)
  await ledger.menu(0, 'Print it')
  await expect(page.getByRole('button', { name: 'It starts now' })).toBeEnabled()
}

test('a print that is begun, timed and weighed narrows what is foretold for the next', async ({ page }) => {
  const { lineup, printer } = await ownLineup(page, 'Slow Lugger')
  await begin(page, lineup)
  const before = await rangeOf(page)
  await page.getByLabel('Slow Lugger reel on the scale, reel and all').fill('900')
  await expectAccessible(page)
  await page.getByRole('button', { name: 'It starts now' }).click()
  await expect(page.getByRole('heading', { name: /^carry hook own/ })).toBeVisible()
  await expect(page.getByText(/of .* min; ends between/)).toBeVisible()
  await page.getByRole('button', { name: 'It ended' }).click()
  const { prints } = await (await page.request.get(`/api/prints?printer=${printer}`)).json()
  await page.getByRole('textbox', { name: /^Took, foretold/ }).fill(String((prints[0].timeS * 1.12) / 60))
  await page.getByRole('textbox', { name: 'Slow Lugger reel after' }).fill('891')
  await page.getByRole('group', { name: 'Sides' }).getByRole('button', { name: '4' }).click()
  await page.getByLabel('A fault', { exact: true }).fill('a corner lifted')
  await page.getByRole('button', { name: 'Pin it' }).click()
  await page.getByRole('textbox', { name: 'a corner lifted, at height' }).fill('0.3')
  await page.getByLabel('Note', { exact: true }).fill('Came out **well**.')
  await page.getByRole('button', { name: 'Keep it' }).click()

  await expect(page.getByRole('region', { name: 'What it taught' })).toContainText('Slow Lugger accelerates')
  await expect(page.getByRole('table', { name: 'Constants before and after' })).toContainText('Acceleration that your machine keeps')
  await expect(page.getByRole('img', { name: 'a corner lifted at 0.3 mm' })).toBeVisible()
  await expect(page.locator('strong', { hasText: 'well' })).toBeVisible()
  await expectAccessible(page)

  await begin(page, lineup)
  expect(await rangeOf(page)).toBeLessThan(0.9 * before)
  await page.keyboard.press('Escape')

  // Left out it never was.
  await page.goto(`/log/${prints[0].id}`)
  await page.getByRole('button', { name: 'Leave it out' }).click()
  await expect(page.getByText('This is what it would teach.')).toBeVisible()
  await begin(page, lineup)
  expect(await rangeOf(page)).toBeCloseTo(before, 0)
})

test('the day book is read by keys, found by words, and looked back upon', async ({ page }) => {
  await page.goto('/log')
  const book = page.getByRole('listbox', { name: 'Prints' })
  await book.focus()
  await page.keyboard.press('End')
  await expect(page.getByRole('heading', { name: /everyday/ })).toBeVisible()
  await expect(page.getByText(/began 2026-(08-3[01]|09-\d+)/)).toBeVisible()
  await page.getByLabel('Find in names, notes and faults').fill('ruled out')
  await expect(book.getByRole('option')).toHaveCount(1)
  await book.getByRole('option').click()
  await expect(page.locator('strong', { hasText: 'Ruled out' })).toBeVisible()
  await page.getByLabel('Find in names, notes and faults').fill('')
  await choose(page.getByRole('combobox', { name: 'Came out' }), 'spoiled')
  await expect(book.getByRole('option')).toHaveCount(1)
  await expect(page.getByRole('img', { name: 'came loose and was dragged along at 41.6 mm' })).toBeVisible()
  await choose(page.getByRole('combobox', { name: 'Came out' }), '')
  await page.getByRole('button', { name: 'Looking back' }).click()
  await expect(page.getByRole('img', { name: /of \d+ prints ended within their 80 % range/ })).toBeVisible()
  const saving = page.waitForEvent('download')
  await page.getByRole('button', { name: 'CSV' }).click()
  expect((await saving).suggestedFilename()).toBe('prints.csv')
  await page.getByRole('group', { name: 'By' }).getByRole('button', { name: 'part' }).click()
  await page.getByRole('button', { name: 'finial', exact: true }).click()
  await expect(page.getByRole('region', { name: 'Trail of finial' })).toContainText('Brim none → outer')
  await expectAccessible(page)
})

test('what cannot be is said beside the field, and a print that was never begun is taken away', async ({ page }) => {
  const { lineup } = await ownLineup(page, 'Idle Lugger')
  await begin(page, lineup)
  await page.getByRole('button', { name: 'Put it into the log for later' }).click()
  await expect(page.getByRole('table', { name: 'Foretold' })).toBeVisible()
  await test.step('at 200 % all of it is reached', async () => {
    const usual = page.viewportSize()!
    await page.setViewportSize(zoomedIn)
    await expectReached(page)
    await page.setViewportSize(usual)
  })
  await page.getByRole('button', { name: 'It is already made' }).click()
  await page.getByRole('group', { name: 'It came out' }).getByRole('button', { name: 'spoiled' }).click()
  await page.getByRole('textbox', { name: 'At a height of' }).fill('400')
  await expect(page.getByText('0 to 9.0')).toBeVisible()
  await page.getByRole('button', { name: 'Cancel' }).click()
  await page.getByRole('button', { name: 'Take it away' }).click()
  await expect(page).toHaveURL(/\/log(\?|$)/)
})

test('printed on the stand-in, weighed on its scale, and the next range is narrower', async ({ page }) => {
  const { lineup, printer } = await ownLineup(page, 'Wired Lugger')
  const { printers } = await (await page.request.get('/api/shelf')).json()
  const { address } = printers.find(({ key }: { key: string }) => key === 'lugger')
  const { starter: _, archived: __, revision, ...record } = printers.find(({ key }: { key: string }) => key === printer)
  await page.request.put(`/api/shelf/printers/${printer}`, { data: { revision, record: { ...record, address } } })
  await begin(page, lineup)
  const before = await rangeOf(page)
  await page.getByRole('button', { name: 'Weigh the reel' }).click()
  await expect(page.getByLabel('Wired Lugger reel on the scale, reel and all')).not.toHaveValue('')
  await page.getByRole('button', { name: 'Send it to the machine' }).click()
  await page.getByRole('button', { name: 'Connect' }).click()
  await page.getByRole('button', { name: 'Heat it and print' }).click()
  const machine = page.getByRole('region', { name: 'Machine' })
  await expect(machine.getByRole('status')).toContainText(/line \d+ of \d+/)
  await machine.getByRole('button', { name: 'Hold' }).click()
  await expect(machine.getByRole('status')).toContainText('held')
  await expectAccessible(page)
  await machine.getByRole('button', { name: 'Go on' }).click()
  await page.getByRole('button', { name: 'Say what came out' }).click({ timeout: 90_000 })
  // Its own clock runs sixty times as fast as the wall's, and is the one that counts.
  await expect(page.getByRole('textbox', { name: /^Took, foretold/ })).not.toHaveValue(/^0/)
  await page.getByRole('button', { name: 'Weigh Wired Lugger reel after' }).click()
  await expect(page.getByRole('textbox', { name: 'Wired Lugger reel after' })).not.toHaveValue('')
  // What came of the program lies on its table, to be looked at, measured and pulled apart.
  await page.getByRole('button', { name: 'Look at the table' }).click()
  await expect(page.getByRole('img', { name: /^What lies on the table: [89]\.\d mm high/ })).toBeVisible()
  await page.getByRole('button', { name: 'Pull it apart' }).click()
  await expect(page.getByText(/parted between its layers at \d+ N/)).toBeVisible()
  await page.getByRole('button', { name: 'Measure along Z' }).click()
  await expect(page.getByRole('textbox', { name: 'Size along Z' })).toHaveValue(/^[89]\.\d/)
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByRole('table', { name: 'Constants before and after' })).toContainText('Acceleration that your machine keeps')
  await begin(page, lineup)
  expect(await rangeOf(page)).toBeLessThan(before)
})

test('a question is asked, tried one change at a time, and what did nothing is ruled out', async ({ page }) => {
  await page.goto('/log?view=experiments')
  await expect(page.getByRole('region', { name: 'Ruled out' })).toContainText('Retraction')
  await expect(page.getByText('likely wet → dry helped once')).toBeVisible()
  await page.getByLabel('A question').fill('Does a brim hold the finial?')
  await page.getByRole('button', { name: 'Ask' }).click()
  const own = page.getByRole('article', { name: 'Does a brim hold the finial?' })
  await own.getByRole('combobox', { name: 'It began with' }).click()
  await page.getByRole('option', { name: /finial everyday$/ }).click()
  await expect(own.getByText('Where it began.')).toBeVisible()
  await own.getByRole('combobox', { name: 'Next try' }).click()
  await page
    .getByRole('option', { name: /finial everyday, brim/ })
    .last()
    .click()
  // Brim and its width are two settings: nothing can be ruled out, and that is said.
  await expect(own.getByText('2 things were changed at once')).toBeVisible()
  await own.getByRole('group', { name: 'Try 2' }).getByRole('button', { name: 'helped' }).click()
  await expect(own.getByRole('group', { name: 'Try 2' }).getByRole('button', { name: 'helped' })).toHaveAttribute('aria-pressed', 'true')
  const saving = page.waitForEvent('download')
  await own.getByRole('button', { name: 'Markdown' }).click()
  expect((await saving).suggestedFilename()).toMatch(/\.md$/)
  await expectAccessible(page)
  await own.getByRole('button', { name: 'Delete' }).click()
  await expect(own).toHaveCount(0)
})

test('in the trainer a tower is read, and the truth is told afterwards', async ({ page }) => {
  await page.goto('/log?view=trainer')
  await expect(page.getByRole('img', { name: /^Temperature tower: .* strings and \d+ holes/ })).toBeVisible()
  await expect(page.getByText('It is', { exact: true })).toHaveCount(0)
  await page.getByRole('textbox', { name: 'You read' }).fill('205')
  await page.getByRole('button', { name: 'How far off is it?' }).click()
  await expect(page.getByText('You were off by')).toBeVisible()
  await expect(page.getByText('1 tower read')).toBeVisible()
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Another tower' }).click()
  await expect(page.getByText('You were off by')).toHaveCount(0)
  await page.getByRole('group', { name: 'Tower' }).getByRole('button', { name: 'Retraction' }).click()
  await expect(page.getByRole('img', { name: /^Retraction tower/ })).toBeVisible()
})
