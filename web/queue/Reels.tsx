import type { SpoolUse } from '@sable/core/queue/spools'

/** Reels that will not last, or may not. */
export function Reels({
  spools,
  nameOf,
  jobOf,
}: {
  spools: readonly SpoolUse[]
  nameOf: (spool: string) => string
  jobOf: (id: string) => string
}) {
  const short = spools.filter(({ lasts }) => lasts !== 'surely')
  if (short.length === 0) return null
  return (
    <section aria-label="Reels" className="space-y-1 text-[12.5px]">
      {short.map(({ key, usedG, grams, lasts, runsOutAt }) => (
        <p key={key} className="border-l-2 border-worse pl-2 text-worse">
          {nameOf(key)} {lasts === 'no' ? 'will not last' : 'may not last'}: {Math.round(usedG)} g are wanted, about {Math.round(grams)} g
          are left
          {runsOutAt === undefined ? '' : `; it runs out at ${jobOf(runsOutAt)}`}. Put a column with another reel into the queue as a way of
          it
          {usedG > grams ? `, or buy ${Math.ceil(usedG - grams)} g more` : ''}.
        </p>
      ))}
    </section>
  )
}
