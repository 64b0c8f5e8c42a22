/** Ways to look at the candidates of a lineup; each has an address of its own. */
export const benchViews = ['ledger', 'matrix', 'steps', 'trade-offs', 'layers', 'surface', 'load'] as const
export type BenchView = (typeof benchViews)[number]

/** A lineup on paper; reached from what can be exported. */
export const SHEET = 'sheet'
