import type { ProgramFigures } from '@sable/core/program/timeProgram'
import { DEFAULT_FEATURE_PATTERN } from '@sable/core/program/words'
import type { Printer } from '@sable/core/shelf/printer'
import { formatDuration, inWords } from '@sable/core/units/format'
import * as Comlink from 'comlink'
import { useEffect, useMemo, useState } from 'react'
import { predictionPool } from '../../predictions/predictionStore'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Dialog'

/** A limiter that holds less of the laying time is not worth a word. */
const LEAST_SHARE = 0.01

export const isProgram = (fileName: string): boolean => /\.(gcode|gco|g|nc)$/i.test(fileName)

type State =
  | { readonly kind: 'running'; readonly share: number }
  | { readonly kind: 'done'; readonly figures: readonly ProgramFigures[] }
  | { readonly kind: 'failed'; readonly why: string }

/** A program that was dropped: how long it takes on each printer of the shelf, and why. */
export function ProgramDialog({ file, printers: all, onClose }: { file: File; printers: readonly Printer[]; onClose: () => void }) {
  // A program for a level bed means nothing on a tilted belt.
  const printers = useMemo(() => all.filter(({ kinematics }) => kinematics !== 'tiltedBelt'), [all])
  const [pattern, setPattern] = useState(DEFAULT_FEATURE_PATTERN)
  const [asked, setAsked] = useState(pattern)
  const state = useTiming(file, printers, asked)
  return (
    <Sheet title={file.name} onClose={onClose}>
      {state.kind === 'running' && (
        <div role="status" className="py-6">
          <p className="mb-2 text-muted">
            Reading and timing on {printers.length} printers … {Math.round(state.share * 100)} %
          </p>
          <div className="h-1 rounded bg-line">
            <div className="h-1 rounded bg-lantern" style={{ width: `${state.share * 100}%` }} />
          </div>
        </div>
      )}
      {state.kind === 'failed' && <p className="py-6 text-stop">{state.why}</p>}
      {state.kind === 'done' && <Timings printers={printers} figures={state.figures} />}
      <form
        className="mt-4 flex items-end gap-2 border-t border-line pt-3"
        onSubmit={(event) => {
          event.preventDefault()
          setAsked(pattern)
        }}
      >
        <label className="block flex-1 text-[12px]">
          <span className="text-muted">Comments that name a feature, as a regular expression; its first group is the name</span>
          <input
            value={pattern}
            onChange={(event) => setPattern(event.target.value)}
            spellCheck={false}
            className="figure mt-0.5 h-7 w-full rounded border border-line bg-sunk px-2"
          />
        </label>
        <Button type="submit">Read again</Button>
      </form>
    </Sheet>
  )
}

function Timings({ printers, figures }: { printers: readonly Printer[]; figures: readonly ProgramFigures[] }) {
  const [first] = figures
  if (!first) return null
  const features = [...new Set(figures.flatMap(({ timeByFeatureS }) => Object.keys(timeByFeatureS)))]
  const unknown = Object.entries(first.unknown)
  const held = (f: ProgramFigures): string => {
    const [limiter, share] = Object.entries(f.limiters)
      .filter(([name]) => name !== 'asked')
      .sort((a, b) => b[1] - a[1])[0] ?? ['asked', 0]
    return share < LEAST_SHARE ? 'runs as asked' : `${Math.round(100 * share)} % ${inWords(limiter)}`
  }
  return (
    <>
      <p className="figure mb-3 text-[12.5px]">
        {first.layerCount} layers · {(first.filament.lengthMm / 1000).toFixed(2)} m filament · {first.moves.toLocaleString('en')} moves
        {first.nozzleTemperature !== undefined && ` · nozzle ${first.nozzleTemperature} °C`}
        {first.bedTemperature !== undefined && ` · bed ${first.bedTemperature} °C`}
      </p>
      <table className="w-full text-right text-[12.5px]" aria-label="Time on each printer">
        <thead>
          <tr className="border-b border-line">
            <th />
            {printers.map(({ key, name }) => (
              <th key={key} className="py-1 font-semibold">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="figure">
          <tr className="border-b border-line font-semibold">
            <th className="py-1 text-left font-sans">Time</th>
            {figures.map(({ timeS }, i) => (
              <td key={printers[i]?.key}>{formatDuration(timeS)}</td>
            ))}
          </tr>
          <tr className="border-b border-line text-muted">
            <th className="py-1 text-left font-sans font-normal">What holds it</th>
            {figures.map((f, i) => (
              <td key={printers[i]?.key}>{held(f)}</td>
            ))}
          </tr>
          {features.map((feature) => (
            <tr key={feature}>
              <th className="py-0.5 text-left font-sans font-normal text-muted">{inWords(feature)}</th>
              {figures.map(({ timeByFeatureS }, i) => (
                <td key={printers[i]?.key}>{timeByFeatureS[feature] === undefined ? '–' : formatDuration(timeByFeatureS[feature])}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-3 text-[12px] text-muted">
        Heating and homing are not included.
        {unknown.length > 0 &&
          ` Not understood and left out: ${unknown
            .slice(0, 8)
            .map(([word, count]) => `${word} (${count})`)
            .join(', ')}${unknown.length > 8 ? ' …' : ''}.`}
      </p>
    </>
  )
}

function useTiming(file: File, printers: readonly Printer[], pattern: string): State {
  const [state, setState] = useState<State>({ kind: 'running', share: 0 })
  useEffect(() => {
    const stop = new Int32Array(new SharedArrayBuffer(4))
    setState({ kind: 'running', share: 0 })
    predictionPool()
      .anyWorker.timeProgram(
        file,
        printers,
        pattern,
        stop,
        Comlink.proxy((share: number) => {
          if (Atomics.load(stop, 0) === 0) setState({ kind: 'running', share })
        }),
      )
      .then((answer) => {
        if (answer.kind === 'done') setState({ kind: 'done', figures: answer.figures })
        else if (answer.kind === 'refused') setState({ kind: 'failed', why: `${answer.where}: ${answer.message} ${answer.remedy}` })
      })
      .catch((error: unknown) => {
        if (Atomics.load(stop, 0) === 0)
          setState({ kind: 'failed', why: `The program could not be read: ${error instanceof Error ? error.message : String(error)}` })
      })
    return () => {
      Atomics.store(stop, 0, 1)
    }
  }, [file, printers, pattern])
  return state
}
