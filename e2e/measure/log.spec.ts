import { expect, test } from '../desk'

const PRINTS = 5000
/** So far it is scrolled a frame, px: as a hand that looks for something does. */
const STEP = 240
const FRAMES = 240

/** A line of the day book, as the server tells it. */
const lineOf = (line: Record<string, unknown>, i: number) => ({
  ...line,
  id: `00000000-0000-4000-8000-${String(i).padStart(12, '0')}`,
  name: `part ${i % 40}`,
  plannedAt: new Date(Date.UTC(2026, 10, 20) - i * 7.2e6).toISOString(),
})

test('scrolling a day book of five thousand prints', async ({ page }) => {
  const { prints } = await (await page.request.get('/api/prints?limit=1')).json()
  const all = Array.from({ length: PRINTS }, (_, i) => lineOf(prints[0], i))
  await page.route('**/api/prints?*', (route) => route.fulfill({ json: { prints: all, total: PRINTS } }))
  await page.goto('/log')
  const book = page.getByRole('listbox', { name: 'Prints' })
  await expect(book.getByRole('option').first()).toBeVisible()
  const frames = await book.evaluate(
    (list, [step, count]) =>
      new Promise<number[]>((resolve) => {
        const took: number[] = []
        let before = performance.now()
        const next = (): void => {
          const now = performance.now()
          took.push(now - before)
          before = now
          if (took.length > count!) resolve(took.slice(1))
          else {
            list.scrollTop += step!
            requestAnimationFrame(next)
          }
        }
        requestAnimationFrame(next)
      }),
    [STEP, FRAMES],
  )
  // The same page, at rest: what a frame takes here at least.
  const idle = await page.evaluate(
    (count) =>
      new Promise<number[]>((resolve) => {
        const took: number[] = []
        let before = performance.now()
        const next = (): void => {
          const now = performance.now()
          took.push(now - before)
          before = now
          if (took.length > count) resolve(took.slice(1))
          else requestAnimationFrame(next)
        }
        requestAnimationFrame(next)
      }),
    FRAMES,
  )
  const ninth = (all: number[]): number => all.sort((a, b) => a - b)[Math.floor(0.9 * all.length)]!
  process.stdout.write(
    `${JSON.stringify({ figure: 'page.logScroll', p90Ms: Number(ninth(frames).toFixed(1)), ratio: Number((ninth(frames) / ninth(idle)).toFixed(2)), to: 'a frame at rest', prints: PRINTS })}\n`,
  )
})
