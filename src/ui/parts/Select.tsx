'use client'
import { Check, ChevronDown, ChevronUp } from 'lucide-react'
import { Select as Radix } from 'radix-ui'
import type { ReactNode } from 'react'
import { Field } from './Field'
import { pageNonce } from './pageNonce'

export interface SelectOption<Value extends string = string> {
  readonly value: Value
  readonly words: string
  readonly isDisabled?: boolean
}

interface SelectProps<Value extends string> {
  readonly value: Value
  readonly options: readonly SelectOption<Value>[]
  readonly onChange: (value: Value) => void
  readonly id?: string
  readonly 'aria-label'?: string
  readonly 'aria-invalid'?: boolean
  readonly 'aria-describedby'?: string
  /** What stands there while none of the options is chosen. */
  readonly placeholder?: string
  readonly className?: string
}

/** Stands for the empty value, which the list keeps for "nothing chosen". */
const none = '\u2205'

/** One of a list. */
export function Select<Value extends string>({
  value,
  options,
  onChange,
  placeholder = 'choose',
  className = '',
  ...labelled
}: SelectProps<Value>) {
  const isKnown = options.some(option => option.value === value)
  return (
    <Radix.Root
      value={isKnown ? value || none : ''}
      // An empty value comes from the list itself while its options change; nobody has chosen it.
      onValueChange={next => next !== '' && onChange((next === none ? '' : next) as Value)}
    >
      <Radix.Trigger
        {...labelled}
        className={`field flex items-center justify-between gap-2 text-left data-[placeholder]:text-faint ${className}`}
      >
        <span className="min-w-0 truncate">
          <Radix.Value placeholder={placeholder} />
        </span>
        <Radix.Icon asChild>
          <ChevronDown aria-hidden size={13} className="shrink-0 text-faint" />
        </Radix.Icon>
      </Radix.Trigger>
      <Options options={options} />
    </Radix.Root>
  )
}

interface SelectFieldProps<Value extends string> extends Omit<SelectProps<Value>, 'id' | 'aria-label'> {
  readonly label: string
  readonly hint?: ReactNode
  readonly error?: string | undefined
}

/** One of a list, with its label, its rule and its error. */
export function SelectField<Value extends string>({ label, hint, error, ...select }: SelectFieldProps<Value>) {
  return (
    <Field label={label} hint={hint} error={error}>
      {labelled => <Select {...select} {...labelled} />}
    </Field>
  )
}

interface OptionsProps {
  readonly options: readonly SelectOption[]
}

const Options = ({ options }: OptionsProps) => (
  <Radix.Portal>
    <Radix.Content position="popper" sideOffset={3} className="list-panel" collisionPadding={8}>
      <Radix.ScrollUpButton className="flex justify-center text-faint">
        <ChevronUp aria-hidden size={13} />
      </Radix.ScrollUpButton>
      <Radix.Viewport className="py-1" nonce={pageNonce() ?? ''}>
        {options.map(option => (
          <Radix.Item
            key={option.value}
            value={option.value || none}
            disabled={option.isDisabled === true}
            className="list-option"
          >
            <Radix.ItemText>{option.words}</Radix.ItemText>
            <Radix.ItemIndicator className="ml-auto">
              <Check aria-hidden size={13} />
            </Radix.ItemIndicator>
          </Radix.Item>
        ))}
      </Radix.Viewport>
      <Radix.ScrollDownButton className="flex justify-center text-faint">
        <ChevronDown aria-hidden size={13} />
      </Radix.ScrollDownButton>
    </Radix.Content>
  </Radix.Portal>
)
