import { rollups, sum } from 'd3-array'
import type { SpoolUse } from './spools'

/** What is known of a reel beside what is left of it. */
export interface Stock {
  readonly key: string
  readonly name: string
  readonly material: string
  readonly color?: string | undefined
  /** Of a new one: what is on it, g, and what it costs. */
  readonly netG: number
  readonly price?: number | undefined
}

/** Filament that is to be bought: of one material and colour, as whole reels. */
export interface Buy {
  /** Of a reel of it that is there. */
  readonly like: Stock
  readonly grams: number
  readonly reels: number
  /** Of all of them; absent where no price is known. */
  readonly cost?: number
}

/** What the reels of a plan lack, doubts against it, as whole reels like those that are there; the most first. */
export function toBuy(uses: readonly SpoolUse[], stock: readonly Stock[]): Buy[] {
  const lacks = uses.flatMap(({ key, grams, usedG, doubtG }) => {
    const like = stock.find((one) => one.key === key)
    const lack = usedG - (grams - doubtG)
    return like && lack > 0 ? [{ like, lack }] : []
  })
  return rollups(
    lacks,
    (own) => ({ like: own[0]!.like, grams: sum(own, ({ lack }) => lack) }),
    ({ like }) => `${like.material} ${like.color ?? like.key}`,
  )
    .map(([, { like, grams }]): Buy => {
      const reels = Math.ceil(grams / like.netG)
      return { like, grams, reels, ...(like.price === undefined ? {} : { cost: reels * like.price }) }
    })
    .sort((a, b) => b.grams - a.grams)
}
