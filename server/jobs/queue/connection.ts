import { createHash } from 'node:crypto'
import { deserialize, serialize } from 'node:v8'
import { Redis } from 'ioredis'

/** The queue in which units of all kinds of jobs wait. */
export const QUEUE = 'sable-units'
/** What the units of a job share is let go when nobody asked for it for so long, s. */
const SHARED_FOR_S = 24 * 3600

/** A unit as it waits: its kind is the name of its entry. */
export interface QueuedUnit {
  /** Under which what it shares with others lies. */
  readonly shared: string
  readonly unit: unknown
}

/** @param url `redis://host:port`; commands wait while Redis is away, and are sent when it is back */
export const connectTo = (url: string): Redis => new Redis(url, { maxRetriesPerRequest: null })

/** Lays down what the units of a job share, under the hash of its content. @returns its key */
export async function layDownShared(redis: Redis, kind: string, shared: unknown): Promise<string> {
  const bytes = serialize(shared)
  const key = `sable:shared:${createHash('sha256').update(kind).update(bytes).digest('hex')}`
  await redis.set(key, bytes, 'EX', SHARED_FOR_S)
  return key
}

/** @throws Error where it was let go meanwhile */
export async function fetchShared(redis: Redis, key: string): Promise<unknown> {
  const bytes = await redis.getBuffer(key)
  if (bytes === null) throw new Error(`What the units of this job share is gone (${key}).`)
  return deserialize(bytes)
}
