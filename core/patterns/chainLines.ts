import type { FillLines } from '../geometry/fillLines'

/** Runs of fill lines, each beside the one before it, that can be laid back and forth without a long way between them. */
export type LineChain = readonly number[]

/** Joins every line to one that overlaps it on the next row, one to one, until no more can be joined. */
export function chainLines(lines: FillLines): LineChain[] {
  const chains: number[][] = []
  /** Chains whose last line lies on the row before, in the order in which they lie along it. */
  let reachable: number[][] = []
  let i = 0
  let row = 0
  while (i < lines.count) {
    if (lines.row[i] !== row) reachable = reachable.filter((chain) => lines.row[chain[chain.length - 1]!] === lines.row[i]! - 1)
    row = lines.row[i]!
    const continued: number[][] = []
    let k = 0
    for (; i < lines.count && lines.row[i] === row; i++) {
      while (k < reachable.length && lines.end[last(reachable[k]!)]! < lines.start[i]!) k++
      const chain = reachable[k]
      if (chain && lines.start[last(chain)]! <= lines.end[i]!) {
        chain.push(i)
        continued.push(chain)
        k++
      } else {
        const begun = [i]
        chains.push(begun)
        continued.push(begun)
      }
    }
    reachable = continued
  }
  return chains
}

const last = (chain: readonly number[]): number => chain[chain.length - 1]!
