import { test } from '../desk'
import { LedgerPage } from '../tests/ledgerPage'
import { openScan } from './openScan'

const ROUNDS = 7
/** Settings of one stage each, and two values to go to and fro between; the first makes nearly everything be computed anew. */
const edits = [
  ['layerHeight', '0.21', '0.2'],
  ['lineWidth', '0.41', '0.4'],
  ['infillDensity', '22', '15'],
] as const

test('from a typed value to its figures, on the scan', async ({ page }) => {
  const ledger = new LedgerPage(page)
  await ledger.open(`/bench/${await openScan(page)}/ledger`)
  let first = 0
  for (const [setting, there, back] of edits) {
    const samples: number[] = []
    for (let round = 0; round < ROUNDS; round++) {
      await ledger.cell(setting, 0).click()
      // A value that has been before is remembered: a little is added each time.
      await page.keyboard.type(`${Number(round % 2 === 0 ? there : back) + round * 1e-4}`)
      const figures = page.locator('[data-row=time] td').first()
      const took = figures.evaluate((cell) => {
        const from = performance.now()
        const isOld = (): boolean => cell.querySelector('.opacity-40') !== null
        return new Promise<number>((resolve, reject) => {
          let began = false
          const look = (): void => {
            if (began && !isOld()) resolve(performance.now() - from)
            else if (performance.now() - from > 30_000) reject(new Error('The figures were not seen to be computed.'))
            else {
              began = isOld()
              requestAnimationFrame(look)
            }
          }
          look()
        })
      })
      await page.keyboard.press('Enter')
      samples.push(await took)
      await ledger.settled()
    }
    const ms = samples.sort((a, b) => a - b)[ROUNDS >> 1]!
    first ||= ms
    process.stdout.write(
      `${JSON.stringify({ figure: `page.${setting}Edit`, medianMs: Math.round(ms), ratio: Number((ms / first).toFixed(2)), to: 'page.layerHeightEdit', rounds: ROUNDS })}\n`,
    )
  }
})
