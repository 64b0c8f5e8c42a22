import { expect, type Page, test } from '../desk'

const ROUNDS = 5
const CANDIDATES = 12

const print = (figure: string, values: object): boolean => process.stdout.write(`${JSON.stringify({ figure, ...values })}\n`)
const middle = (all: number[]): number => all.sort((a, b) => a - b)[all.length >> 1]!

/** Milliseconds from the opening of an address, by a browser that has never seen the application, to what is waited for. */
async function opened(page: Page, path: string, there: (page: Page) => Promise<unknown>): Promise<number> {
  const context = await page
    .context()
    .browser()!
    .newContext({ baseURL: new URL(page.url()).origin, viewport: page.viewportSize() })
  const fresh = await context.newPage()
  await fresh.goto('about:blank')
  const from = performance.now()
  await fresh.goto(path)
  await there(fresh)
  const took = performance.now() - from
  await context.close()
  return took
}

const figures = (page: Page) => page.locator('[data-row=time] [data-figure]')
const all = (count: number) => async (page: Page) => {
  await expect(figures(page)).toHaveCount(count, { timeout: 60_000 })
  await expect(page.locator('[data-row=risks] td .animate-pulse')).toHaveCount(0, { timeout: 60_000 })
}

test('first figures of the demo, all of them, and those of twelve candidates', async ({ page }) => {
  await page.goto('/shelf/spools')
  const known: { id: string; name: string }[] = await (await page.request.get('/api/lineups')).json()
  const { id } = known.find(({ name }) => name.startsWith('Carry hook'))!
  const demo = await (await page.request.get(`/api/lineups/${id}`)).json()
  const twelve = Array.from({ length: CANDIDATES }, (_, i) => ({
    ...demo.candidates[i % 2],
    id: crypto.randomUUID(),
    name: `no. ${i + 1}`,
    values: { ...demo.candidates[i % 2].values, layerHeight: 0.12 + 0.01 * i },
  }))
  const many = await (await page.request.post('/api/lineups', { data: { ...demo, candidates: twelve } })).json()

  const took: Record<'shelf' | 'first' | 'demo' | 'twelve', number[]> = { shelf: [], first: [], demo: [], twelve: [] }
  for (let round = 0; round < ROUNDS; round++) {
    took.shelf.push(await opened(page, '/shelf/spools', (p) => p.getByRole('heading', { level: 1 }).waitFor()))
    took.first.push(await opened(page, `/bench/${id}/ledger`, (p) => figures(p).first().waitFor()))
    took.demo.push(await opened(page, `/bench/${id}/ledger`, all(demo.candidates.length)))
    took.twelve.push(await opened(page, `/bench/${many.id}/ledger`, all(CANDIDATES)))
  }
  const shelf = middle(took.shelf)
  for (const [figure, samples, candidates] of [
    ['page.firstFigures', took.first, 1],
    ['page.demoFigures', took.demo, demo.candidates.length],
    ['page.twelveCandidates', took.twelve, CANDIDATES],
  ] as const)
    print(figure, {
      medianMs: Math.round(middle(samples)),
      ratio: Number((middle(samples) / shelf).toFixed(1)),
      to: 'the shelf opened',
      candidates,
      rounds: ROUNDS,
    })
})
