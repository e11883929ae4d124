'use client'
import { Check, Minus } from 'lucide-react'
import { Checkbox as Radix } from 'radix-ui'
import { useId, type MouseEvent, type ReactNode } from 'react'

interface CheckboxProps {
  readonly isOn: boolean | 'some'
  /** @param isRange whether it was pressed with Shift */
  readonly onChange: (isOn: boolean, isRange: boolean) => void
  readonly 'aria-label'?: string
  readonly id?: string
  readonly className?: string
  readonly tabIndex?: number
}

/** A box that is ticked or not; half ticked where it stands for several of which some are. */
export function Checkbox({ isOn, onChange, className = '', ...labelled }: CheckboxProps) {
  return (
    <Radix.Root
      {...labelled}
      checked={isOn === 'some' ? 'indeterminate' : isOn}
      onClick={(event: MouseEvent) => {
        // By the click, not by the change: only it says whether a range is meant.
        event.stopPropagation()
        onChange(isOn !== true, event.shiftKey)
      }}
      className={`grid size-[14px] shrink-0 place-items-center rounded-sm border border-second bg-paper p-0 data-[state=checked]:border-action data-[state=checked]:bg-action data-[state=indeterminate]:border-action data-[state=indeterminate]:bg-action ${className}`}
    >
      <Radix.Indicator className="text-sheet">
        {isOn === 'some' ? (
          <Minus aria-hidden size={11} strokeWidth={3} />
        ) : (
          <Check aria-hidden size={11} strokeWidth={3} />
        )}
      </Radix.Indicator>
    </Radix.Root>
  )
}

interface TickProps extends Pick<CheckboxProps, 'isOn' | 'onChange'> {
  readonly children: ReactNode
  readonly className?: string
}

/** A box with the words that it ticks. */
export function Tick({ children, className = 'py-[2px]', ...box }: TickProps) {
  const id = useId()
  return (
    <div className={`flex items-start gap-2 ${className}`}>
      <Checkbox id={id} {...box} className="mt-[2px]" />
      <label htmlFor={id}>{children}</label>
    </div>
  )
}
