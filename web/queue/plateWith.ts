import type { PlannedItem, QueuePlan } from '@sable/core/queue/plan'

/** Copies that stand on one plate with another one, it among them, in their order. */
export function plateWith(item: PlannedItem, { items }: Pick<QueuePlan, 'items'>): PlannedItem[] {
  const lane = items.filter(({ on }) => on === item.on).sort((a, b) => a.startsAt - b.startsAt)
  let first = lane.indexOf(item)
  let last = first
  while (first > 0 && lane[first]!.isOnPlate) first--
  while (lane[last + 1]?.isOnPlate) last++
  return lane.slice(first, last + 1)
}
