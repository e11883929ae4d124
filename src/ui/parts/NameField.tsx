'use client'
import { Field } from './Field'

interface NameFieldProps {
  readonly label?: string
  readonly hint: string
  readonly value: string
  /** A name that Wendrel suggests while the field is empty. */
  readonly suggestion: string
  readonly error: string | undefined
  readonly onChange: (name: string) => void
}

/** The name of something new, with a suggestion that one press takes over. */
export function NameField({ label = 'Name', hint, value, suggestion, error, onChange }: NameFieldProps) {
  return (
    <Field label={label} hint={hint} error={error}>
      {props => (
        <span className="flex flex-wrap gap-2">
          <input
            {...props}
            className="field min-w-[150px] flex-1"
            value={value}
            placeholder={suggestion}
            onChange={event => onChange(event.target.value)}
            maxLength={255}
            spellCheck={false}
          />
          {value === '' && suggestion !== '' && (
            <button type="button" className="button quiet max-w-full truncate" onClick={() => onChange(suggestion)}>
              Use {suggestion}
            </button>
          )}
        </span>
      )}
    </Field>
  )
}
