import { useSortable } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { limiterReasons, limiters } from '@sable/core/motion/limiters'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import type { Prediction } from '@sable/core/pipeline/predict'
import type { Step } from '@sable/core/steps/trail'
import { signedPercent } from '@sable/core/units/format'
import clsx from 'clsx'
import { GripVertical, TriangleAlert } from 'lucide-react'
import { Checkbox } from '../../ui/Checkbox'
import { columnsFor, type Measure, type Sense, senseOf, signed } from './measures'
import type { StepWords } from './stepWords'

interface Scale {
  readonly low: number
  readonly high: number
}

interface Shared {
  readonly purpose: Purpose
  /** Which of the measures the bars tell. */
  readonly measure: Measure
  readonly scale: Scale
}

interface Props extends Shared {
  readonly step: Step
  readonly words: StepWords
  readonly isOff: boolean
  readonly before: Prediction | undefined
  readonly after: Prediction | undefined
  readonly refused: boolean
  readonly average: number | undefined
  /** What the whole trail does: a step that does the opposite stands out. */
  readonly whole: Sense
  readonly onSwitch: (on: boolean) => void
  /** One place up or down. */
  readonly onMove: (by: -1 | 1) => void
}

/** One step: what it changes, how far it moves what is measured, and what it does to the rest. */
export function StepRow({ step, words, isOff, before, after, refused, average, whole, purpose, measure, scale, onSwitch, onMove }: Props) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({ id: step.id })
  const [was, is] = [before && measure.of(before, purpose), after && measure.of(after, purpose)]
  const against =
    was !== undefined &&
    is !== undefined &&
    signed(measure, is - was) !== '' &&
    senseOf(measure, is - was) === 'worse' &&
    whole === 'better'
  const cell = 'h-[34px] border-b border-line/60'
  return (
    <tr
      ref={setNodeRef}
      data-step={step.id}
      style={{ transform: CSS.Translate.toString(transform), transition, opacity: isDragging ? 0.8 : 1 }}
      className={clsx(isOff && 'text-muted')}
    >
      <td className={cell}>
        <div className="flex items-center gap-1.5 pr-2">
          <button
            type="button"
            ref={setActivatorNodeRef}
            {...attributes}
            {...listeners}
            // Keys move it at once; the package tells of its own way, which is for the pointer only here.
            aria-describedby={undefined}
            aria-roledescription={undefined}
            aria-label={`Move ${words.what}: arrows up and down`}
            onKeyDown={(event) => {
              if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return
              event.preventDefault()
              onMove(event.key === 'ArrowUp' ? -1 : 1)
            }}
            className="inline-flex size-6 shrink-0 cursor-grab items-center justify-center rounded text-strong hover:text-muted"
          >
            <GripVertical className="size-3.5" aria-hidden />
          </button>
          <Checkbox checked={!isOff} name={`Take the step ${words.what}`} onChange={onSwitch} />
          <span
            className={clsx('min-w-0 truncate', isOff && 'line-through')}
            data-hint={`${words.what}: ${words.from} → ${words.to} ${words.unit}`}
          >
            {words.what}{' '}
            <span className="figure">
              {words.from} → {words.to}
            </span>{' '}
            <span className="text-[12px] text-muted">{words.unit}</span>
          </span>
        </div>
      </td>
      <td className={`${cell} relative`}>
        {was !== undefined && is !== undefined && <Bar was={was} is={is} average={average} measure={measure} scale={scale} />}
        {refused && <span className="text-[12px] text-stop">cannot be printed so</span>}
        {against && (
          // On whichever side of the bar there is room.
          <span
            className={`absolute inset-y-0 flex items-center gap-1 text-[12px] text-worse ${share(is, scale) > 55 ? 'left-0' : 'right-2'}`}
          >
            <TriangleAlert className="size-3.5" aria-hidden />
            {(measure.id === 'time' && before && after && whyLonger(before, after)) || 'against the rest'}
          </span>
        )}
      </td>
      {columnsFor(measure).map((one) => {
        const change = before && after && one.of(after, purpose) - one.of(before, purpose)
        const text = change === undefined ? '' : signed(one, change)
        const sense = change === undefined || text === '' ? 'same' : senseOf(one, change)
        return (
          <td
            key={one.id}
            className={clsx(
              cell,
              'figure text-right whitespace-nowrap',
              one.id === measure.id ? 'font-semibold' : 'text-[12px]',
              sense === 'better' && 'text-better',
              sense === 'worse' && 'text-worse',
            )}
          >
            {isOff || (before && after) ? text || '·' : <Waiting />}
            {one.id === 'time' && change !== undefined && before && Math.abs(change / one.of(before, purpose)) >= 0.005 && (
              <span className="block text-[12px] leading-3 font-normal">{signedPercent(change / one.of(before, purpose))}</span>
            )}
          </td>
        )
      })}
    </tr>
  )
}

/** The beginning or the end of a trail, in full. */
export function EndRow({ name, prediction, purpose, measure, scale }: Shared & { name: string; prediction: Prediction | undefined }) {
  const value = prediction && measure.of(prediction, purpose)
  return (
    <tr className="font-medium">
      <td className="h-[34px] border-b border-line pl-[52px]">{name}</td>
      <td className="relative border-b border-line">
        {value !== undefined && (
          <span
            aria-hidden
            className="absolute top-1/2 left-0 h-2.5 -translate-y-1/2 rounded-sm bg-strong"
            style={{ width: `${share(value, scale)}%` }}
          />
        )}
      </td>
      {columnsFor(measure).map((one) => (
        <td
          key={one.id}
          className={`figure border-b border-line text-right whitespace-nowrap ${one.id === measure.id ? 'font-semibold' : 'text-[12px]'}`}
        >
          {prediction ? one.shown(one.of(prediction, purpose)) : <Waiting />}
        </td>
      ))}
    </tr>
  )
}

const Waiting = () => <span className="inline-block h-2 w-9 animate-pulse rounded bg-line" />

const share = (value: number, { low, high }: Scale): number => (100 * (value - low)) / (high - low)

function Bar({
  was,
  is,
  average,
  measure,
  scale,
}: {
  was: number
  is: number
  average: number | undefined
  measure: Measure
  scale: Scale
}) {
  const [left, right] = [share(Math.min(was, is), scale), share(Math.max(was, is), scale)]
  const sense = senseOf(measure, is - was)
  return (
    <span aria-hidden>
      <span
        className={clsx(
          'absolute top-1/2 h-3.5 -translate-y-1/2 rounded-sm',
          sense === 'better' ? 'bg-better' : sense === 'worse' ? 'bg-worse' : 'bg-muted',
        )}
        style={{ left: `${left}%`, width: `max(2px, ${right - left}%)` }}
      />
      <span className="absolute inset-y-0 w-px bg-line" style={{ left: `${share(is, scale)}%` }} />
      {average !== undefined && (
        <span
          data-hint={`On average over orders: ${signed(measure, average) || 'nothing'}`}
          className="absolute top-1/2 size-2 -translate-x-1/2 -translate-y-1/2 rotate-45 border border-ink bg-ground"
          style={{ left: `${Math.max(0, Math.min(100, share(was + average, scale)))}%` }}
        />
      )}
    </span>
  )
}

/** What holds more of the laying than before: why a step that was meant to save time did not. */
function whyLonger(before: Prediction, after: Prediction): string | undefined {
  const grown = limiters
    .filter((limiter) => limiter !== 'asked')
    .map((limiter) => ({ limiter, by: after.limiters[limiter] - before.limiters[limiter] }))
    .reduce((a, b) => (b.by > a.by ? b : a))
  return grown.by > 0.02 ? `${Math.round(100 * grown.by)} % more ${limiterReasons[grown.limiter]}` : undefined
}
