import type { Modifier } from '@dnd-kit/core'

/** Columns move sideways only. */
export const restrictToHorizontal: Modifier = ({ transform }) => ({ ...transform, y: 0 })
