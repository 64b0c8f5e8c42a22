import { type QueueContent, type QueueJob, queueSchema } from '@sable/contract/queues'
import { type PlannedItem, type QueuePlan, told } from '@sable/core/queue/plan'
import type { Queue } from '@sable/core/queue/queue'
import { schedule } from '@sable/core/queue/schedule'
import { whatIf } from '@sable/core/queue/whatIf'
import type { Spool } from '@sable/core/shelf/spool'
import { fireEvent, render, screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it, vi } from 'vitest'
import { Bar } from './Bar'
import { Picked } from './Picked'
import { Reels } from './Reels'
import { Summary } from './Summary'
import { WhatIf } from './WhatIf'
import { WhatMoved } from './WhatMoved'

const user = userEvent.setup()
const reel = (key: string, name: string, color: string): Spool => ({
  key,
  name,
  material: 'pla',
  color,
  netG: 1000,
  price: 19,
  weighings: [],
  dried: [],
  defaults: {},
})
const spools = [reel('rope-ends', 'Rope brown PLA, last of the reel', '#8a6239'), reel('storm-black', 'Storm black PLA', '#2a2a2e')]
const now = new Date('2026-11-28T12:00:00Z')
const momentAt = (minute: number): string => new Date(now.getTime() + 60_000 * minute).toISOString()

const queue: Queue = {
  printers: ['dory', 'lugger'].map((key) => ({ key, changeMinutes: 10, spoolMinutes: 5 })),
  spools: [
    { key: 'rope-ends', grams: 48, doubtG: 3 },
    { key: 'storm-black', grams: 362, doubtG: 3 },
  ],
  jobs: [
    { id: 'tray', copies: 3, deadline: 100, options: [{ printer: 'dory', minutes: 110, grams: 30, spool: 'rope-ends', perPlate: 2 }] },
    { id: 'hook', copies: 1, options: [{ printer: 'lugger', minutes: 25, grams: 8, spool: 'storm-black' }] },
  ],
}
const plan: QueuePlan = told(schedule(queue))
const content: QueueContent = queueSchema.parse({ name: 'fair', machines: [{ printer: 'dory' }] })

describe('reels of a queue', () => {
  const show = (own: QueueContent = content) => {
    const onChange = vi.fn()
    render(<Reels uses={plan.spools} spools={spools} content={own} jobOf={(id) => id} onChange={onChange} />)
    return onChange
  }

  it('say what is left, what is wanted, what will not last, and what is to be bought for how much', () => {
    show()
    expect(screen.getByRole('row', { name: /Rope brown/ }).textContent).toMatch(/48 ± 3 g90 g-42 gwill not last: runs out at tray/)
    expect(screen.getByRole('row', { name: /Storm black/ }).textContent).toMatch(/362 ± 3 g8 g354 glasts/)
    expect(screen.getByText(/^To buy/).textContent).toMatch(/45 g like Rope brown PLA, last of the reel, a reel of 1000 g for 19 €/)
  })

  it('are told what to become of: used up first, and the rule goes when nothing is left of it', async () => {
    const onChange = show()
    await user.click(within(screen.getByRole('row', { name: /Rope brown/ })).getByRole('checkbox'))
    expect(onChange).toHaveBeenLastCalledWith({ reels: [{ spool: 'rope-ends', useUp: true }] }, expect.stringContaining('Rope brown'))
    const again = show({ ...content, reels: [{ spool: 'storm-black', useUp: true }] })
    await user.click(within(screen.getAllByRole('row', { name: /Storm black/ })[1]!).getByRole('checkbox'))
    expect(again).toHaveBeenLastCalledWith({ reels: [] }, expect.any(String))
  })
})

describe('what if', () => {
  const variants = whatIf(queue, (key) => key)
  const plans = new Map(variants.map(({ id, queue: other }) => [id, told(schedule(other))]))

  it('stands beside the plan with what is gained, lost, late and refused; three are drawn at most', async () => {
    const onShow = vi.fn()
    render(
      <WhatIf variants={variants} plans={plans} end={plan.makespan} momentAt={momentAt} shown={['a', 'b', 'c']} onShow={onShow}>
        hours
      </WhatIf>,
    )
    const row = (name: RegExp): string => screen.getByText(name).closest('li')!.textContent!
    expect(row(/^one dory more/)).toMatch(/−\d/)
    expect(row(/^dory is away/)).toMatch(/1 cannot be printed/)
    await user.click(screen.getByRole('checkbox', { name: 'one dory more' }))
    expect(onShow).toHaveBeenLastCalledWith(['b', 'c', 'more dory'])
  })

  it('says that no printer makes one part faster, where that is all there is to do', () => {
    const one: Queue = { ...queue, jobs: [{ ...queue.jobs[1]!, copies: 1 }] }
    const own = told(schedule(one))
    const others = whatIf(one, (key) => key)
    const found = new Map(others.map(({ id, queue: other }) => [id, told(schedule(other))]))
    render(
      <WhatIf variants={others} plans={found} end={own.makespan} momentAt={momentAt} shown={[]} onShow={() => {}}>
        hours
      </WhatIf>,
    )
    expect(screen.getByText(/none prints one part faster/)).toBeTruthy()
  })

  it('tells that a queue is too large for it', () => {
    render(
      <WhatIf variants={[]} plans={new Map()} end={1} momentAt={momentAt} shown={[]} onShow={() => {}}>
        hours
      </WhatIf>,
    )
    expect(screen.getByText(/too large/)).toBeTruthy()
  })
})

describe('a bar', () => {
  const sight = { x: (minute: number) => minute, right: 1000, perMinute: 1, momentAt, doubtId: 'doubt' }
  const item = plan.items.find(({ of }) => of === 'tray') as PlannedItem
  const show = (own: PlannedItem = item) => {
    const [onPick, onShift] = [vi.fn(), vi.fn()]
    render(
      <svg>
        <title>lanes</title>
        <Bar
          item={own}
          name="tray"
          on="Dory 220"
          top={0}
          sight={sight}
          isPicked={false}
          spoolName={(key) => key}
          onPick={onPick}
          onShift={onShift}
        />
      </svg>,
    )
    return { bar: screen.getByRole('button'), onPick, onShift }
  }

  it('is picked by Enter, and moved by Alt with the arrows: a lane, or half an hour', () => {
    const { bar, onPick, onShift } = show()
    fireEvent.keyDown(bar, { key: 'Enter' })
    expect(onPick).toHaveBeenCalledTimes(1)
    fireEvent.keyDown(bar, { key: 'ArrowDown', altKey: true })
    fireEvent.keyDown(bar, { key: 'ArrowLeft', altKey: true })
    fireEvent.keyDown(bar, { key: 'ArrowRight' })
    expect(onShift.mock.calls.map(([by]) => by)).toEqual([
      { lanes: 1, minutes: 0 },
      { lanes: 0, minutes: -30 },
    ])
  })

  it('is dragged in five minutes, and picked by a press that stays where it is', () => {
    const { bar, onPick, onShift } = show()
    const drag = (dx: number, dy: number): void => {
      fireEvent.pointerDown(bar, { clientX: 10, clientY: 10, button: 0, pointerId: 1 })
      fireEvent.pointerMove(bar, { clientX: 10 + dx, clientY: 10 + dy, pointerId: 1 })
      fireEvent.pointerUp(bar, { clientX: 10 + dx, clientY: 10 + dy, pointerId: 1 })
    }
    drag(1, 2)
    expect([onPick.mock.calls.length, onShift.mock.calls.length]).toEqual([1, 0])
    drag(62, 60)
    expect(onShift).toHaveBeenLastCalledWith({ lanes: 1, minutes: 60 })
    drag(0, -58)
    expect(onShift).toHaveBeenLastCalledWith({ lanes: -1, minutes: 0 })
  })

  it('says when it is late, on whose plate it stands, and where it goes on from', () => {
    const late = {
      ...item,
      deadline: 10,
      isOnPlate: true as const,
      takes: [
        { spool: 'a', grams: 5 },
        { spool: 'b', grams: 5, from: 30 },
      ],
    }
    expect(show(late).bar.getAttribute('aria-label')).toMatch(/, late, on the plate of the one before, goes on from b at/)
  })
})

it('what was picked tells its plate, what it is held to, and takes that back', async () => {
  const [onBegin, onChange] = [vi.fn(), vi.fn()]
  const job = {
    id: 'tray',
    name: 'tray',
    copies: 3,
    ways: [],
    reel: 'own',
    plates: true,
    prints: [],
    onPlate: {},
    heldTo: 'dory',
  } as QueueJob
  const plate = plan.items.filter(({ of }) => of === 'tray').slice(0, 2)
  render(
    <Picked
      item={plate[0]!}
      plate={plate}
      job={{ ...job, notBefore: now.toISOString() }}
      now={now}
      printerName={(key) => key}
      spoolName={(key) => key}
      isBusy={false}
      onBegin={onBegin}
      onChange={onChange}
    />,
  )
  expect(screen.getByRole('region', { name: 'Picked' }).textContent).toContain('copies 1 to 2, one plate')
  await user.click(screen.getByRole('button', { name: /^held to dory/ }))
  expect(onChange.mock.calls[0]![0].heldTo).toBeUndefined()
  expect(onChange.mock.calls[0]![0].notBefore).toBe(now.toISOString())
  await user.click(screen.getByRole('button', { name: 'The plate starts now' }))
  expect(onBegin).toHaveBeenCalled()
})

it('the whole is told with its range, its grams and what is late; and what moved, with more on demand', async () => {
  render(<Summary plan={plan} jobName={(id) => id} at={(minute) => `${Math.round(minute)} min`} />)
  const summary = screen.getByRole('region', { name: 'The plan' }).textContent!
  expect(summary).toMatch(/All is done by \d+ min \(\d+ min to \d+ min in four of five.*4 prints, 98 g\. Late: tray\./)
  const moves = ['a', 'b', 'c', 'd', 'e', 'f'].map((job) => ({ job, from: ['dory'], to: ['lugger'], laterBy: 30 }))
  const onRead = vi.fn()
  render(<WhatMoved told={{ reasons: ['dory is away'], moves }} jobName={(id) => `job ${id}`} printerName={(key) => key} onRead={onRead} />)
  expect(screen.getByText('Dory is away.')).toBeTruthy()
  expect(screen.queryByText('job f')).toBeNull()
  await user.click(screen.getByRole('button', { name: 'and 2 more' }))
  expect(screen.getByText('job f')).toBeTruthy()
  await user.click(screen.getByRole('button', { name: 'I have read what moved' }))
  expect(onRead).toHaveBeenCalled()
})
