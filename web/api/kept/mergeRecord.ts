import { isFields, saysTheSame } from '@sable/contract/saysTheSame'

type Fields = Readonly<Record<string, unknown>>

/**
 * What somebody changed in a record, put into what the record says by now: a field that went from `before` to `after` says
 * `after`, any other one what `latest` says. Lists count as one field.
 */
export function mergeRecord<R extends object>(before: R, after: R, latest: R): R {
  return mergeFields(before as Fields, after as Fields, latest as Fields) as R
}

function mergeFields(before: Fields, after: Fields, latest: Fields): Fields {
  const merged: Record<string, unknown> = { ...latest }
  for (const key of new Set([...Object.keys(before), ...Object.keys(after)])) {
    const [was, is, now] = [before[key], after[key], latest[key]]
    if (saysTheSame(was, is)) continue
    if (isFields(was) && isFields(is) && isFields(now)) merged[key] = mergeFields(was, is, now)
    else if (is === undefined) delete merged[key]
    else merged[key] = is
  }
  return merged
}
