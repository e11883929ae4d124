'use client'
import { useState } from 'react'
import { Field } from './Field'

interface NumberFieldProps {
  readonly label: string
  readonly hint: string
  readonly value: number
  /** Undefined where only the plan knows. */
  readonly least: number | undefined
  readonly most: number | undefined
  readonly step?: number
  readonly error?: string | undefined
  readonly onChange: (value: number) => void
}

/**
 * A whole number, between two bounds where it has them. What is typed stands as it was typed, also on its way through a number beyond them, and is handed
 * on as it stands (NaN where it is no whole number): a draft whose field shows something else than what it rests on could be carried out.
 */
export function NumberField({ label, hint, value, least, most, step = 1, error, onChange }: NumberFieldProps) {
  const [typed, setTyped] = useState<string>()
  const text = typed ?? (Number.isNaN(value) ? '' : `${value}`)
  const isOne =
    /^-?\d+$/.test(text.trim()) && Number(text) >= (least ?? -Infinity) && Number(text) <= (most ?? Infinity)
  const rule =
    least === undefined || most === undefined ? 'Give a whole number.' : `Give a whole number from ${least} to ${most}.`
  return (
    <Field label={label} hint={hint} error={isOne ? error : rule}>
      {props => (
        <input
          {...props}
          type="number"
          min={least}
          max={most}
          step={step}
          className="field mono"
          value={text}
          onChange={event => {
            const given = event.target.value
            setTyped(given)
            onChange(/^-?\d+$/.test(given.trim()) ? Number(given) : NaN)
          }}
          onBlur={() => isOne && setTyped(undefined)}
        />
      )}
    </Field>
  )
}
