import type { Candidate } from '@sable/contract/lineup'
import { type Check, type Fix, fixWords, severities } from '@sable/core/checks/check'
import clsx from 'clsx'
import { TriangleAlert } from 'lucide-react'
import { edit } from '../../desk/deskStore'
import { setSetup, setValues } from '../../desk/edits'
import { HelpButton } from '../../handbook/HelpButton'
import { Button } from '../../ui/Button'
import { Popover } from '../../ui/Popover'

export const bySeverity = (checks: readonly Check[]): Check[] =>
  [...checks].sort((a, b) => severities.indexOf(a.severity) - severities.indexOf(b.severity))

const tone = (severity: Check['severity'] | undefined): string =>
  severity === 'stop' ? 'text-stop' : severity === 'caution' ? 'text-worse' : 'text-muted'

/** Puts into the profile what a check offers. */
function apply(fix: Fix, id: string): void {
  edit((content) => {
    const { spool } = fix
    const changed = fix.values ? setValues(content, id, fix.values) : content
    return spool ? setSetup(changed, id, 'spool', spool.key, spool.material) : changed
  })
}

/** What a candidate should be watched for, the gravest first, each with what answers it. */
export function Risks({ checks, candidate }: { checks: readonly Check[]; candidate: Candidate }) {
  if (checks.length === 0) return <span className="text-muted">none found</span>
  const counts = severities.flatMap((severity) => {
    const n = checks.filter((check) => check.severity === severity).length
    return n === 0 ? [] : [`${n} ${severity}${n > 1 ? 's' : ''}`]
  })
  const worst = checks[0]?.severity
  return (
    <Popover
      label={`Risks of ${candidate.name}`}
      width="w-[30rem]"
      trigger={
        <button
          type="button"
          className={clsx(
            '-my-0.5 inline-flex h-6 items-center gap-1 rounded px-1 underline decoration-dotted underline-offset-2',
            tone(worst),
          )}
        >
          {worst !== 'note' && <TriangleAlert className="size-3.5" aria-hidden />}
          {counts.join(', ')}
        </button>
      }
    >
      <ul className="divide-y divide-line/60">
        {checks.map((check) => (
          <li key={check.id} className="grid grid-cols-[4.2rem_1fr] gap-2 py-2 first:pt-0 last:pb-0">
            <span className={clsx('text-[12px] leading-5', tone(check.severity))}>
              {check.severity}
              <HelpButton of={`check/${check.id}`} name={check.id.replaceAll('-', ' ')} />
            </span>
            <div>
              <p>{check.evidence}</p>
              {(check.means !== '' || check.todo !== '') && (
                <p className="mt-0.5 text-[12px] text-muted">{`${check.means} ${check.todo}`.trim()}</p>
              )}
              {check.school !== undefined && (
                <p className="mt-0.5 text-[12px] text-muted">
                  <span className="font-medium">Practitioners disagree.</span> {check.school}
                </p>
              )}
              {[check.fix, check.otherFix].map(
                (fix, k) =>
                  fix && (
                    <Button key={fixWords(fix)} className="mt-1.5 mr-2 h-6 px-2" onClick={() => apply(fix, candidate.id)}>
                      {k === 0 ? 'Take' : 'or take'} {fixWords(fix)}
                    </Button>
                  ),
              )}
            </div>
          </li>
        ))}
      </ul>
    </Popover>
  )
}
