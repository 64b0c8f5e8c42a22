import clsx from 'clsx'
import type { ComponentProps } from 'react'

/** A button: quiet by default, amber when it is the one to press. */
export function Button({ tone = 'quiet', className, ...props }: ComponentProps<'button'> & { tone?: 'quiet' | 'main' | 'danger' }) {
  return (
    <button
      type="button"
      className={clsx(
        'inline-flex h-7 shrink-0 items-center gap-1.5 rounded-md border px-2.5 text-[12px] font-medium transition-colors disabled:opacity-45',
        tone === 'quiet' && 'border-line bg-raised text-ink enabled:hover:border-strong',
        tone === 'main' && 'border-transparent bg-lantern text-[#1a1206] enabled:hover:brightness-110',
        tone === 'danger' && 'border-stop/50 bg-raised text-stop enabled:hover:border-stop',
        className,
      )}
      {...props}
    />
  )
}

/** A button that is only an icon; its label is read out and shown as its hint. */
export function IconButton({ label, className, ...props }: ComponentProps<'button'> & { label: string }) {
  return (
    <button
      type="button"
      aria-label={label}
      data-hint={label}
      className={clsx(
        'inline-flex size-6 shrink-0 items-center justify-center rounded text-muted transition-colors enabled:hover:bg-line enabled:hover:text-ink disabled:opacity-35',
        className,
      )}
      {...props}
    />
  )
}
