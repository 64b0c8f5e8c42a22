import { expect, type Page, test } from '../desk'
import { expectAccessible } from './accessible'
import { choose } from './choose'
import { LedgerPage } from './ledgerPage'

/** A spool of its own for each test, so that none sees what another has read. */
async function newSpool(page: Page, name: string, change: object = {}): Promise<string> {
  const today = new Date().toISOString().slice(0, 10)
  const spool = { key: 'new', name, material: 'pla', netG: 1000, weighings: [], dried: [today], defaults: {}, ...change }
  const { key } = await (await page.request.post('/api/shelf/spools', { data: spool })).json()
  return key
}

const open = (page: Page, spool: string, kind: string, printer = 'lugger') =>
  page.goto(`/trials?spool=${spool}&printer=${printer}&nozzle=bore-0.4&kind=${kind}`)
const printed = (page: Page) => page.getByRole('button', { name: 'I print this' })
const bands = (page: Page, name: string) => page.getByRole('listbox', { name: `Bands of the ${name} trial` })

test('from a new spool to a temperature and a flow that change the ledger’s figures', async ({ page }) => {
  const spool = await newSpool(page, 'Unknown reel')
  const parts = await (await page.request.get('/api/parts')).json()
  const candidate = {
    id: crypto.randomUUID(),
    name: 'own',
    printer: 'lugger',
    nozzle: 'bore-0.4',
    material: 'pla',
    spool,
    values: { layerHeight: 0.3, lineWidth: 0.6, outerWallSpeed: 200, innerWallSpeed: 250, infillSpeed: 250, topBottomSpeed: 200 },
    overrides: [],
  }
  const lineup = {
    name: 'Of the unknown reel',
    partId: parts.find(({ name }: { name: string }) => name === 'battery tray').id,
    placement: { scale: 1, rotateDeg: [0, 0, 0] },
    purpose: { kind: 'work', seen: 'all', load: { kind: 'bend', axis: 'weakest' }, limits: {} },
    candidates: [candidate],
  }
  const { id } = await (await page.request.post('/api/lineups', { data: lineup })).json()
  const ledger = new LedgerPage(page)
  await ledger.open(`/bench/${id}/ledger`)
  await expect(ledger.cell('nozzleTemperature', 0)).toContainText('210')
  const flowBefore = await ledger.cell('flowLimit', 0).innerText()
  const timeBefore = await ledger.value('time', 0).innerText()

  let actions = 0
  const act = async (work: () => Promise<unknown>): Promise<void> => {
    actions++
    await work()
  }
  await act(() => open(page, spool, 'temperature'))
  await expect(page.getByLabel('Plan', { exact: true }).getByRole('status')).toContainText(/min/)
  await act(() => printed(page).click())
  await expect(page.getByRole('heading', { name: /^Read the print of/ })).toBeVisible()
  await act(() => bands(page, 'temperature').focus())
  for (const key of ['1', '1', '1', '2', '2', '3', '3']) await act(() => page.keyboard.press(key))
  await expect(page.getByRole('region', { name: 'Result' })).toContainText('best at 208')
  await act(() => page.getByRole('button', { name: 'Keep this reading' }).click())
  await act(() => page.getByRole('button', { name: /^Write: Unknown reel: nozzle temperature 208/ }).click())
  await expect(page.getByText(/^Written\. Unknown reel/)).toBeVisible()
  await act(() => page.getByRole('button', { name: /^Flow ladder/ }).click())
  await act(() => printed(page).click())
  await act(() => page.getByLabel('First fault in front').fill('5.2'))
  await act(() => page.getByLabel('First fault at the back').fill('6.8'))
  await act(() => page.getByRole('button', { name: 'Keep this reading' }).click())
  await expect(page.getByRole('button', { name: 'Leave it out' })).toBeVisible()
  await expect(page.getByRole('table', { name: 'Constants before and after' })).toContainText('Flow at which the hot end fails')
  expect(actions).toBeLessThan(40)

  await ledger.open(`/bench/${id}/ledger`)
  await expect(ledger.cell('nozzleTemperature', 0)).toContainText('208')
  await expect(ledger.cell('flowLimit', 0)).not.toHaveText(flowBefore)
  await expect(ledger.value('time', 0)).not.toHaveText(timeBefore)
  const timeRead = await ledger.value('time', 0).innerText()

  // What is left out was never read.
  await open(page, spool, 'flowLadder')
  await page.getByRole('button', { name: 'Leave it out' }).click()
  await expect(page.getByRole('button', { name: 'Take it in' })).toBeVisible()
  await ledger.open(`/bench/${id}/ledger`)
  await expect(ledger.value('time', 0)).not.toHaveText(timeRead)
})

test('a number that was written is taken back with one press', async ({ page }) => {
  const spool = await newSpool(page, 'Fickle reel')
  await open(page, spool, 'overhang')
  await printed(page).click()
  await expect(page.getByRole('heading', { name: /^Read the print of/ })).toBeVisible()
  await bands(page, 'overhang').focus()
  for (const key of ['1', '1', '1', '1', '1', '1', '2', '3']) await page.keyboard.press(key)
  await page.getByRole('button', { name: 'Keep this reading' }).click()
  await page.getByRole('button', { name: /^Write: Fickle reel/ }).click()
  const settings = async () =>
    (await (await page.request.get('/api/shelf')).json()).spools.find(({ key }: { key: string }) => key === spool).defaults
  await expect.poll(settings).toEqual({ supportAngle: 55 })
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect.poll(settings).toEqual({})
})

test('a wet spool refuses retraction, unless one insists; impossible bands and heights are told', async ({ page }) => {
  const spool = await newSpool(page, 'Wet reel', { material: 'petg', dried: [] })
  await open(page, spool, 'retraction')
  await expect(page.getByText('wet filament defeats every retraction')).toBeVisible()
  await expect(printed(page)).toBeDisabled()
  await page.getByLabel('Print it all the same; that is kept with it').click()
  await expect(printed(page)).toBeEnabled()
  await page.getByLabel('Pulled back, one by one').fill('0 1 0.5')
  await expect(page.getByRole('alert')).toContainText('Band 3 (0.5) is out of order')
  await page.getByLabel('Pulled back, one by one').fill('0 1')
  await expect(page.getByRole('alert')).toHaveCount(0)

  await open(page, spool, 'flowLadder')
  await printed(page).click()
  await page.getByLabel('First fault in front').fill('300')
  await expect(page.getByRole('alert')).toContainText('300 mm is above the top of the print')
  await expect(page.getByRole('button', { name: 'Keep this reading' })).toBeDisabled()
  await page.getByLabel('First fault in front').fill('4')
  await expect(page.getByRole('alert')).toHaveCount(0)
})

test('a trial opens on the bench, its bands as overrides; its files are saved', async ({ page }) => {
  await open(page, await newSpool(page, 'Benched reel'), 'temperature')
  await expect(printed(page)).toBeEnabled()
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'G-code', exact: true }).click()
  expect((await download).suggestedFilename()).toBe('temperature-trial.gcode')
  await page.getByRole('button', { name: 'On the bench' }).click()
  await expect(page).toHaveURL(/\/bench\/[^/]+\/layers/)
  await page.getByRole('link', { name: 'Ledger' }).click()
  await expect(page.getByText('band 1: 190').first()).toBeVisible()
})

test('what is known is seen over printers and spools, contradictions with both; the place is accessible in both themes', async ({
  page,
}) => {
  await page.goto('/trials?spool=rope-ends&printer=dory&kind=temperature')
  await expect(page.getByRole('navigation', { name: 'Ladder of trials' })).toContainText('contradicts: 220 °C')
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Printers × spools' }).click()
  const sheet = page.getByRole('dialog')
  await choose(sheet.getByLabel('Trial'), { label: 'Temperature' })
  await expect(sheet.getByRole('button', { name: /^Storm black PLA on Lugger 250: 208 °C, known/ })).toBeVisible()
  await expectAccessible(page)
  await sheet.getByRole('button', { name: /^Storm black PLA on Lugger 250/ }).click()
  await expect(page.getByLabel('Spool', { exact: true })).toContainText('Storm black')
  await page.getByRole('button', { name: 'Paper theme' }).click()
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Sable theme' }).click()
})
