import type { Problem } from '@sable/contract/problem'
import { QueryClient } from '@tanstack/react-query'
import { describe, expect, it, vi } from 'vitest'
import { RequestError } from '../client'
import { type Kept, keptWriter } from './keptWriter'

interface Question extends Kept {
  readonly question: string
  readonly verdict?: string
}

const problem = (status: number, code: string): RequestError =>
  new RequestError({ type: 'about:blank', title: code, status, detail: `${code}.`, code, where: '', remedy: 'Look.' } as Problem)

/** A server that keeps one question and answers when it is let, and a page that has read it. */
async function page() {
  let kept: Question[] = [{ id: 'q', revision: 1, changedAt: 'at first', question: 'why?' }]
  const waiting: (() => void)[] = []
  const written: Question[] = []
  const queryKey = ['questions']
  const queries = new QueryClient()
  queries.setQueryData(queryKey, kept)
  const put = (one: Question): void => {
    kept = [{ ...one, revision: one.revision + 1, changedAt: `write ${one.revision}` }]
  }
  const change = keptWriter<Question>({
    queryKey,
    list: async () => kept,
    async write(one) {
      await new Promise<void>((resolve) => waiting.push(resolve))
      written.push(one)
      if (one.question === '') throw problem(400, 'question-empty')
      if (kept.length === 0) throw problem(404, 'question-gone')
      if (one.revision !== kept[0]!.revision) throw problem(409, 'question-changed')
      put(one)
      return kept
    },
  })(queries)
  const seen = (): Question | undefined => queries.getQueryData<Question[]>(queryKey)?.[0]
  const answer = async (): Promise<void> => {
    await vi.waitFor(() => expect(waiting.length).toBeGreaterThan(0))
    waiting.shift()!()
    await new Promise((resolve) => setTimeout(resolve))
  }
  return { seen, change, answer, written, put, elsewhere: (next: Question[]) => (kept = next), kept: () => kept[0] }
}

describe('kept things that are changed faster than the server answers', () => {
  it('show each change at once and store it after the one before: no other window was there', async () => {
    const { seen, change, answer, kept } = await page()
    const first = seen()!
    const all = [change(first, { ...first, question: 'why does it string?' })]
    expect(seen()).toMatchObject({ question: 'why does it string?', revision: 1 })
    // The second is made from what was on screen before the first: what it does not say stays as the first left it.
    all.push(change(first, { ...first, verdict: 'wet' }))
    await answer()
    expect(seen()).toMatchObject({ question: 'why does it string?', verdict: 'wet', revision: 2 })
    await answer()
    await Promise.all(all)
    expect(kept()).toMatchObject({ question: 'why does it string?', verdict: 'wet', revision: 3 })
    expect(seen()).toEqual(kept())
  })

  it('store what is taken out, and write from the revision that the server told last', async () => {
    const { seen, change, answer, kept, written } = await page()
    const first = seen()!
    const one = change(first, { ...first, verdict: 'wet' })
    await answer()
    await one
    // This page has not drawn the answer yet.
    const other = change({ ...first, verdict: 'wet' }, first)
    expect(seen()).not.toHaveProperty('verdict')
    await answer()
    await other
    expect(written.at(-1)).toMatchObject({ revision: 2 })
    expect(kept()).not.toHaveProperty('verdict')
  })

  it('say so where another window was first, and show what stands there', async () => {
    const { seen, change, answer, put } = await page()
    const first = seen()!
    put({ ...first, question: 'theirs' })
    const mine = change(first, { ...first, question: 'mine' })
    mine.catch(() => {})
    await answer()
    await expect(mine).rejects.toMatchObject({ problem: { code: 'question-changed' } })
    expect(seen()).toMatchObject({ question: 'theirs', revision: 2 })
    // And go on from there.
    const again = change(seen()!, { ...seen()!, question: 'mine after all' })
    await answer()
    await again
    expect(seen()).toMatchObject({ question: 'mine after all', revision: 3 })
  })

  it('say so where it was deleted meanwhile', async () => {
    const { seen, change, answer, elsewhere } = await page()
    elsewhere([])
    const mine = change(seen()!, { ...seen()!, question: 'mine' })
    mine.catch(() => {})
    await answer()
    await expect(mine).rejects.toMatchObject({ problem: { code: 'question-gone' } })
    expect(seen()).toBeUndefined()
  })

  it('are not changed at all where the server refuses: what stands there is in sight, and nothing waits unseen', async () => {
    const { seen, change, answer, kept } = await page()
    const mine = change(seen()!, { ...seen()!, question: '' })
    mine.catch(() => {})
    await answer()
    await expect(mine).rejects.toMatchObject({ problem: { code: 'question-empty' } })
    expect(seen()).toMatchObject({ question: 'why?', revision: 1 })
    const next = change(seen()!, { ...seen()!, verdict: 'wet' })
    await answer()
    await next
    expect(kept()).toMatchObject({ question: 'why?', verdict: 'wet', revision: 2 })
  })
})
