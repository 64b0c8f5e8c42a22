import { readFileSync } from 'node:fs'
import { setTimeout as wait } from 'node:timers/promises'
import { writeStl } from '@sable/core/formats/writeStl'
import { blockMesh } from '@sable/core/testing/solids'
import { expect, type Page, test } from '../desk'
import { LedgerPage, SMALL } from './ledgerPage'

/** Every answer to a write takes so long, ms. */
async function slowWrites(page: Page, ms: number): Promise<void> {
  await page.route(
    (url) => url.pathname.startsWith('/api/'),
    async (route) => {
      if (route.request().method() === 'PUT') await wait(ms)
      await route.continue()
    },
  )
}

async function newSpool(page: Page, name: string): Promise<string> {
  const spool = { key: 'new', name, material: 'pla', maker: name, netG: 1000, weighings: [], dried: [], defaults: {} }
  return (await (await page.request.post('/api/shelf/spools', { data: spool })).json()).key
}

async function spoolNow(page: Page, key: string): Promise<Record<string, unknown>> {
  const { spools } = await (await page.request.get('/api/shelf')).json()
  return spools.find((spool: { key: string }) => spool.key === key)
}

for (const ms of [150, 400, 1200])
  test(`typing through a form without a pause, each answer taking ${ms} ms, loses nothing and is no conflict`, async ({ page }) => {
    const key = await newSpool(page, `Typed ${ms}`)
    await slowWrites(page, ms)
    await page.goto(`/shelf/spools/${key}`)
    await page.getByLabel('Filament when new').click()
    await page.keyboard.press('Control+a')
    // New weight, empty reel, price, (used up), nozzle from and to, bed from and to.
    for (const text of ['750', '224.5', '22', '', '215', '230', '55', '62']) {
      await page.keyboard.type(text, { delay: 30 })
      await page.keyboard.press('Tab')
    }
    await expect.poll(async () => (await spoolNow(page, key)).bedRange).toEqual([55, 62])
    expect(await spoolNow(page, key)).toMatchObject({ netG: 750, reelG: 224.5, price: 22, nozzleRange: [215, 230] })
    for (const [label, value] of [
      ['Filament when new', '750'],
      ['Empty reel', '224.5'],
      ['Price', '22'],
      ['Nozzle from', '215'],
      ['Nozzle to', '230'],
      ['Bed to', '62'],
    ] as const)
      await expect(page.getByLabel(label)).toHaveValue(value)
    await expect(page.getByRole('alertdialog')).toHaveCount(0)
  })

test('a record that another window changed is a question, and what is chosen is stored', async ({ page }) => {
  const key = await newSpool(page, 'Contested')
  await page.goto(`/shelf/spools/${key}`)
  const weight = page.getByLabel('Filament when new')
  await expect(weight).toHaveValue('1000')
  const { revision, starter: _, archived: __, ...record } = await spoolNow(page, key)
  await page.request.put(`/api/shelf/spools/${key}`, { data: { revision, record: { ...record, netG: 800 } } })
  await weight.fill('900')
  await weight.press('Tab')
  const question = page.getByRole('alertdialog', { name: 'Contested was changed in another window' })
  await expect(question).toContainText('900')
  await expect(question).toContainText('800')
  await question.getByRole('button', { name: 'Store mine' }).click()
  await expect.poll(async () => (await spoolNow(page, key)).netG).toBe(900)
})

test('a part that nothing uses is deleted and comes back; one in use says where', async ({ page }) => {
  await page.request.post('/api/parts?fileName=spare.stl', {
    data: Buffer.from(writeStl(blockMesh(7, 6, 5))),
    headers: { 'Content-Type': 'application/octet-stream' },
  })
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1, {}, SMALL)
  await page.getByRole('region', { name: 'Part' }).getByRole('button', { name: 'carry hook' }).click()
  await page.getByRole('option', { name: 'All parts …' }).click()
  const sheet = page.getByRole('dialog', { name: 'Parts' })
  await sheet.getByRole('button', { name: 'Delete carry hook' }).click()
  await expect(sheet.getByRole('alert')).toContainText('This part is in use: lineup')
  await sheet.getByRole('button', { name: 'Delete spare' }).click()
  await expect(sheet.getByRole('button', { name: 'Delete spare' })).toHaveCount(0)
  await sheet.getByRole('button', { name: 'Undo' }).click()
  await expect(sheet.getByRole('button', { name: 'Delete spare' })).toBeVisible()
})

test('a lineup goes out with its model and records, and comes in again where they are not', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1, {}, SMALL)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    (async () => {
      await page.getByRole('button', { name: 'Export' }).click()
      await page.getByRole('menuitem', { name: /^Lineup file/ }).click()
    })(),
  ])
  expect(download.suggestedFilename()).toMatch(/\.lineup\.zip$/)
  const buffer = readFileSync(await download.path())
  const address = page.url()
  await page.getByLabel('Lineup file').setInputFiles({ name: 'carried.lineup.zip', mimeType: 'application/zip', buffer })
  await expect(page).not.toHaveURL(address)
  await ledger.settled()
  expect(await ledger.names()).toEqual(['everyday'])
  await page.getByLabel('Lineup file').setInputFiles({ name: 'cut.zip', mimeType: 'application/zip', buffer: buffer.subarray(0, 900) })
  await expect(page.getByRole('alert')).toContainText('cut.zip: The archive cannot be unpacked')
})

test('a worker that ends in the middle is replaced, and every column has its figures in the end', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(2)
  expect(page.workers().length).toBeGreaterThanOrEqual(2)
  await ledger.type('layerHeight', 0, '0.06')
  await ledger.type('layerHeight', 1, '0.07')
  // What the browser does when a worker takes too much memory: it is gone without a word.
  await page
    .workers()[0]!
    .evaluate(() => self.close())
    .catch(() => {})
  await ledger.settled()
  for (const column of [0, 1]) await expect(ledger.value('time', column)).toHaveText(/\d/)
})

test('a server that hangs is told after ten seconds; what was typed is kept, and saved when it goes on', async ({ page, desk }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1, {}, SMALL)
  expect(desk.kill('server', 'SIGSTOP')).toBe(true)
  try {
    await ledger.type('bottomLayers', 0, '9')
    await expect(page.getByText(/has not answered for 10 s.*What you typed is kept here/)).toBeVisible()
    await ledger.type('topLayers', 0, '8')
  } finally {
    desk.kill('server', 'SIGCONT')
  }
  await ledger.settled()
  await expect(page.getByRole('alertdialog')).toHaveCount(0)
  await page.reload()
  await ledger.settled()
  await expect(ledger.cell('bottomLayers', 0)).toContainText('9')
  await expect(ledger.cell('topLayers', 0)).toContainText('8')
})

test('the whole desk goes out as one file and comes back in, after a question', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy(1, {}, SMALL)
  const id = /bench\/([^/]+)/.exec(page.url())![1]
  await page.goto('/shelf/spools')
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    (async () => {
      await page.getByRole('button', { name: 'File' }).click()
      await page.getByRole('menuitem', { name: /^Back up everything/ }).click()
    })(),
  ])
  const backup = { name: 'desk.zip', mimeType: 'application/zip', buffer: readFileSync(await download.path()) }
  await page.request.delete(`/api/lineups/${id}`)
  await page.getByLabel('Backup file').setInputFiles(backup)
  const question = page.getByRole('alertdialog', { name: 'Put desk.zip in the place of everything here?' })
  await expect(question).toContainText(/The desk holds \d+ lineups/)
  await question.getByRole('button', { name: 'Replace everything' }).click()
  await expect(page).toHaveURL(/\/bench\//)
  await ledger.open(`/bench/${id}/ledger`)
  expect(await ledger.names()).toEqual(['everyday'])
})
