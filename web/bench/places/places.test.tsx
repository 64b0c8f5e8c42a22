import type { LineupContent } from '@sable/contract/lineup'
import type { PictureSeen } from '@sable/core/physics/finish/pictureSeen'
import { act, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { openLineup, undo, useDesk } from '../../desk/deskStore'
import { keyOf, requestFor, useForecasts } from '../../predictions/predictionStore'
import { BenchOn } from '../../testing/LedgerOnDesk'
import { candidateOf, lineupOf, shelf, storedPart } from '../../testing/lineups'
import { FacePanel } from './FacePanel'
import { SeenPictures } from './SeenPictures'
import { useFacePicking } from './useFacePicking'
import { usePlaces } from './usePlaces'

/** What the worker is asked, and how it answers: boxes one by one, in the order that a test wants. */
const worker = vi.hoisted(() => ({ boxRound: vi.fn(), drawPictures: vi.fn() }))
vi.mock('../../predictions/predictionStore', async (original) => ({
  ...(await original<typeof import('../../predictions/predictionStore')>()),
  predictionPool: () => ({ workerOf: () => worker, cancel: () => {}, submit: () => {} }),
}))
const user = userEvent.setup()
/** Asks that wait, oldest first. */
let asked: { at: readonly (readonly number[])[]; answer: (box: object) => void; fail: (why: Error) => void }[]
beforeEach(() => {
  sessionStorage.clear()
  asked = []
  worker.boxRound.mockImplementation((_request, at) => new Promise((answer, fail) => asked.push({ at: structuredClone(at), answer, fail })))
})
const box = (maxX: number) => ({ minX: 0, maxX, minY: 0, maxY: 5, turn: 0, fromZ: 1.04, toZ: 4 })

function Surface({ content }: { content: LineupContent }) {
  const candidate = content.candidates[0]!
  const places = usePlaces(candidate)
  const picking = useFacePicking(candidate, places)
  return (
    <>
      <FacePanel candidate={candidate} places={places} picking={picking} onClose={() => {}} />
      {[1, 2, 3].map((x) => (
        <button key={x} type="button" onClick={() => picking.isPicking && picking.pick({ at: [x, 0, 0] } as never)}>
          face {x}
        </button>
      ))}
    </>
  )
}
function Desk() {
  const content = useDesk((desk) => desk.content)
  return (
    content && (
      <BenchOn content={content}>
        <Surface content={content} />
      </BenchOn>
    )
  )
}
const open = (overrides: object[] = []): void => {
  openLineup(lineupOf([candidateOf('everyday', { layerHeight: 0.2 }, { overrides: overrides as never })]))
  render(<Desk />)
}
const click = (name: string) => user.click(screen.getByRole('button', { name }))
const overrides = () => useDesk.getState().content!.candidates[0]!.overrides

describe('a box round faces', () => {
  it('is made by the first, widened by the next, and each is one step back', async () => {
    open()
    await click('Box round faces')
    await click('face 1')
    await act(async () => asked[0]!.answer(box(10)))
    expect(overrides()).toMatchObject([{ name: 'place 1', fromZ: 1, toZ: 4, box: { maxX: 10 } }])
    await click('face 2')
    expect(asked[1]!.at).toEqual([
      [1, 0, 0],
      [2, 0, 0],
    ])
    await act(async () => asked[1]!.answer(box(20)))
    expect(overrides()).toMatchObject([{ box: { maxX: 20 } }])
    act(undo)
    expect(overrides()).toMatchObject([{ box: { maxX: 10 } }])
  })

  it('is one for clicks that come faster than answers, whichever answer comes first', async () => {
    open()
    await click('Box round faces')
    await click('face 1')
    await click('face 2')
    expect(asked.map(({ at }) => at.length)).toEqual([1, 2])
    await act(async () => asked[1]!.answer(box(20)))
    await act(async () => asked[0]!.answer(box(10)))
    expect(overrides()).toMatchObject([{ box: { maxX: 20 } }])
  })

  it('never takes another place for its own: what was undone meanwhile is made anew', async () => {
    open([{ name: 'the tip', fromZ: 0, values: {} }])
    await click('Box round faces')
    await click('face 1')
    await act(async () => asked[0]!.answer(box(10)))
    expect(overrides().map(({ name }) => name)).toEqual(['the tip', 'place 2'])
    act(undo)
    await click('face 2')
    await act(async () => asked[1]!.answer(box(20)))
    expect(overrides()).toMatchObject([{ name: 'the tip' }, { name: 'place 2', box: { maxX: 20 } }])
    expect(overrides()[0]).not.toHaveProperty('box')
  })

  it('says why none could be made, and goes on with the faces before', async () => {
    open()
    await click('Box round faces')
    await click('face 1')
    await act(async () => asked[0]!.answer(box(10)))
    await click('face 2')
    await act(async () => asked[1]!.fail(new Error('The worker ended.')))
    expect(screen.getByRole('alert').textContent).toBe('The worker ended.')
    await act(async () => asked[2]!.answer(box(10)))
    await click('face 3')
    expect(screen.queryByRole('alert')).toBeNull()
    expect(asked[3]!.at).toEqual([
      [1, 0, 0],
      [3, 0, 0],
    ])
    await user.keyboard('{Escape}')
    expect(screen.getByRole('button', { name: 'Box round faces' })).toBeTruthy()
  })
})

describe('a picture on the part', () => {
  const picture = (times: number) => ({ times, columns: 2, rows: 2, greys: '0ff0', darkSpeed: 20, lightSpeed: 60, lay: 'wrapped' })
  const seen = (more: Partial<PictureSeen> = {}, figures: Partial<PictureSeen['figures']> = {}): PictureSeen => ({
    of: 0,
    columns: 2,
    rows: 2,
    widthMm: 20,
    heightMm: 10,
    askedMmS: Float32Array.of(20, 60, 60, 20),
    seenMmS: Float32Array.of(30, 50, 50, Number.NaN),
    figures: { name: 'sign', contrastLeft: 0.504, heldBy: undefined, timeS: 600, addedS: 90, ...figures },
    ...more,
  })
  const show = (answer: Promise<readonly PictureSeen[]>, times: number) => {
    const candidate = candidateOf(
      'plain',
      {},
      { overrides: [{ name: 'sign', fromZ: 0, toZ: 8, values: {}, picture: picture(times) }] as never },
    )
    const lineup = lineupOf([candidate])
    openLineup(lineup)
    const key = keyOf(requestFor(candidate, useDesk.getState().content!, storedPart, shelf)!)
    useForecasts.setState({ [candidate.id]: { state: 'done', key } as never })
    worker.drawPictures.mockReturnValue(answer)
    return render(
      <BenchOn content={useDesk.getState().content!}>
        <SeenPictures candidate={candidate} chosen={0} />
      </BenchOn>,
    )
  }

  it('is told beside what was asked: what is left of it, and what it costs', async () => {
    show(Promise.resolve([seen()]), 1)
    const figure = await screen.findByRole('figure', { name: 'What will be seen of the picture' })
    expect(figure.textContent).toMatch(/50 % of its contrast is left\. Its wall takes 10 min, 1\.5 min more than at 60 mm\/s/)
    expect(screen.getByRole('img', { name: 'The picture as asked' }).getAttribute('height')).toBe('2')
    expect(screen.getByRole('img', { name: 'The picture as it will be seen' })).toBeTruthy()
  })

  it('says that no wall runs through it, that it is being run, and why it cannot be', async () => {
    const { unmount } = show(Promise.resolve([seen({ rows: 0 }, { timeS: 0 })]), 2)
    expect(screen.getByRole('status').textContent).toBe('Running the picture …')
    expect(await screen.findByText('No outer wall runs through it.')).toBeTruthy()
    unmount()
    show(Promise.reject(new Error('The worker ended.')), 3)
    expect((await screen.findByRole('alert')).textContent).toBe('The worker ended.')
  })
})
