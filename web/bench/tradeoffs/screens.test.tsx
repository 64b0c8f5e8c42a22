import type { FoundVariant, Search, SearchSpec } from '@sable/contract/search'
import type { AllFigures, FigureLimit } from '@sable/core/search/figures'
import { fireEvent, render, screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { choose } from '../../testing/choose'
import { BenchOn, Surroundings } from '../../testing/LedgerOnDesk'
import { candidateOf, lineupOf } from '../../testing/lineups'
import { FoundBar } from './FoundBar'
import { PointPanel } from './PointPanel'
import { type Box, limitOn, namedOf, type Point, pointsOf, withLimit } from './plot'
import { Scatter } from './Scatter'
import { SearchForm } from './SearchForm'

const figures = (time: number, strength: number, stops = 0): AllFigures => ({
  time,
  unslowed: time,
  cooling: 1,
  strength,
  surface: 10,
  filament: 1,
  cost: 1,
  gloss: 0.5,
  sway: 0,
  strings: 0,
  fit: 0.1,
  warp: 0.3,
  stops,
})
const variants: FoundVariant[] = [figures(600, 50), figures(1200, 90), figures(900, 40, 1)].map((own, position) => ({
  position,
  choices: [position],
  figures: own,
}))
const points = pointsOf(variants)
const time = { figure: 'time', better: 'less' } as const
const strength = { figure: 'strength', better: 'more' } as const
const spec: SearchSpec = {
  lineupId: lineupOf().id,
  partId: lineupOf().partId,
  placement: lineupOf().placement,
  purpose: lineupOf().purpose,
  base: candidateOf('everyday'),
  dimensions: [{ kind: 'setting', name: 'wallCount', values: [2, 3, 4] }],
  objectives: [time, strength],
  limits: [],
  budget: 3,
  seed: 1,
}
const user = userEvent.setup()

describe('asking for a search', () => {
  const begun = vi.fn<(spec: SearchSpec) => Promise<void>>(async () => {})
  const form = (before?: SearchSpec) =>
    render(
      <BenchOn content={lineupOf()}>
        <SearchForm lineupId={lineupOf().id} before={before} onBegin={begun} />
      </BenchOn>,
    )
  const search = (): HTMLButtonElement => screen.getByRole('button', { name: 'Search' })
  beforeEach(() => begun.mockClear())

  it('begins from what people turn first, and says how many variants that makes', async () => {
    form()
    // Five heights, four counts of walls, seven densities and four speeds.
    expect(screen.getByText(/At most 300 of 560 variants/)).toBeTruthy()
    await user.click(search())
    expect(begun.mock.calls[0]![0]).toMatchObject({
      base: { name: 'everyday' },
      dimensions: [{ name: 'layerHeight', values: [0.12, 0.16, 0.2, 0.24, 0.28] }, { name: 'wallCount' }, { name: 'infillDensity' }, {}],
      objectives: [{ figure: 'time' }, { figure: 'surface' }, { figure: 'strength' }],
      budget: 300,
      seed: 1,
    })
  })

  it('begins from what was asked for last', () => {
    form(spec)
    expect(screen.getByLabelText<HTMLInputElement>('Values of Walls').value).toBe('2, 3, 4')
    expect(screen.getByText('All 3 variants are tried.')).toBeTruthy()
  })

  it('says beside its field what cannot be read, and does not begin', async () => {
    form(spec)
    await user.type(screen.getByLabelText('Values of Walls'), ', many')
    expect(screen.getByText('"many" is no number.')).toBeTruthy()
    expect(search().disabled).toBe(true)
    await user.click(screen.getByRole('button', { name: 'Let Walls be' }))
    expect(screen.getByText('Let something vary.')).toBeTruthy()
  })

  it('takes records of the shelf, one of them at least', async () => {
    form(spec)
    await user.click(screen.getByRole('button', { name: 'Shelf or orientation' }))
    await user.click(await screen.findByRole('menuitem', { name: 'Material' }))
    expect(screen.getByText('Choose at least one.')).toBeTruthy()
    for (const name of ['PLA', 'PETG']) {
      await user.click(screen.getByRole('button', { name: 'Choose' }))
      await user.click(await screen.findByRole('menuitem', { name }))
    }
    expect(screen.getByText('At most 3 of 6 variants are tried; fewer when nothing new turns up.')).toBeTruthy()
    await user.click(search())
    expect(begun.mock.calls[0]![0].dimensions[1]).toEqual({ kind: 'material', keys: ['pla', 'petg'] })
  })

  it('needs something that matters, and matte may be better than glossy', async () => {
    form(spec)
    await user.click(screen.getByLabelText('Time'))
    await user.click(screen.getByLabelText('Strength'))
    expect(screen.getByText('Say what matters.')).toBeTruthy()
    await user.click(screen.getByLabelText('Gloss'))
    await choose(user, 'Which gloss is better', 'matte')
    await user.click(search())
    expect(begun.mock.calls[0]![0].objectives).toEqual([{ figure: 'gloss', better: 'less' }])
  })
})

describe('the plot of what was found', () => {
  const picked = vi.fn<(point: Point | undefined) => void>()
  const brushed = vi.fn<(box: Box | undefined) => void>()
  let limits: readonly FigureLimit[] = []

  function Plot() {
    const [own, setOwn] = useState<readonly FigureLimit[]>([{ figure: 'time', most: 1000 }])
    limits = own
    return (
      <Scatter
        width={600}
        height={400}
        points={points}
        x={time}
        y={strength}
        colour={{ figure: 'surface', low: 0, high: 20 }}
        size={undefined}
        limits={own}
        marks={[{ name: 'everyday', figures: figures(800, 60) }]}
        named={namedOf(points, own)}
        picked={undefined}
        brush={undefined}
        onPick={picked}
        onHover={() => {}}
        onBrush={brushed}
        onLimit={(axis, value) => setOwn(withLimit(own, axis, value))}
      />
    )
  }
  beforeEach(() => {
    picked.mockClear()
    brushed.mockClear()
    render(<Plot />)
  })
  const plot = (): SVGSVGElement => screen.getByRole<HTMLElement>('group') as unknown as SVGSVGElement

  it('tells in words how many there are and how many are on the front', () => {
    // Within 1000 s the second variant is out, and the third is beaten by the first.
    expect(plot().getAttribute('aria-label')).toBe('3 variants by Time and Strength; 1 of them are on the front')
    expect(screen.getByText('everyday')).toBeTruthy()
  })

  it('has limits that arrows move and Delete takes away', () => {
    const limit = screen.getByRole('slider', { name: 'Limit of Time' })
    expect(limit.getAttribute('aria-valuetext')).toBe('Time at most 17 min')
    fireEvent.keyDown(limit, { key: 'ArrowLeft' })
    const moved = limitOn(limits, 'time')!
    expect(moved).toBeLessThan(1000)
    fireEvent.keyDown(screen.getByRole('slider', { name: 'Limit of Time' }), { key: 'ArrowRight' })
    expect(limitOn(limits, 'time')).toBeCloseTo(1000, 6)
    fireEvent.keyDown(screen.getByRole('slider', { name: 'Limit of Time' }), { key: 'Delete' })
    expect(limits).toEqual([])
  })

  it('is picked from by a click and brushed by a drag', () => {
    const at = (clientX: number, clientY: number) => ({ clientX, clientY, button: 0, pointerId: 1 })
    fireEvent.pointerDown(plot(), at(58, 360))
    fireEvent.pointerUp(plot(), at(58, 360))
    expect(picked).toHaveBeenCalledOnce()
    fireEvent.pointerDown(plot(), at(100, 100))
    fireEvent.pointerMove(plot(), at(300, 250))
    const box = brushed.mock.calls.at(-1)![0]!
    expect(box.low[0]).toBeLessThan(box.high[0])
    expect(box.low[1]).toBeLessThan(box.high[1])
    fireEvent.pointerUp(plot(), at(300, 250))
    // A drag picks nothing.
    expect(picked).toHaveBeenCalledOnce()
  })
})

describe('a variant', () => {
  it('tells its choices, its figures and how they differ from the first column, and becomes a column', async () => {
    const taken = vi.fn()
    render(
      <PointPanel
        spec={spec}
        point={points[1]}
        named={namedOf(points, [])}
        first={{ name: 'everyday', figures: figures(600, 100) }}
        nameOf={(_, key) => key}
        onPick={() => {}}
        onTake={taken}
      />,
    )
    const panel = within(screen.getByRole('complementary', { name: 'Variants' }))
    expect(panel.getByText('Walls').nextSibling?.textContent).toBe('3')
    expect(panel.getAllByText('Time').at(-1)!.nextSibling?.textContent).toBe('20 min+10.0 min')
    expect(panel.getByText('Strength').nextSibling?.textContent).toBe('90 N−10 N')
    await user.click(panel.getByRole('button', { name: 'As a column' }))
    expect(taken).toHaveBeenCalledWith(points[1])
  })

  it('that a risk would stop says so', () => {
    render(
      <PointPanel
        spec={spec}
        point={points[2]}
        named={[]}
        first={undefined}
        nameOf={(_, key) => key}
        onPick={() => {}}
        onTake={() => {}}
      />,
    )
    expect(screen.getByText('A risk would stop this one.')).toBeTruthy()
    expect(screen.getByText('None meets all limits.')).toBeTruthy()
  })
})

describe('the bar of a search', () => {
  it('sets a limit in the middle of what was found, and takes it away', async () => {
    const search = { id: 'a', spec, state: 'done', done: 3, of: 3, createdAt: '2026-11-01T08:00:00Z' } as Search
    function Bar() {
      const [limits, setLimits] = useState<readonly FigureLimit[]>([])
      return (
        <>
          <FoundBar
            search={search}
            searches={[search]}
            found={{ axes: { x: time, y: strength, colour: time, size: undefined }, points, limits, setLimits }}
            name="hook"
            onTable={() => {}}
            onRemove={() => {}}
          />
          <output>{JSON.stringify(limits)}</output>
        </>
      )
    }
    render(
      <Surroundings>
        <Bar />
      </Surroundings>,
    )
    const choose = async (name: string): Promise<void> => {
      await user.click(screen.getByRole('button', { name: 'Limits' }))
      await user.click(await screen.findByRole('menuitem', { name }))
    }
    await choose('Limit time')
    expect(screen.getByRole('status').textContent).toBe('[{"figure":"time","most":900}]')
    await choose('No limit of time')
    expect(screen.getByRole('status').textContent).toBe('[]')
  })
})
