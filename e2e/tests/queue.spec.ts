import { readFileSync } from 'node:fs'
import { expect, type Page, test } from '../desk'
import { expectAccessible } from './accessible'
import { LedgerPage, SMALL } from './ledgerPage'

const FAIR = 'The fair on Saturday'

/**
 * Opens a copy of the demo's queue with some of its jobs, as nobody has touched it and with somebody there always, so that no test sees what another
 * has done.
 *
 * @param wanted by name: every one more makes every plan longer
 */
async function openFresh(page: Page, wanted: readonly string[], search = ''): Promise<void> {
  const { request } = page
  const queues = (await (await request.get('/api/queues')).json()) as { name: string; machines: { printer: string }[]; jobs: Job[] }[]
  const fair = queues.find(({ name }) => name === FAIR)!
  const own = fair.jobs.filter(({ name }) => wanted.includes(name))
  expect(own.length).toBe(wanted.length)
  const jobs = own.map(({ name, ways, copies, plates }) => ({ id: crypto.randomUUID(), name, ways, copies, plates }))
  const machines = fair.machines.map(({ printer }) => ({ printer }))
  const { id } = await (await request.post('/api/queues', { data: { name: 'Untouched', machines, jobs } })).json()
  await page.goto(`/queue/${id}${search}`)
  await expect(page.getByRole('group', { name: 'Lanes', exact: true }).getByRole('button').first()).toBeVisible()
}
interface Job {
  readonly name: string
  readonly ways: object[]
  readonly copies: number
  readonly plates: boolean
}

test('the fair is planned: bars with their ends, moved and begun by keyboard, undone, taken along', async ({ page }) => {
  // By its name: which one was touched last depends on other tests.
  const queues = (await (await page.request.get('/api/queues')).json()) as { id: string; name: string }[]
  await page.goto(`/queue/${queues.find(({ name }) => name === FAIR)?.id}`)
  const lanes = page.getByRole('group', { name: 'Lanes' })
  const bars = lanes.getByRole('button')
  await expect(page.getByRole('region', { name: 'The plan' })).toContainText(/All is done by .* no plan ends before/)
  await expect(bars).toHaveCount(21)
  await expect(page.getByRole('region', { name: 'Reels' })).toContainText(/Rope brown.*will not last: runs out at/s)
  await expect(page.getByRole('region', { name: 'What if' })).toContainText(/Dory 220 is away.*cannot be printed/s)
  await expectAccessible(page)
  // What is long scrolls within the page, and the page itself does not.
  expect(await page.evaluate(() => document.documentElement.scrollHeight)).toBe(800)

  // A bar moves to the next printer where one of its ways is for that one, and back.
  const hook = lanes.getByRole('button', { name: /^carry hook, sturdy, for the gate on Lugger/ })
  await hook.focus()
  await page.keyboard.press('Alt+ArrowUp')
  await expect(lanes.getByRole('button', { name: /^carry hook, sturdy, for the gate on Dory/ })).toBeVisible()
  await page.getByRole('button', { name: /^Undo: .*moved/ }).click()
  await expect(hook).toBeVisible()
  // Where none is, it says what would do.
  await lanes.getByRole('button', { name: /^carry hook in amber on Cutter/ }).focus()
  await page.keyboard.press('Alt+ArrowUp')
  await expect(page.getByRole('alert')).toContainText(/was never foretold for Lugger 250.*put a column for Lugger 250/)

  // It is taken along as a calendar and as rows.
  const [calendar] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Calendar' }).click()])
  const text = readFileSync(await calendar.path()).toString()
  expect(text).toMatch(/^BEGIN:VCALENDAR\r\n/)
  expect(text.match(/SUMMARY:(Dory|Lugger|Cutter) \d+: /g)).toHaveLength(21)
  const [csv] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'CSV' }).click()])
  expect(
    readFileSync(await csv.path())
      .toString()
      .trim()
      .split('\r\n'),
  ).toHaveLength(22)

  // What is begun stands in the log, keeps its printer busy, and is out of the plan.
  const amber = lanes.getByRole('button', { name: /^carry hook in amber on Cutter/ })
  await amber.focus()
  await page.keyboard.press('Enter')
  await page.getByRole('region', { name: 'Picked' }).getByRole('button', { name: 'It starts now' }).click()
  await expect(bars).toHaveCount(20)
  await expect(page.getByRole('row', { name: /carry hook in amber/ })).toContainText('1 running')
  await page.goto('/log')
  await page.getByRole('option', { name: /running carry hook sturdy Cutter/ }).click()
  await expect(page.getByRole('article', { name: 'Print of carry hook' })).toContainText('running')
})

test('copies, deadlines and hours move the plan; a column of the bench goes into the queue', async ({ page }) => {
  await openFresh(page, ['finial, spare', 'shade, amber', 'finial without a brim', 'carry hook to show', 'shade for the stand'])
  const lanes = page.getByRole('group', { name: 'Lanes' })
  const before = await lanes.getByRole('button').count()
  // Two in a row, the first of which is still on its way: both stand, and no other window is spoken of.
  await page.route('**/api/queues/*', async (route) => {
    const answer = await route.fetch()
    await page.waitForTimeout(500)
    await route.fulfill({ response: answer })
  })
  await page.getByLabel('Copies of finial, spare').fill('3')
  await page.keyboard.press('Enter')
  await page.getByLabel('shade, amber is wanted by').fill('2026-01-01T09:00')
  await expect(lanes.getByRole('button')).toHaveCount(before + 2)
  await expect(page.getByRole('region', { name: 'The plan' })).toContainText('Late: shade, amber')
  await expect(page.getByText(/changed in another window/)).toHaveCount(0)
  await page.unroute('**/api/queues/*')
  // Another window changes something else meanwhile: both stand.
  const other = await page.context().newPage()
  await other.goto(page.url())
  await other.getByLabel('Copies of finial without a brim').fill('2')
  await other.keyboard.press('Enter')
  await expect(other.getByRole('group', { name: 'Lanes' }).getByRole('button')).toHaveCount(before + 3)
  await page.getByLabel('Copies of carry hook to show').fill('2')
  await page.keyboard.press('Enter')
  await expect(lanes.getByRole('button')).toHaveCount(before + 4)
  await other.close()

  // And so it stands on paper, day by day.
  await page.getByRole('link', { name: 'page to print' }).click()
  await expect(page.getByRole('region', { name: 'Day sheet' }).getByRole('row', { name: /shade for the stand/ })).toContainText(
    'Lugger 250',
  )
  await expectAccessible(page)
  await page.goBack()
  await page.getByRole('checkbox', { name: 'away' }).first().click()
  await expect(lanes).not.toContainText('Dory 220')

  await new LedgerPage(page).openCopy(1, {}, SMALL)
  await page.getByRole('button', { name: 'Actions for everyday' }).click()
  await page.getByRole('menuitem', { name: /^Print it/ }).click()
  await page.getByRole('button', { name: 'Into the queue' }).click()
  await expect(page).toHaveURL(/\/queue\//)
  await expect(page.getByRole('row', { name: /carry hook, everyday/ }).first()).toBeVisible()
  await page.getByRole('button', { name: 'Paper theme' }).click()
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Sable theme' }).click()
})

test('a new queue says how it is filled; one that is deleted comes back with one press', async ({ page }) => {
  await page.goto('/queue')
  await page.getByRole('button', { name: 'New queue' }).click()
  await expect(page.getByText(/No job yet. On the bench/)).toBeVisible()
  await page.getByRole('button', { name: 'Delete' }).click()
  await expect(page.getByText(/No job yet. On the bench/)).toHaveCount(0)
  await page.getByRole('button', { name: 'Bring it back' }).click()
  await expect(page.getByRole('combobox', { name: 'Queue' })).toBeVisible()
})

test('a bar dragged along the clock says what moved and why; a plate of copies is begun as one print', async ({ page }) => {
  await openFresh(page, ['shade for the stand', 'shade, amber', 'feet for the stand'], '?hours=24')
  const lanes = page.getByRole('group', { name: 'Lanes', exact: true })
  const shade = lanes.getByRole('button', { name: /^shade for the stand/ })
  await expect(shade).toBeVisible()
  await expect(page.getByRole('status')).toHaveCount(0)
  const startOf = async (): Promise<string> => (await shade.getAttribute('aria-label'))!
  const before = await startOf()
  const { x, y, width } = (await shade.boundingBox())!
  await page.mouse.move(x + width / 2, y + 10)
  await page.mouse.down()
  await page.mouse.move(x + width / 2 + 150, y + 12, { steps: 5 })
  await page.mouse.up()
  const moved = page.getByRole('region', { name: 'What moved' })
  await expect(moved).toContainText(/Shade for the stand is put off\..*shade for the stand .*ends .* later/s)
  await expect.poll(startOf).not.toBe(before)
  await shade.focus()
  await page.keyboard.press('Enter')
  const picked = page.getByRole('region', { name: 'Picked' })
  await picked.getByRole('button', { name: /^not before/ }).click()
  await expect(moved).toContainText('may begin at once')
  await moved.getByRole('button', { name: 'I have read what moved' }).click()
  await expect(moved).toHaveCount(0)

  // Six feet stand on one plate: one print of the log, all six are done by it.
  await lanes
    .getByRole('button', { name: /^feet for the stand/ })
    .first()
    .focus()
  await page.keyboard.press('Enter')
  await expect(picked).toContainText('copies 1 to 6, one plate')
  await picked.getByRole('button', { name: 'The plate starts now' }).click()
  await expect(page.getByRole('row', { name: /feet for the stand/ })).toContainText('1 running')
  await expect(lanes.getByRole('button', { name: /^feet for the stand/ })).toHaveCount(0)
})

test('quiet hours, and what would be otherwise, are drawn on the same clock; a reel goes on from another', async ({ page }) => {
  await openFresh(page, ['battery tray, left', 'battery tray, right', 'finial', 'carry hook in amber'])
  await page.getByRole('checkbox', { name: 'Quiet hours, each day' }).click()
  await expect(page.getByText('quiet: nothing is printed')).toBeVisible()
  const whatIf = page.getByRole('region', { name: 'What if' })
  await whatIf.getByRole('checkbox', { name: 'no quiet hours' }).click()
  await whatIf.getByRole('checkbox', { name: /one Dory 220 more/ }).click()
  await expect(page.getByRole('group', { name: 'Lanes if no quiet hours' })).toBeVisible()
  await expect(page.getByRole('group', { name: /Lanes if one Dory 220 more/ })).toContainText('Dory 220, 2nd')
  await whatIf.getByLabel('what if somebody is there from').fill('05:00')
  await expect(whatIf.getByRole('checkbox', { name: 'somebody is there 05:00 to 22:00, every day' })).toBeVisible()
  await page.getByRole('combobox', { name: 'Rope brown PLA, last of the reel goes on from' }).click()
  await page.getByRole('option', { name: 'Storm black PLA' }).click()
  const reels = page.getByRole('region', { name: 'Reels' })
  await expect(reels.getByRole('row', { name: /Rope brown/ })).not.toContainText('will not last')
  await expectAccessible(page)
  await page.getByRole('button', { name: /^Undo/ }).click()
  await expect(reels.getByRole('row', { name: /Rope brown/ })).toContainText('will not last')
})

test('a lineup goes into the queue as one job of which the plan picks the way', async ({ page }) => {
  await new LedgerPage(page).openCopy(3)
  await page.getByRole('button', { name: 'Export' }).click()
  await page.getByRole('menuitem', { name: /^Into the queue/ }).click()
  const sheet = page.getByRole('dialog', { name: /into the queue$/ })
  // What misses a limit of the purpose is not chosen by itself, and says so.
  await expect(sheet.getByRole('checkbox', { checked: true })).toHaveCount(2)
  await expect(sheet.getByRole('listitem').filter({ hasText: 'misses' })).toHaveCount(1)
  await sheet.getByRole('textbox', { name: 'copies' }).fill('2')
  await expectAccessible(page)
  await sheet.getByRole('button', { name: 'Into the queue' }).click()
  const row = page.getByRole('row', { name: /^carry hook carry hook, .* or carry hook, / }).last()
  await expect(row).toBeVisible()
  await expect(row.getByRole('textbox', { name: /^Copies of/ })).toHaveValue('2')
})
