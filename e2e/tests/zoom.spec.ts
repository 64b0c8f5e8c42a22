import { expect, type Page, test } from '../desk'
import { expectAccessible } from './accessible'
import { LedgerPage } from './ledgerPage'

/** What is pressed or typed into and stands beyond the right edge, where nothing scrolls to it. */
const outOfReach = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const isScrolledTo = (of: Element): boolean => {
      for (let one = of.parentElement; one; one = one.parentElement)
        if (one.scrollWidth > one.clientWidth && /auto|scroll/.test(getComputedStyle(one).overflowX)) return true
      return false
    }
    return [...document.querySelectorAll('main button, main a, main input, main [role=combobox]')]
      .filter((one) => one.getBoundingClientRect().right > innerWidth + 1 && one.getBoundingClientRect().width > 1 && !isScrolledTo(one))
      .map((one) => one.getAttribute('aria-label') ?? one.textContent ?? one.tagName)
  })

// 1280 × 800 at 200 % (WCAG 2.2, 1.4.4 and 1.4.10).
test.use({ viewport: { width: 640, height: 400 } })

for (const path of [
  '/bench/new',
  '/shelf/spools',
  '/shelf/printers/lugger',
  '/shelf/profiles/everyday-pla',
  '/trials',
  '/log',
  '/queue',
  '/handbook/setting/seam',
])
  test(`at 200 % everything of ${path} is reached, and the page does not scroll sideways`, async ({ page }) => {
    await page.goto(path)
    await expect(page.getByRole('heading', { level: 1 })).toBeAttached()
    await page.waitForLoadState('networkidle')
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(640)
    expect(await outOfReach(page)).toEqual([])
    await expectAccessible(page)
  })

test('at 200 % everything of each view of the bench is reached', async ({ page }) => {
  await new LedgerPage(page).openCopy(2)
  const bench = page.url().replace(/ledger$/, '')
  for (const view of ['ledger', 'matrix?family=everyday', 'steps', 'trade-offs', 'layers', 'load', 'sheet'])
    await test.step(view, async () => {
      await page.goto(bench + view)
      await expect(page.locator('main section').last()).toBeVisible()
      expect(await outOfReach(page)).toEqual([])
      // What is half behind an edge that it is scrolled from counts as small.
      await expectAccessible(page, ['target-size'])
    })
})
