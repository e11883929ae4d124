'use client'
import { Field } from './Field'

interface NumberFieldProps {
  readonly label: string
  readonly hint: string
  readonly value: number
  readonly least: number
  readonly most: number
  readonly step?: number
  readonly error?: string | undefined
  readonly onChange: (value: number) => void
}

/** A whole number between two bounds: what is typed beyond them becomes the bound. */
export function NumberField({ label, hint, value, least, most, step = 1, error, onChange }: NumberFieldProps) {
  return (
    <Field label={label} hint={hint} error={error}>
      {props => (
        <input
          {...props}
          type="number"
          min={least}
          max={most}
          step={step}
          className="field mono"
          value={value}
          onChange={event => onChange(Math.min(most, Math.max(least, Math.round(Number(event.target.value) || 0))))}
        />
      )}
    </Field>
  )
}
