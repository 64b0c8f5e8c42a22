import { useEffect, useMemo, useRef, useState } from 'react'

/**
 * What is found for each of some keys, each asked for once, in whatever order they come.
 *
 * @param of what the answers hold for: all that is known is forgotten when it changes
 * @param keys the same request for the same key, as long as `of` stays the same
 * @param useAnswers answers to requests, in their order, as they come
 */
export function useAskedOnce<Request, Answer>(
  of: string,
  keys: readonly string[],
  requestOf: (key: string) => Request | undefined,
  useAnswers: (requests: readonly Request[]) => readonly (Answer | undefined)[],
): ReadonlyMap<string, Answer> {
  const known = useRef({ of, found: new Map<string, Answer>() })
  if (known.current.of !== of) known.current = { of, found: new Map() }
  const { found } = known.current
  const [, redraw] = useState(0)
  // The list is the same for as long as the same keys are asked for.
  // biome-ignore lint/correctness/useExhaustiveDependencies: `requestOf` follows from the others.
  const asked = useMemo(() => {
    const fresh = [...new Set(keys)].filter((key) => !found.has(key))
    const pairs = fresh.flatMap((key) => {
      const request = requestOf(key)
      return request === undefined ? [] : [{ key, request }]
    })
    return { keys: pairs.map(({ key }) => key), requests: pairs.map(({ request }) => request) }
  }, [of, keys.join('|')])
  const answers = useAnswers(asked.requests)
  useEffect(() => {
    let more = false
    for (const [i, key] of asked.keys.entries()) {
      const answer = answers[i]
      if (answer === undefined || found.has(key)) continue
      found.set(key, answer)
      more = true
    }
    if (more) redraw((n) => n + 1)
  }, [answers, asked, found])
  return found
}
