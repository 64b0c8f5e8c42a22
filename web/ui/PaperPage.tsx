import clsx from 'clsx'
import type { ReactNode } from 'react'
import { Button } from './Button'

/** A place that shows pages to print, with what prints them. */
export function PaperPlace({
  label,
  isReady = true,
  note,
  children,
}: {
  label: string
  isReady?: boolean
  /** Beside the button: how many pages there are, or what is still missing. */
  note?: ReactNode
  children: ReactNode
}) {
  return (
    <section
      aria-label={label}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reached by keyboard, where it holds nothing to press
      tabIndex={0}
      className="min-h-0 flex-1 overflow-auto bg-sunk py-5 print:bg-white print:p-0"
    >
      <div className="mx-auto mb-3 flex w-[210mm] items-center gap-3 print:hidden">
        <Button tone="main" disabled={!isReady} onClick={() => window.print()}>
          Print
        </Button>
        {note}
      </div>
      {children}
    </section>
  )
}

/** An upright A4 page: ink on white, whatever the theme. */
export function PaperPage({
  title,
  under,
  aside,
  className = 'p-[12mm] text-[11px] leading-[1.45]',
  children,
}: {
  title: ReactNode
  /** Beneath the title. */
  under?: ReactNode
  /** At the right of it. */
  aside?: ReactNode
  /** Its margins and its letters. */
  className?: string
  children: ReactNode
}) {
  return (
    <article
      data-theme="light"
      className={clsx(
        'sheet mx-auto mb-5 w-[210mm] bg-white text-[#1d1916] print:mb-0 print:w-auto print:p-0 print:not-first-of-type:break-before-page',
        className,
      )}
    >
      <header className="flex items-end justify-between gap-6 border-b border-[#1d1916] pb-1">
        <div>
          <h1 className="text-[16px] font-semibold">{title}</h1>
          {under !== undefined && <p>{under}</p>}
        </div>
        {aside !== undefined && <p className="shrink-0 text-right">{aside}</p>}
      </header>
      {children}
    </article>
  )
}
