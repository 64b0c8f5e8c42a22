import type { Print, PrintLine } from '@sable/contract/prints'
import type { Shelf } from '@sable/contract/shelf'
import { asModelled } from '@sable/core/mesh/place'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { fireEvent, render, screen } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { pointsOf } from './OffChart'
import { OutcomeForm } from './OutcomeForm'
import { TickScale } from './TickScale'
import { scores } from './trainerScores'

const line = (more: Partial<PrintLine> = {}): PrintLine => ({
  id: '1f1c1a52-3b0a-4a43-9a26-0d5b1a6d7a01',
  name: 'finial',
  profile: 'everyday',
  printer: 'dory',
  nozzle: 'bore-0.4',
  material: 'pla',
  state: 'good',
  plannedAt: '2026-03-01T09:00:00.000Z',
  leftOut: false,
  timeS: 3600,
  timeRange: [3400, 3800],
  massG: 20,
  massRange: [18, 22],
  cost: 1,
  heightMm: 80,
  actualS: 3700,
  faults: [],
  ...more,
})

describe('two ticks on one scale', () => {
  it('say by how much a print was off, and whether its range held it', () => {
    render(<TickScale line={line()} />)
    expect(screen.getByRole('img', { name: /^2\.8 % off, within the range of 6 %/ })).toBeTruthy()
  })

  it('say nothing of one that did not come to its end', () => {
    render(<TickScale line={line({ state: 'spoiled', actualS: 900 })} />)
    expect(screen.getByRole('img', { name: 'not timed' })).toBeTruthy()
  })
})

describe('looking back', () => {
  it('counts what was timed and not left out, the oldest first, in per cent', () => {
    const points = pointsOf(
      [
        line({ id: '3', actualS: 3960 }),
        line({ id: '2', leftOut: true }),
        line({ id: '1', state: 'stopped' }),
        line({ id: '0', actualS: 3600 }),
      ],
      'time',
    )
    expect(points.map(({ off }) => off)).toEqual([0, expect.closeTo(10, 9)])
    expect(points[1]!.high).toBeCloseTo(5.56, 2)
    expect(pointsOf([line()], 'mass')).toEqual([])
  })
})

describe('what came out', () => {
  const print = {
    line: line({ state: 'running', startedAt: '2026-03-01T09:00:00.000Z', clockS: 3725, actualS: undefined }),
    frozen: {
      printer: 'dory',
      nozzle: 'bore-0.4',
      material: 'pla',
      spool: 'reel',
      beforeG: 500,
      placement: asModelled,
      foretold: { sizeMm: [30, 20, 80] },
    },
    photos: [],
  } as unknown as Print
  const shelf = { spools: [{ key: 'reel', name: 'Reel', archived: false }] } as unknown as Shelf
  const onKeep = vi.fn(async () => {})
  const open = () =>
    render(
      <QueryClientProvider client={new QueryClient()}>
        <OutcomeForm print={print} shelf={shelf} lines={[]} onKeep={onKeep} onCancel={() => {}} onRefusal={() => {}} />
      </QueryClientProvider>,
    )
  afterEach(() => onKeep.mockClear())

  it('begins with the machine’s own clock and the reel as it was weighed before', () => {
    open()
    expect((screen.getByRole('textbox', { name: /^Took/ }) as HTMLInputElement).value).toBe('62.1')
    expect((screen.getByRole('textbox', { name: 'Reel before' }) as HTMLInputElement).value).toBe('500')
  })

  it('is kept with marks, faults at heights, and only what was said', () => {
    open()
    fireEvent.click(screen.getByRole('button', { name: 'usable' }))
    fireEvent.change(screen.getByRole('textbox', { name: 'Reel after' }), { target: { value: '478' } })
    fireEvent.click(screen.getAllByRole('button', { name: '4' })[0]!)
    fireEvent.change(screen.getByLabelText('A fault'), { target: { value: 'strings' } })
    fireEvent.click(screen.getByRole('button', { name: 'Pin it' }))
    fireEvent.change(screen.getByRole('textbox', { name: 'strings, at height' }), { target: { value: '12' } })
    fireEvent.click(screen.getByRole('button', { name: 'Keep it' }))
    expect(onKeep).toHaveBeenCalledWith(
      {
        result: 'usable',
        actualS: 3726,
        spools: [{ spool: 'reel', beforeG: 500, afterG: 478 }],
        marks: { sides: 4 },
        faults: [{ what: 'strings', atZ: 12 }],
        note: '',
      },
      expect.any(String),
    )
  })

  it('asks for the height only of what failed, and takes none above the top', () => {
    open()
    expect(screen.queryByRole('textbox', { name: 'At a height of' })).toBeNull()
    fireEvent.click(screen.getByRole('button', { name: 'spoiled' }))
    fireEvent.change(screen.getByRole('textbox', { name: 'At a height of' }), { target: { value: '200' } })
    expect(screen.getByText('0 to 80.0')).toBeTruthy()
  })
})

describe('scores of the trainer', () => {
  it('are kept in this browser, and no tower is shown twice', () => {
    localStorage.clear()
    expect(scores.next()).toBe(1)
    scores.add({ seed: 1, kind: 'flowLadder', off: 0.1 })
    expect(scores.next()).toBe(2)
    localStorage.setItem('sable.trainer', 'not JSON')
    expect(scores.all()).toEqual([])
  })
})
