import { expect, type Locator, type Page } from '../desk'

/** A scale at which the demo's hook is computed soon. */
export const SMALL = 0.5

/** The ledger as a person sees it: figures and cells by row and column. */
export class LedgerPage {
  constructor(readonly page: Page) {}

  async open(path: string): Promise<void> {
    await this.page.goto(path)
    await this.settled()
  }

  /**
   * Opens a fresh copy of the demo's lineup, so that no test sees what another has done.
   *
   * @param columns how many of its candidates are wanted: each takes time to compute
   * @param values of candidates by their names, in the place of their own
   * @param scale of the part; where its size does not matter, `SMALL` is told of alike, and computed in a fraction of the time
   */
  async openCopy(columns = 3, values: Readonly<Record<string, object>> = {}, scale = 1): Promise<void> {
    const server = this.page.request
    const known = (await (await server.get('/api/lineups')).json()) as { id: string; name: string; demo: boolean }[]
    // By its name: which one was touched last depends on other tests.
    const demo = known.find((lineup) => lineup.demo && lineup.name.startsWith('Carry hook'))
    const content = await (await server.get(`/api/lineups/${demo?.id}`)).json()
    const candidates = content.candidates.slice(0, columns).map((candidate: { name: string; values: object }) => ({
      ...candidate,
      id: crypto.randomUUID(),
      values: values[candidate.name] ?? candidate.values,
    }))
    const placement = { ...content.placement, scale }
    const copy = await (await server.post('/api/lineups', { data: { ...content, placement, candidates } })).json()
    await this.open(`/bench/${copy.id}/ledger`)
  }

  /** Waits until every column has its figures and everything is saved. */
  async settled(): Promise<void> {
    await expect(this.page.getByRole('grid')).toBeVisible()
    await expect(this.page.locator('[data-row=risks] td .animate-pulse')).toHaveCount(0)
    await expect(this.page.locator('[data-row=time] td .opacity-40')).toHaveCount(0)
    await expect(this.page.getByText('Saved', { exact: true })).toBeVisible()
  }

  get columns(): Locator {
    return this.page.getByRole('button', { name: /^Candidate: .*\. Rename$/ })
  }

  async names(): Promise<string[]> {
    return this.columns.allInnerTexts()
  }

  figure(id: string, column: number): Locator {
    return this.page.locator(`[data-row=${id}] td`).nth(column)
  }

  cell(setting: string, column: number): Locator {
    return this.page.locator(`[data-setting=${setting}] td`).nth(column)
  }

  /** A figure without what it is compared with. */
  value(id: string, column: number): Locator {
    return this.figure(id, column).locator('[data-figure]')
  }

  /** Waits until every column's load is solved; until then strength is told by sections. */
  async solved(): Promise<void> {
    await expect(this.page.locator('[data-row=strength] td').filter({ hasText: 'by sections' })).toHaveCount(0)
  }

  /** Every figure that stands in a column. */
  async figures(column: number): Promise<string[]> {
    await this.solved()
    return Promise.all(['time', 'filament', 'cost', 'surface', 'strength', 'gloss'].map((id) => this.value(id, column).innerText()))
  }

  /** Clicks a cell, types over it and presses Enter. */
  async type(setting: string, column: number, text: string): Promise<void> {
    await this.cell(setting, column).click()
    await this.page.keyboard.type(text)
    await this.page.keyboard.press('Enter')
  }

  /** Lets a part that was loaded or chosen take the place of the lineup's own. */
  async replacePart(): Promise<void> {
    await this.page
      .getByRole('alertdialog')
      .getByRole('button', { name: /^Replace/ })
      .click()
  }

  async menu(column: number, item: string): Promise<void> {
    await this.page
      .getByRole('button', { name: /^Actions for / })
      .nth(column)
      .click()
    await this.page.getByRole('menuitem', { name: item }).click()
  }
}
