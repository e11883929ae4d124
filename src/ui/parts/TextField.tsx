'use client'
import type { InputHTMLAttributes, ReactNode } from 'react'
import { Field } from './Field'

type Attribute =
  | 'type'
  | 'maxLength'
  | 'autoComplete'
  | 'autoFocus'
  | 'required'
  | 'disabled'
  | 'min'
  | 'max'
  | 'inputMode'
  | 'list'
/** An attribute that is left out is as one that is undefined. */
type Told = { readonly [Name in Attribute]?: InputHTMLAttributes<HTMLInputElement>[Name] | undefined }

interface TextFieldProps extends Told {
  readonly label: string
  readonly hint?: ReactNode
  readonly error?: string | undefined
  readonly value?: string | number
  readonly onChange: (value: string) => void
  /** For identifiers and figures: in a face in which every character can be told from the next. */
  readonly isMono?: boolean
  readonly className?: string
  /** What goes with the field: what it suggests. */
  readonly children?: ReactNode
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
  children,
  ...told
}: TextFieldProps) {
  return (
    <Field label={label} hint={hint} error={error}>
      {labelled => (
        <>
          <input
            {...labelled}
            {...told}
            className={`field ${isMono ? 'mono' : ''} ${className}`}
            onChange={event => onChange(event.target.value)}
            autoComplete={autoComplete}
            spellCheck={false}
          />
          {children}
        </>
      )}
    </Field>
  )
}
