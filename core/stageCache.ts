import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js'

/** Key of a stage's result: a hash of the key of its input and of everything else that it reads. */
export function stageKey(stage: string, inputKey: string, reads: unknown): string {
  return bytesToHex(sha256(utf8ToBytes(JSON.stringify([stage, inputKey, reads]))))
}

/** Keeps the newest results of each stage by key, so that an edit costs only the stages below it. */
export class StageCache {
  private readonly results = new Map<string, Map<string, unknown>>()

  /** How many results were at hand, and how many had to be computed. */
  readonly counts = { reused: 0, computed: 0 }

  /** @param perStage how many results of one stage are kept */
  constructor(private readonly perStage = 6) {}

  /** The stage's result for this key: remembered, or computed now. A computation that throws leaves nothing behind. */
  get<T>(stage: string, key: string, compute: () => T): T {
    let kept = this.results.get(stage)
    if (!kept) {
      kept = new Map()
      this.results.set(stage, kept)
    }
    const known = kept.has(key)
    this.counts[known ? 'reused' : 'computed']++
    const result = known ? (kept.get(key) as T) : compute()
    // Deleting first moves the key to the end: the first key is always the one not used for longest.
    kept.delete(key)
    kept.set(key, result)
    if (kept.size > this.perStage) kept.delete(kept.keys().next().value as string)
    return result
  }
}
