import clsx from 'clsx'
import { Check } from 'lucide-react'
import { Checkbox as Radix } from 'radix-ui'
import type { ReactNode } from 'react'

/** Something that is so or not, with its label behind it. */
export function Checkbox({
  children,
  name,
  checked,
  onChange,
  help,
  className,
}: {
  /** The label; where there is none, `name` says what it is. */
  children?: ReactNode
  name?: string
  checked: boolean
  onChange: (checked: boolean) => void
  help?: string
  className?: string
}) {
  const box = (
    <Radix.Root
      checked={checked}
      onCheckedChange={(to) => onChange(to === true)}
      {...(name === undefined ? {} : { 'aria-label': name })}
      className="flex size-4 shrink-0 items-center justify-center rounded-[3px] border border-strong bg-sunk"
    >
      <Radix.Indicator>
        <Check className="size-3.5 text-lantern-ink" strokeWidth={3} aria-hidden />
      </Radix.Indicator>
    </Radix.Root>
  )
  if (children === undefined) return box
  return (
    // biome-ignore lint/a11y/noLabelWithoutControl: the box within is the control.
    <label data-hint={help} className={clsx('flex items-center gap-1.5 text-[12.5px]', className)}>
      {box}
      {children}
    </label>
  )
}
