/** Layers from one to before another. */
export interface Block {
  readonly from: number
  readonly to: number
}

/** Fewer layers are not worth a block of their own: what is around a block is looked at for it again. */
const LEAST_LAYERS = 32
/** As many as several threads share evenly. */
const MOST_BLOCKS = 8

/** Divides layers into blocks that can be worked on at once. Depends on their number alone, so that results do not hang on how many threads there are. */
export function blocksOf(count: number): Block[] {
  const blocks = Math.max(1, Math.min(MOST_BLOCKS, Math.floor(count / LEAST_LAYERS)))
  return Array.from({ length: blocks }, (_, i) => ({ from: Math.round((i * count) / blocks), to: Math.round(((i + 1) * count) / blocks) }))
}
