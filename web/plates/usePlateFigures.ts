import type { PlateOrder } from '@sable/core/plate/platePart'
import { useEffect, useState } from 'react'
import { predictionPool } from '../predictions/predictionStore'
import type { DrawnPart, ToldFigures } from '../predictions/worker/plating'
import type { Item } from './usePlateColumns'

/** The worker that lays plates keeps its parts: it is always the same. */
export const plateWorker = () => predictionPool().workerOf('plate')

const MOST_DRAWN = 64
const drawn = new Map<string, DrawnPart>()

/** Keeps a part that was drawn for another reason. */
export const keepDrawn = (key: string, part: DrawnPart): void => {
  drawn.set(key, part)
  if (drawn.size > MOST_DRAWN) drawn.delete(drawn.keys().next().value as string)
}

/** Parts as they are drawn, by what they are laid from; and what keeps one from being laid, in a sentence. */
export function useDrawnParts(items: readonly Item[]): {
  readonly drawn: ReadonlyMap<string, DrawnPart>
  readonly failed: ReadonlyMap<string, string>
} {
  const [, redraw] = useState(0)
  const [failed, setFailed] = useState<ReadonlyMap<string, string>>(new Map())
  const missing = items.filter(({ key }) => !drawn.has(key) && !failed.has(key))
  const asked = missing.map(({ key }) => key).join('\n')
  // biome-ignore lint/correctness/useExhaustiveDependencies: the keys say all that items say.
  useEffect(() => {
    let isWanted = true
    const drawAll = async (): Promise<void> => {
      for (const { key, column } of new Map(missing.map((item) => [item.key, item])).values()) {
        const answer = await plateWorker().drawOnPlate(column)
        if (answer.kind === 'done') keepDrawn(key, answer.part)
        else if (isWanted) setFailed((before) => new Map(before).set(key, `${answer.message} ${answer.remedy}`))
        if (!isWanted) return
        redraw((n) => n + 1)
      }
    }
    void drawAll()
    return () => {
      isWanted = false
    }
  }, [asked])
  return { drawn, failed }
}

export interface PlateForecast {
  /** The last figures; old ones while new ones are worked out. */
  readonly figures?: ToldFigures
  readonly isOld: boolean
  readonly refused?: string
}

/** What is foretold of a plate, worked out anew once it rests. */
export function usePlateFigures(items: readonly Item[], order: PlateOrder): PlateForecast {
  const [found, setFound] = useState<{ readonly key: string; readonly figures?: ToldFigures; readonly refused?: string }>()
  const key = JSON.stringify([order, items.map(({ key, x, y, turn, column }) => [key, x, y, turn, column.name])])
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key says all that items and order say.
  useEffect(() => {
    const [first] = items
    if (!first) return setFound({ key })
    let isWanted = true
    const wait = setTimeout(async () => {
      const answer = await plateWorker().foretellPlate(
        items.map(({ column }) => column),
        items.map(({ x, y, turn }) => ({ x, y, turn })),
        order,
        first.column.request.setup,
      )
      if (!isWanted) return
      setFound((before) =>
        answer.kind === 'done'
          ? { key, figures: answer.figures }
          : { key, ...(before?.figures ? { figures: before.figures } : {}), refused: `${answer.message} ${answer.remedy}` },
      )
    }, 250)
    return () => {
      isWanted = false
      clearTimeout(wait)
    }
  }, [key])
  const isOld = found?.key !== key
  return { ...(found?.figures ? { figures: found.figures } : {}), isOld, ...(found?.refused && !isOld ? { refused: found.refused } : {}) }
}
