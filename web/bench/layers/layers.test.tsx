import { act, fireEvent, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { MemoryRouter, useLocation } from 'react-router'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { choose } from '../../testing/choose'
import { candidateOf } from '../../testing/lineups'
import { CutBar } from './CutBar'
import { LayersBar } from './LayersBar'
import { PlayBar } from './PlayBar'
import { useLayersChoice } from './useLayersChoice'
import { usePlayhead } from './usePlayhead'

describe('the playhead', () => {
  /** Three layers of ten seconds each. */
  function Layers() {
    const [layer, setLayer] = useState(0)
    const playhead = usePlayhead(layer, 10, () => {
      if (layer === 2) return false
      setLayer(layer + 1)
      return true
    })
    return <PlayBar playhead={playhead} layerTime={10} layer={layer} layers={3} before={10 * layer} />
  }
  beforeEach(() => {
    vi.useFakeTimers({ toFake: ['requestAnimationFrame', 'cancelAnimationFrame', 'performance'] })
    render(<Layers />)
  })
  afterEach(() => vi.useRealTimers())
  const time = (): HTMLInputElement => screen.getByLabelText('Time within the layer')
  /** Frame by frame, as a browser draws. */
  const run = (ms: number): void => {
    for (let passed = 0; passed < ms; passed += 16)
      act(() => {
        vi.advanceTimersByTime(16)
      })
  }
  /** Time stands still here, so the list is opened by its key. */
  const watchAt = (option: RegExp): void => {
    fireEvent.keyDown(screen.getByRole('combobox', { name: 'Seconds of printing in one of watching' }), { key: 'Enter' })
    fireEvent.keyDown(screen.getByRole('option', { name: option }), { key: 'Enter' })
  }
  const layer = (): string => screen.getByText(/^layer/).textContent!

  it('stands at the end of a layer that is gone to: all of it is done', () => {
    expect(time().getAttribute('aria-valuetext')).toBe('10.0 of 10.0 s')
  })

  it('begins anew when it plays, as many seconds of printing a second as is chosen, and goes on into the next layer', () => {
    watchAt(/^5 /)
    fireEvent.click(screen.getByRole('button', { name: 'Play' }))
    run(1000)
    expect(Number(time().value)).toBeGreaterThan(4)
    expect(Number(time().value)).toBeLessThan(6)
    expect(layer()).toMatch(/^layer 1 of 3/)
    run(1500)
    expect(layer()).toMatch(/^layer 2 of 3/)
    fireEvent.click(screen.getByRole('button', { name: 'Pause' }))
    const stopped = time().value
    run(1000)
    expect(time().value).toBe(stopped)
  })

  it('stops at the end of the last layer', () => {
    watchAt(/^240 |^4 min/)
    fireEvent.click(screen.getByRole('button', { name: 'Play' }))
    run(2000)
    expect(layer()).toMatch(/^layer 3 of 3, 30 s in/)
    expect(screen.getByRole('button', { name: 'Play' })).toBeTruthy()
    expect(time().getAttribute('aria-valuetext')).toBe('10.0 of 10.0 s')
  })
})

describe('an upright cut', () => {
  it('is moved within the part, and told once it rests', () => {
    const [placed, rested] = [vi.fn(), vi.fn()]
    render(<CutBar axis="x" low={-10} high={10} place={2.5} onPlace={placed} onRest={rested} />)
    const slider = screen.getByLabelText<HTMLInputElement>('Place of the cut along X')
    expect([slider.min, slider.max]).toEqual(['-10', '10'])
    fireEvent.change(slider, { target: { value: '4' } })
    expect(placed).toHaveBeenCalledWith(4)
    expect(rested).not.toHaveBeenCalled()
    fireEvent.keyUp(slider)
    expect(rested).toHaveBeenCalledOnce()
    expect(screen.getByText('2.5 mm')).toBeTruthy()
  })
})

describe('what of the layers is shown', () => {
  const gone = vi.fn<(z: number) => void>()
  const jumps = [
    { id: 'longest', label: 'Longest layer', z: 1 },
    { id: 'check melt', label: 'The hot end falls short', z: 3 },
    { id: 'check sway', label: 'The tip sways', z: 8 },
  ]
  function Bar({ z = 5 }: { z?: number }) {
    const choice = useLayersChoice()
    const { search } = useLocation()
    const one = candidateOf('one')
    return (
      <>
        <LayersBar
          pair={{ of: one, beside: undefined }}
          candidates={[one]}
          choice={choice}
          waiting={0}
          jumps={jumps}
          z={z}
          onZ={gone}
          onColouring={() => {}}
          onCut={() => {}}
          onTable={() => {}}
        />
        <output>{search}</output>
      </>
    )
  }
  const show = (z?: number, at = '/') => {
    window.history.replaceState(null, '', at)
    return render(
      <MemoryRouter initialEntries={[at]}>
        <Bar {...(z === undefined ? {} : { z })} />
      </MemoryRouter>,
    )
  }
  const address = (): string => screen.getByRole('status').textContent!
  const user = userEvent.setup()

  it('is kept in the address, and what an address cannot mean is passed over', async () => {
    show(5, '/?by=nonsense')
    expect(screen.getByLabelText('Coloured by').dataset.value).toBe('feature')
    await choose(user, 'Coloured by', /what holds|limit/i)
    expect(address()).toContain('by=limiter')
  })

  it('goes to the next risk above, and from the highest round to the lowest', async () => {
    const { unmount } = show(5)
    await user.click(screen.getByRole('button', { name: 'Next risk' }))
    expect(gone).toHaveBeenLastCalledWith(8)
    unmount()
    show(8)
    await user.click(screen.getByRole('button', { name: 'Next risk' }))
    expect(gone).toHaveBeenLastCalledWith(3)
  })

  it('goes to what is worst by name', async () => {
    show()
    await user.click(screen.getByRole('button', { name: 'Go to' }))
    await user.click(await screen.findByRole('menuitem', { name: /^Longest layer/ }))
    expect(gone).toHaveBeenLastCalledWith(1)
  })

  it('has tracks to choose; one at least stays', async () => {
    show(5, '/?tracks=melt')
    await user.click(screen.getByRole('button', { name: 'Tracks' }))
    await user.click(await screen.findByLabelText('Melt load'))
    expect(address()).toContain('tracks=time')
  })

  it('tells no travels where the part is cut upright', () => {
    show(5, '/?cut=x')
    expect(screen.queryByLabelText('travels')).toBeNull()
  })
})
