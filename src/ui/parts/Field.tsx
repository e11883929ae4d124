'use client'
import { useId, type ReactNode } from 'react'
import { Trouble } from './State'

interface FieldProps {
  readonly label: string
  readonly hint?: ReactNode
  readonly error?: string | undefined
  readonly children: (props: {
    readonly id: string
    readonly 'aria-invalid': boolean
    readonly 'aria-describedby': string
  }) => ReactNode
}

/** A field with its label, the rule as a hint, and the error beside it. */
export function Field({ label, hint, error, children }: FieldProps) {
  const id = useId()
  return (
    <div className="mb-[9px]">
      <label className="label" htmlFor={id}>
        {label}
      </label>
      {children({ id, 'aria-invalid': error !== undefined, 'aria-describedby': `${id}-hint` })}
      <div id={`${id}-hint`}>
        {hint !== undefined && <div className="hint">{hint}</div>}
        {error !== undefined && <Trouble>{error}</Trouble>}
      </div>
    </div>
  )
}
