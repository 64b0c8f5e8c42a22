import { distance } from 'fastest-levenshtein'

/** A name counts as near when no more than this share of its letters would have to change. */
const NEAR = 0.5
const MOST_NAMED = 3

/** "Did you mean wallCount?": the names nearest to what was given, or all that there are where none is near. */
export function nearestNames(given: string, known: readonly string[], what: string): string {
  const wanted = plain(given)
  const near = known
    .map((name) => ({ name, share: distance(wanted, plain(name)) / Math.max(wanted.length, plain(name).length, 1) }))
    .filter(({ share }) => share <= NEAR)
    .sort((a, b) => a.share - b.share)
    .slice(0, MOST_NAMED)
    .map(({ name }) => name)
  return near.length > 0 ? `Did you mean ${near.join(' or ')}?` : `Known ${what}: ${known.join(', ')}.`
}

export const plain = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]/g, '')
