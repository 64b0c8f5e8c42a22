import { setupOf } from '@sable/core/testing/setups'
import { trialKinds } from '@sable/core/trials/kinds'
import { planTrial, type TrialChoice } from '@sable/core/trials/plan'
import type { TrialAnswers } from '@sable/core/trials/read'
import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import { describe, expect, it, vi } from 'vitest'
import { BandsForm } from './BandsForm'
import { ReadPanel } from './ReadPanel'
import { adviceWords, writtenAs } from './ResultPanel'

const spool = {
  key: 'reel',
  name: 'Storm black',
  material: 'pla',
  netG: 1000,
  weighings: [],
  dried: [],
  defaults: { nozzleTemperature: 208 },
}
const setup = { ...setupOf(), spool }
const place = { printer: 'lugger', nozzle: 'bore-0.4', material: 'pla', spool: 'reel' }

function Reading({ kind, onKeep }: { kind: 'flowLadder' | 'temperature'; onKeep: (note: string) => void }) {
  const [answers, setAnswers] = useState<TrialAnswers>({ bands: [], whole: {} })
  const { spec } = planTrial(kind, setup)
  return (
    <ReadPanel
      kind={trialKinds[kind]}
      spec={spec}
      setup={setup}
      plain={setup}
      before={[]}
      foretold={undefined}
      place={place}
      answers={answers}
      active={0}
      onAnswers={setAnswers}
      onKeep={onKeep}
    />
  )
}

describe('a reading', () => {
  it('tells at once what it comes to, and is kept with its note', () => {
    const keep = vi.fn()
    render(<Reading kind="flowLadder" onKeep={keep} />)
    expect(screen.getByRole('button', { name: 'Keep this reading' })).toHaveProperty('disabled', true)
    fireEvent.change(screen.getByLabelText('First fault in front'), { target: { value: '5,4' } })
    expect(screen.getByText(/^Fails at/).textContent).toContain('mm³/s')
    expect(screen.getByRole('table', { name: 'Constants before and after' }).textContent).toContain('Flow at which the hot end fails')
    fireEvent.change(screen.getByLabelText('Note'), { target: { value: 'grey ones' } })
    fireEvent.click(screen.getByRole('button', { name: 'Keep this reading' }))
    expect(keep).toHaveBeenCalledWith('grey ones', '')
  })

  it('of a height that cannot be says so and is not kept', () => {
    render(<Reading kind="flowLadder" onKeep={() => {}} />)
    fireEvent.change(screen.getByLabelText('First fault in front'), { target: { value: '300' } })
    expect(screen.getByRole('alert').textContent).toContain('above the top of the print')
    expect(screen.getByRole('button', { name: 'Keep this reading' })).toHaveProperty('disabled', true)
  })

  it('an answer that is pressed again is taken back', () => {
    render(<Reading kind="temperature" onKeep={() => {}} />)
    const clean = screen.getByRole('button', { name: 'Clean' })
    fireEvent.click(clean)
    expect(clean.getAttribute('aria-pressed')).toBe('true')
    fireEvent.click(clean)
    expect(clean.getAttribute('aria-pressed')).toBe('false')
  })
})

describe('bands', () => {
  function Bands() {
    const [choice, setChoice] = useState<TrialChoice>({})
    return (
      <>
        <BandsForm kind={trialKinds.temperature} setup={setup} choice={choice} onChoice={setChoice} />
        <output>{JSON.stringify(choice)}</output>
      </>
    )
  }

  it('are told by from, to and step, or one by one', () => {
    render(<Bands />)
    fireEvent.change(screen.getByLabelText('Nozzle, from'), { target: { value: '200' } })
    expect(JSON.parse(screen.getByRole('status').textContent!)).toEqual({ range: { from: 200, to: 220, step: 5 } })
    fireEvent.change(screen.getByLabelText('Nozzle, one by one'), { target: { value: '200 204 212' } })
    expect(JSON.parse(screen.getByRole('status').textContent!).list).toEqual([200, 204, 212])
    fireEvent.change(screen.getByLabelText('Nozzle, one by one'), { target: { value: '200 hot' } })
    expect(JSON.parse(screen.getByRole('status').textContent!).list).toEqual([200, 204, 212])
  })
})

describe('what is written', () => {
  it('names the record, the setting and its unit', () => {
    const advice = { of: 'spool', setting: 'nozzleTemperature', value: 208 } as const
    expect(adviceWords([advice], setup)).toBe('Storm black: nozzle temperature 208 °C')
    expect(adviceWords([{ of: 'printer', setting: 'frameFrequency', value: 47.6 }], setup)).toBe('Lugger 250: frame 47.6 Hz')
    expect(writtenAs(advice, setup)).toBe(208)
  })
})
