import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js'
import type { Work } from '../work/work'

/** Key of a stage's result: a hash of the key of its input and of everything else that it reads. */
export function stageKey(stage: string, inputKey: string, reads: unknown): string {
  return bytesToHex(sha256(utf8ToBytes(JSON.stringify([stage, inputKey, reads]))))
}

interface Kept {
  readonly result: unknown
  readonly bytes: number
}

/** Keeps the newest results of each stage by key, so that an edit costs only the stages below it. */
export class StageCache {
  private readonly results = new Map<string, Map<string, Kept>>()
  /** Stage and key of everything kept, the one not used for longest first. */
  private readonly uses = new Map<string, readonly [stage: string, key: string]>()
  private bytes = 0

  /** How many results were at hand, and how many had to be computed. */
  readonly counts = { reused: 0, computed: 0 }

  /**
   * @param perStage how many results of one stage are kept
   * @param mostBytes how much all of them may hold in arrays, about
   */
  constructor(
    private readonly perStage = 6,
    private readonly mostBytes = Infinity,
  ) {}

  /** The stage's result for this key: remembered, or computed now. A computation that throws leaves nothing behind. */
  get<T>(stage: string, key: string, compute: () => T): T {
    return this.use(stage, key, this.find(stage, key) ?? this.measured(compute())) as T
  }

  /** The same for a stage whose work falls into pieces. */
  *getFrom<T>(stage: string, key: string, work: () => Work<T>): Work<T> {
    return this.use(stage, key, this.find(stage, key) ?? this.measured(yield* work())) as T
  }

  private find(stage: string, key: string): Kept | undefined {
    const known = this.results.get(stage)?.get(key)
    this.counts[known ? 'reused' : 'computed']++
    return known
  }

  private use(stage: string, key: string, own: Kept): unknown {
    let kept = this.results.get(stage)
    if (!kept) {
      kept = new Map()
      this.results.set(stage, kept)
    }
    // Deleting first moves the key to the end: the first key is always the one not used for longest.
    this.forget(stage, key)
    this.keep(stage, key, own)
    if (kept.size > this.perStage) this.forget(stage, kept.keys().next().value as string)
    for (const [oldStage, oldKey] of this.uses.values()) {
      if (this.bytes <= this.mostBytes || (oldStage === stage && oldKey === key)) break
      this.forget(oldStage, oldKey)
    }
    return own.result
  }

  private measured(result: unknown): Kept {
    return { result, bytes: this.mostBytes === Infinity ? 0 : bytesIn(result) }
  }

  private keep(stage: string, key: string, kept: Kept): void {
    this.results.get(stage)!.set(key, kept)
    this.uses.set(`${stage} ${key}`, [stage, key])
    this.bytes += kept.bytes
  }

  private forget(stage: string, key: string): void {
    const own = this.results.get(stage)
    this.bytes -= own?.get(key)?.bytes ?? 0
    own?.delete(key)
    this.uses.delete(`${stage} ${key}`)
  }
}

/** Bytes of the arrays in a result, few levels deep; objects beside them hold little. */
function bytesIn(value: unknown, depth = 4): number {
  if (ArrayBuffer.isView(value)) return value.byteLength
  if (typeof value !== 'object' || value === null || depth === 0) return 0
  // Long lists hold objects that are all alike.
  if (Array.isArray(value) && value.length > 64) return value.length * (32 + bytesIn(value[0], depth - 1))
  let sum = 64
  for (const own of Object.values(value)) sum += bytesIn(own, depth - 1)
  return sum
}
