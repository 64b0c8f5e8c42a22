/** Ways to look at the candidates of a lineup; each has an address of its own. */
export const benchViews = ['ledger', 'steps', 'trade-offs', 'layers', 'surface', 'load'] as const
export type BenchView = (typeof benchViews)[number]
