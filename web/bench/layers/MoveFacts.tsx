import { limiterReasons, limiters } from '@sable/core/motion/limiters'
import { code, features, isLaid } from '@sable/core/toolpath/toolpath'
import { inWords } from '@sable/core/units/format'
import type { DrawnMoves } from '@sable/core/views/drawnMoves'
import { X } from 'lucide-react'
import { IconButton } from '../../ui/Button'

/** What is known of one move: what it is, how fast it runs, and why no faster. */
export function MoveFacts({ moves, move, onClose }: { moves: DrawnMoves; move: number; onClose: () => void }) {
  const { feature, limiter, air, width, area, asked, peak, meltLoad, gloss, duration, start } = moves
  const laid = isLaid(feature[move]!)
  const stands = feature[move] === code.retract || feature[move] === code.pushBack
  const length = Math.hypot(moves.x[move + 1]! - moves.x[move]!, moves.y[move + 1]! - moves.y[move]!)
  const facts: readonly (readonly [string, string] | false)[] = [
    !stands && ['Length', `${length.toFixed(2)} mm`],
    laid && ['Width × height', `${width[move]!.toFixed(2)} × ${(area[move]! / width[move]!).toFixed(2)} mm`],
    ['Asked', `${asked[move]!.toFixed(0)} mm/s`],
    ['Reaches', `${peak[move]!.toFixed(0)} mm/s`],
    laid && ['Flow', `${(area[move]! * peak[move]!).toFixed(1)} mm³/s`],
    laid && ['Melt load', `${(100 * meltLoad[move]!).toFixed(0)} %`],
    !Number.isNaN(gloss[move]) && ['Gloss', `${(100 * gloss[move]!).toFixed(0)} %`],
    laid && air[move]! > 0 && ['Over air', `${((100 * air[move]!) / 255).toFixed(0)} %`],
    ['Takes', duration[move]! < 1 ? `${(1000 * duration[move]!).toFixed(0)} ms` : `${duration[move]!.toFixed(2)} s`],
    ['Begins', `${start[move]!.toFixed(1)} s into the layer`],
  ]
  return (
    <div
      role="status"
      aria-label="The line"
      className="absolute inset-x-0 bottom-0 flex items-start gap-3 border-t border-strong bg-raised/95 px-3 py-1.5 text-[12px]"
    >
      <div className="min-w-0 flex-1">
        <p>
          <span className="inline-block font-medium first-letter:uppercase">{inWords(features[feature[move]!]!)}</span>{' '}
          {inSentence(limiterReasons[limiters[limiter[move]!]!])}
        </p>
        <dl className="mt-0.5 flex flex-wrap gap-x-4">
          {facts
            .filter((fact) => fact !== false)
            .map(([label, value]) => (
              <div key={label} className="flex gap-1.5 whitespace-nowrap">
                <dt className="text-muted">{label}</dt>
                <dd className="figure">{value}</dd>
              </div>
            ))}
        </dl>
      </div>
      <IconButton label="Let go of the line" onClick={onClose}>
        <X className="size-3.5" />
      </IconButton>
    </div>
  )
}

const inSentence = (reason: string): string => `${reason.startsWith('runs') ? '' : 'is '}${reason}.`
