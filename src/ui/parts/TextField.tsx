'use client'
import type { InputHTMLAttributes, ReactNode } from 'react'
import { Field } from './Field'

type Told = 'type' | 'maxLength' | 'autoComplete' | 'autoFocus' | 'required' | 'disabled' | 'min' | 'max' | 'inputMode'

interface TextFieldProps extends Pick<InputHTMLAttributes<HTMLInputElement>, Told> {
  readonly label: string
  readonly hint?: ReactNode
  readonly error?: string | undefined
  readonly value?: string | number
  /** What stands in it at first, where what is made of the text is not the text itself. */
  readonly defaultValue?: string
  readonly onChange: (value: string) => void
  /** For identifiers and figures: in a face in which every character can be told from the next. */
  readonly isMono?: boolean
  readonly className?: string
}

/** A line of text with its label, its rule and its error. Nothing in it is spelt for the reader: names and codes are no words. */
export function TextField({
  label,
  hint,
  error,
  onChange,
  isMono = false,
  className = '',
  autoComplete = 'off',
  ...told
}: TextFieldProps) {
  return (
    <Field label={label} hint={hint} error={error}>
      {labelled => (
        <input
          {...labelled}
          {...told}
          className={`field ${isMono ? 'mono' : ''} ${className}`}
          onChange={event => onChange(event.target.value)}
          autoComplete={autoComplete}
          spellCheck={false}
        />
      )}
    </Field>
  )
}
