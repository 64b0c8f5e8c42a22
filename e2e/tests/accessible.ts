import AxeBuilder from '@axe-core/playwright'
import { expect, type Page } from '../desk'

/** What is shown passes the rules of WCAG 2.2 AA that a machine can check. */
export async function expectAccessible(page: Page, except: readonly string[] = []): Promise<void> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
    .disableRules([...except])
    .analyze()
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`)).toEqual([])
}
