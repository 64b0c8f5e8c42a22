import { expect, test } from '../desk'
import { expectAccessible } from './accessible'
import { LedgerPage } from './ledgerPage'
import { expectReached, outOfReach, zoomedIn } from './reach'
import { visit } from './visit'

test.use({ viewport: zoomedIn })

test('at 200 % everything of each place is reached, and the page does not scroll sideways', async ({ page }) => {
  await page.goto('/bench/new')
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
    await test.step(path, async () => {
      await visit(page, path)
      const place = page.getByRole('navigation', { name: 'Places' }).locator('[aria-current=page]')
      await expect(place).toHaveAttribute('href', `/${path.split('/')[1]}`)
      await expect(page.getByRole('heading', { level: 1 })).toBeAttached()
      await page.waitForLoadState('networkidle')
      await expectReached(page)
      await expectAccessible(page)
    })
})

test('at 200 % everything of each print of the day book is reached', async ({ page }) => {
  await page.goto('/log')
  const prints = page.getByRole('listbox', { name: 'Prints' })
  await expect(prints.getByRole('option').first()).toBeVisible()
  const inSight = await prints.getByRole('option').count()
  expect(inSight).toBeGreaterThan(8)
  for (let i = 0; i < inSight; i++) {
    await prints.getByRole('option').nth(i).click()
    await expect(page.getByRole('article')).toBeVisible()
    await page.waitForLoadState('networkidle')
    await expectReached(page)
  }
})

test('at 200 % everything of each view of the bench is reached', async ({ page }) => {
  await new LedgerPage(page).openCopy(2)
  const bench = new URL(page.url()).pathname.replace(/ledger$/, '')
  for (const view of ['ledger', 'matrix?family=everyday', 'steps', 'trade-offs', 'layers', 'load', 'sheet'])
    await test.step(view, async () => {
      await visit(page, bench + view)
      const link = page.getByRole('link', { name: view.replace(/\?.*/, ''), exact: true }).and(page.locator('[aria-current=page]'))
      await expect(view === 'sheet' ? page.locator('article.sheet').first() : link).toBeVisible()
      await expect(page.locator('main section').last()).toBeVisible()
      expect(await outOfReach(page)).toEqual([])
      // What is half behind an edge that it is scrolled from counts as small.
      await expectAccessible(page, ['target-size'])
    })
})
