import { type QueueContent, type QueueJob, queueSchema } from '@sable/contract/queues'
import { describe, expect, it } from 'vitest'
import { mergeQueue } from './mergeQueue'
import { jobOf } from './putIntoQueue'

const queue = (jobs: readonly QueueJob[], more: Partial<QueueContent> = {}): QueueContent => ({
  ...queueSchema.parse({ name: 'fair', machines: [{ printer: 'dory' }] }),
  jobs: [...jobs],
  ...more,
})
const [a, b, c, d] = ['a', 'b', 'c', 'd'].map((id) => ({ ...jobOf([], id), id })) as [QueueJob, QueueJob, QueueJob, QueueJob]
const ids = ({ jobs }: QueueContent): string => jobs.map(({ id }) => id).join('')

describe('a change of a queue that was changed meanwhile', () => {
  it('is put beside what others changed in the same job', () => {
    const merged = mergeQueue(queue([a, b]), queue([a, { ...b, copies: 3 }]), queue([a, { ...b, heldTo: 'dory' }]))
    expect(merged.jobs).toEqual([a, { ...b, copies: 3, heldTo: 'dory' }])
  })

  it('takes out what it took out, puts in what it put in where it was put, and keeps what others put in', () => {
    expect(ids(mergeQueue(queue([a, b]), queue([a]), queue([a, b, d])))).toBe('ad')
    expect(ids(mergeQueue(queue([a, b]), queue([a, c, b]), queue([a, b, d])))).toBe('acbd')
    expect(ids(mergeQueue(queue([a, b]), queue([b, a]), queue([a, b, d])))).toBe('bad')
    // An order that only others changed is theirs.
    expect(ids(mergeQueue(queue([a, b]), queue([a, { ...b, copies: 2 }]), queue([b, a])))).toBe('ba')
  })

  it('does not bring back what others took out', () => {
    expect(ids(mergeQueue(queue([a, b]), queue([a, { ...b, copies: 2 }]), queue([a])))).toBe('a')
  })

  it('goes field by field in everything else', () => {
    const merged = mergeQueue(queue([]), queue([], { name: 'market' }), queue([], { quiet: { from: '22:00', to: '07:00' } }))
    expect(merged).toMatchObject({ name: 'market', quiet: { from: '22:00', to: '07:00' } })
  })
})
