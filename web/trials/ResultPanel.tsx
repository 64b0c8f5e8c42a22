import type { ConstantChange } from '@sable/core/doubt/changes'
import { definitionOf, isSettingName } from '@sable/core/profile/settings'
import type { Setup } from '@sable/core/setup/resolve'
import { trialKinds } from '@sable/core/trials/kinds'
import type { Advice, Outcome } from '@sable/core/trials/table/kind'
import { Button } from '../ui/Button'
import { ConstantsTable } from '../ui/ConstantsTable'

/** What a reading comes to: a sentence, the constants before and after, what to write where, and what comes next. */
export function ResultPanel({
  outcome,
  changes,
  setup,
  kept,
  onWrite,
  onNext,
}: {
  outcome: Outcome
  changes: readonly ConstantChange[]
  setup: Setup
  /** It stands in the book; before that nothing is written from it. */
  kept: boolean
  onWrite: (advice: readonly Advice[]) => void
  onNext: () => void
}) {
  const { found, warnings, advice, next } = outcome
  return (
    <section aria-label="Result" className="space-y-2">
      <p className="text-[13.5px] font-medium">{found}</p>
      {warnings.map((warning) => (
        <p key={warning} className="border-l-2 border-worse pl-2 text-[12px] text-worse">
          {warning}
        </p>
      ))}
      {changes.length > 0 && <ConstantsTable changes={changes} />}
      {kept && advice.length > 0 && (
        <div>
          <Button tone="main" onClick={() => onWrite(advice)} disabled={advice.every((one) => writtenAs(one, setup) === one.value)}>
            {advice.every((one) => writtenAs(one, setup) === one.value) ? 'Written: ' : 'Write: '}
            {adviceWords(advice, setup)}
          </Button>
          <p className="mt-1 text-[12px] text-muted">Puts the number into the record as its setting. It can be undone.</p>
        </div>
      )}
      {kept && next && (
        <div className="flex items-center gap-2 text-[12px]">
          <Button onClick={onNext}>Next: {trialKinds[next.kind].name}</Button>
          <span className="text-muted">{next.why}</span>
        </div>
      )}
    </section>
  )
}

/** "Storm black on Lugger 250: nozzle temperature 208 °C" */
export function adviceWords(advice: readonly Advice[], { spool, material, printer }: Setup): string {
  const [first] = advice
  const whose = first?.of === 'printer' ? printer.name : `${spool?.name ?? material.name}`
  return `${whose}: ${advice.map(({ setting, value }) => (isSettingName(setting) ? `${definitionOf(setting).label.toLowerCase()} ${value} ${unitOf(setting)}` : `frame${setting === 'frameFrequencyY' ? ' along Y' : ''} ${value} Hz`).trim()).join(', ')}`
}

const unitOf = (setting: Parameters<typeof definitionOf>[0]): string => {
  const setting_ = definitionOf(setting)
  return setting_.kind === 'number' ? setting_.unit : ''
}

/** What the record says now. */
export const writtenAs = ({ of, setting }: Advice, { spool, printer }: Setup): unknown =>
  of === 'printer'
    ? isSettingName(setting)
      ? printer.defaults[setting]
      : printer[setting]
    : isSettingName(setting)
      ? spool?.defaults[setting]
      : undefined
