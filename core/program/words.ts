/**
 * Comments by which a program tells what its lines are for. They are ours; other programs use others, which a user can
 * name by a pattern.
 */
export const mark = {
  feature: '@ feature ',
  layer: '@ layer ',
  cornerSpeed: '@ corner-speed ',
} as const

/** Matches a comment that names a feature; its first group is the name. */
export const DEFAULT_FEATURE_PATTERN = '^\\s*@?\\s*feature[\\s:=]+(.+?)\\s*$'
/** Matches a comment that begins a layer. */
export const DEFAULT_LAYER_PATTERN = '^\\s*@?\\s*layer\\b'
