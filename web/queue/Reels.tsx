import type { QueueContent, QueueReel } from '@sable/contract/queues'
import type { SpoolUse } from '@sable/core/queue/spools'
import { toBuy } from '@sable/core/queue/toBuy'
import type { Spool } from '@sable/core/shelf/spool'
import clsx from 'clsx'
import { Checkbox } from '../ui/Checkbox'
import { symbolOf, useCurrency } from '../ui/currency'
import { Select } from '../ui/Select'

/** What becomes of each reel, what is to be done with it, and what is to be bought. */
export function Reels({
  uses,
  spools,
  content,
  jobOf,
  onChange,
}: {
  uses: readonly SpoolUse[]
  /** Of the shelf. */
  spools: readonly Spool[]
  content: QueueContent
  jobOf: (id: string) => string
  onChange: (more: Partial<QueueContent>, what: string) => void
}) {
  const sign = symbolOf(useCurrency(({ code }) => code))
  if (uses.length === 0) return null
  const nameOf = (key: string): string => spools.find((one) => one.key === key)?.name ?? key
  const ruleOf = (key: string): QueueReel => content.reels.find(({ spool }) => spool === key) ?? { spool: key, useUp: false }
  const put = (rule: QueueReel): void =>
    onChange(
      {
        reels: [
          ...content.reels.filter(({ spool }) => spool !== rule.spool),
          ...(rule.useUp || rule.followedBy !== undefined ? [rule] : []),
        ],
      },
      nameOf(rule.spool),
    )
  const buys = toBuy(uses, spools)
  return (
    <section aria-label="Reels" className="text-[12.5px]">
      <h3 className="mb-1 font-semibold">Reels</h3>
      <table className="w-full">
        <thead className="text-left text-[12px] text-muted">
          <tr>
            {['Reel', 'Left now', 'Wanted', 'Left then', '', 'First', 'Goes on from'].map((label, i) => (
              <th
                key={label || 'verdict'}
                scope="col"
                className={clsx('border-b border-line py-1 pr-4 font-normal', i > 0 && i < 4 && 'text-right')}
              >
                {label || <span className="sr-only">Whether it lasts</span>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {uses.map(({ key, grams, doubtG, usedG, leftG, lasts, runsOutAt }) => {
            const { followedBy: _, ...rule } = ruleOf(key)
            const own = spools.find((one) => one.key === key)
            const others = spools.filter((one) => one.key !== key && one.material === own?.material && !one.empty)
            return (
              <tr key={key} className="border-b border-line/60">
                <td className="py-1 pr-4">
                  <span className="flex items-center gap-2">
                    <span
                      aria-hidden
                      className="size-3 shrink-0 rounded-full border border-strong"
                      style={{ background: own?.color ?? 'transparent' }}
                    />
                    {nameOf(key)}
                  </span>
                </td>
                <td className="figure pr-4 text-right whitespace-nowrap">
                  {Math.round(grams)} ± {Math.round(doubtG)} g
                </td>
                <td className="figure pr-4 text-right whitespace-nowrap">{Math.round(usedG)} g</td>
                <td className={clsx('figure pr-4 text-right whitespace-nowrap', leftG < 0 && 'text-stop')}>{Math.round(leftG)} g</td>
                <td className={clsx('pr-4', lasts === 'no' ? 'text-stop' : lasts === 'perhaps' ? 'text-worse' : 'text-muted')}>
                  {lasts === 'surely' ? 'lasts' : lasts === 'perhaps' ? 'may not last' : 'will not last'}
                  {runsOutAt === undefined ? '' : `: runs out at ${jobOf(runsOutAt)}`}
                </td>
                <td className="pr-4">
                  <Checkbox
                    checked={rule.useUp}
                    onChange={(useUp) => put({ ...ruleOf(key), useUp })}
                    help="Taken before others that would do."
                  >
                    use it up
                  </Checkbox>
                </td>
                <td>
                  {others.length === 0 ? (
                    <span className="text-muted">no other of its material</span>
                  ) : (
                    <Select
                      label=""
                      name={`${nameOf(key)} goes on from`}
                      value={ruleOf(key).followedBy ?? ''}
                      of={[{ id: '', name: 'nothing: it has to last' }, ...others.map(({ key: id, name }) => ({ id, name }))]}
                      onChange={(id) => put(id === '' ? rule : { ...rule, followedBy: id })}
                    />
                  )}
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
      {buys.length > 0 && (
        <p className="mt-1.5 border-l-2 border-worse pl-2">
          To buy, unless it goes on from another reel or jobs are printed off another:{' '}
          {buys
            .map(
              ({ like, grams, reels, cost }) =>
                `${Math.ceil(grams)} g like ${like.name}, ${reels === 1 ? 'a reel' : `${reels} reels`} of ${like.netG} g${cost === undefined ? '' : ` for ${cost.toFixed(0)} ${sign}`}`,
            )
            .join('; ')}
          .
        </p>
      )}
    </section>
  )
}
