import { expect, type Page, test } from '../desk'
import { LedgerPage } from '../tests/ledgerPage'
import { openScan } from './openScan'

const print = (figure: string, values: object): boolean => process.stdout.write(`${JSON.stringify({ figure, ...values })}\n`)

/** Notes every task that keeps the page from answering for more than 50 ms (W3C Long Tasks API). */
async function watchTasks(page: Page): Promise<void> {
  await page.evaluate(() => {
    const tasks: number[] = []
    const observer = new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) tasks.push(duration)
    })
    observer.observe({ entryTypes: ['longtask'] })
    Object.assign(window, { tasks, observer })
  })
}

/** A page that hides its long tasks would make every figure a good one. */
async function expectTold(page: Page): Promise<void> {
  const { longestMs } = await during(page, async () => {
    // Of the page's own: what a debugger runs is not counted as a task.
    await page.evaluate(() => {
      setTimeout(() => {
        const until = performance.now() + 150
        while (performance.now() < until);
      }, 20)
    })
    await page.waitForTimeout(600)
  })
  expect(longestMs).toBeGreaterThanOrEqual(140)
}

/** What was noted while something was done, ms. */
async function during(page: Page, work: () => Promise<void>): Promise<{ longestMs: number; over100: number; frames: number }> {
  await page.evaluate(() => {
    Object.assign(window, { frames: 0 })
    ;(window as unknown as { tasks: number[] }).tasks.length = 0
    const count = (): void => {
      ;(window as unknown as { frames: number }).frames++
      requestAnimationFrame(count)
    }
    requestAnimationFrame(count)
  })
  const from = Date.now()
  await work()
  const seconds = (Date.now() - from) / 1000
  // Entries come once the page has time for them.
  await page.waitForTimeout(300)
  return page.evaluate((s) => {
    const { tasks, frames } = window as unknown as { tasks: number[]; frames: number }
    return {
      longestMs: Math.round(Math.max(0, ...tasks)),
      over100: tasks.filter((ms) => ms > 100).length,
      frames: Math.round(frames / s),
    }
  }, seconds)
}

test('views of the scan', async ({ page }) => {
  const id = await openScan(page)
  await page.goto(`/bench/${id}/layers`)
  const height = page.getByRole('slider', { name: 'Height' })
  await height.waitFor({ timeout: 120_000 })
  await page.waitForTimeout(3000)
  await watchTasks(page)
  await expectTold(page)
  const box = (await height.boundingBox())!
  const scrub = async (): Promise<void> => {
    await page.mouse.move(box.x + 100, box.y + 60)
    await page.mouse.down()
    for (let i = 0; i <= 90; i++) await page.mouse.move(box.x + 100, box.y + 60 + (i * (box.height - 90)) / 90)
    await page.mouse.up()
  }
  print('views.layers.scrub', await during(page, scrub))

  await page.getByRole('link', { name: 'surface' }).click()
  const solid = page.getByRole('img', { name: /wearing a map/ })
  await solid.waitFor({ timeout: 120_000 })
  await page.waitForTimeout(3000)
  const at = (await solid.boundingBox())!
  const turn = async (): Promise<void> => {
    await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2)
    await page.mouse.down()
    for (let i = 0; i <= 60; i++) await page.mouse.move(at.x + at.width / 2 + 4 * i, at.y + at.height / 2 + i)
    await page.mouse.up()
  }
  const point = async (): Promise<void> => {
    for (let i = 0; i <= 60; i++) await page.mouse.move(at.x + at.width * (0.35 + i / 200), at.y + at.height / 2)
  }
  print('views.surface.turn', await during(page, turn))
  print('views.surface.point', await during(page, point))
})

test('a search of 500 variants of the carry hook, and brushing it', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await page.getByRole('link', { name: 'trade-offs' }).click()
  const form = page.getByRole('region', { name: 'New search' })
  await form.getByLabel('Variants at most').fill('500')
  const from = Date.now()
  await form.getByRole('button', { name: 'Search', exact: true }).click()
  await expect(page.getByText(/^Done/)).toBeVisible({ timeout: 400_000 })
  const seconds = (Date.now() - from) / 1000
  const [search] = await (await page.request.get(`/api/searches?lineup=${page.url().split('/')[4]}`)).json()
  const { done, reused, computed } = search
  print('search.carryHook500', { seconds: Number(seconds.toFixed(1)), variants: done, stagesReused: reused, stagesComputed: computed })

  await watchTasks(page)
  const plot = (await page.getByRole('group', { name: /variants by/ }).boundingBox())!
  const brush = async (): Promise<void> => {
    await page.mouse.move(plot.x + 120, plot.y + 60)
    await page.mouse.down()
    for (let i = 0; i <= 60; i++) await page.mouse.move(plot.x + 120 + 7 * i, plot.y + 60 + 4 * i)
    await page.mouse.up()
  }
  print('views.tradeoffs.brush', await during(page, brush))
})

test('the page while loads are solved', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.openCopy()
  await ledger.solved()
  await watchTasks(page)
  await expectTold(page)
  // On the ledger, three columns solved anew: from when their figures are there.
  for (const [column, density] of [
    [0, 22],
    [1, 33],
    [2, 12],
  ] as const) {
    await ledger.cell('infillDensity', column).click()
    await page.keyboard.type(String(density))
    await page.keyboard.press('Enter')
  }
  await ledger.settled()
  print('views.ledger.solving', await during(page, () => ledger.solved()))
  // On Load, drawn as well; what a driver compiles for the first drawing is its own.
  await page.getByRole('link', { name: 'load' }).click()
  await page.getByText(/drawn moved/).waitFor()
  await page.getByRole('button', { name: 'Case', exact: true }).click()
  const cases = page.getByRole('region', { name: 'Cases' })
  for (const end of ['at +Y', 'at −Y']) {
    await cases.getByRole('combobox', { name: 'Or all of the end' }).click()
    await page.getByRole('option', { name: end }).click()
  }
  const solved = page.getByRole('region', { name: 'Solved', exact: true })
  await expect(solved).toContainText('in “Case 1”')
  await page.waitForTimeout(2000)
  const before = await solved.innerText()
  const other = async (): Promise<void> => {
    await cases.getByRole('textbox', { name: 'So much' }).fill('20')
    await expect(solved).not.toHaveText(before)
    await expect(solved).toContainText('in “Case 1”')
  }
  print('views.load.solving', await during(page, other))
})
