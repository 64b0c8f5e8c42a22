import type { QueuePlan } from '@sable/core/queue/plan'

/** When all is done, how sure that is, and what it takes. */
export function Summary({ plan, jobName, at }: { plan: QueuePlan; jobName: (id: string) => string; at: (minute: number) => string }) {
  const grams = plan.items.reduce((sum, { as }) => sum + (as.grams ?? 0), 0)
  if (plan.items.length === 0) return <p className="px-3 pb-2 text-[12.5px] text-muted">Nothing is left to plan.</p>
  return (
    <section aria-label="The plan" className="px-3 pb-2 text-[12.5px]">
      All is done by <strong className="figure font-semibold">{at(plan.makespan)}</strong>{' '}
      <span className="text-muted">
        ({at(plan.low)} to {at(plan.high)} in four of five, with what fails printed again); no plan ends before {at(plan.lowerBound)}.
      </span>{' '}
      {plan.items.length} prints, {Math.round(grams)} g.{' '}
      {plan.late.length > 0 && <span className="text-stop">Late: {plan.late.map(jobName).join(', ')}.</span>}
    </section>
  )
}
