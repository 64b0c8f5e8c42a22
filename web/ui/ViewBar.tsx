import type { ReactNode } from 'react'

/** What a view is told by: its choices on the left and, after a `BarGap`, what can be done with it on the right. */
export const ViewBar = ({ children }: { children: ReactNode }) => (
  <div className="flex min-h-11 shrink-0 flex-wrap items-center gap-x-3 gap-y-1 border-b border-line px-3 py-1.5">{children}</div>
)

export const BarGap = () => <div className="flex-1" />
