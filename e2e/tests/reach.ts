import { expect, type Page } from '../desk'

/** 1280 × 800 at 200 % (WCAG 2.2, 1.4.4 and 1.4.10). */
export const zoomedIn = { width: 640, height: 400 }

/** What is pressed or typed into and stands beyond the right edge, where nothing scrolls to it. */
export const outOfReach = (page: Page): Promise<string[]> =>
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

/** The page does not scroll sideways, and all that is pressed or typed into is reached. */
export async function expectReached(page: Page): Promise<void> {
  expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBeLessThanOrEqual(0)
  expect(await outOfReach(page)).toEqual([])
}
