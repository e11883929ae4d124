import { Field } from './Field'

interface NoteFieldProps {
  /** For whom it is, as a sentence. */
  readonly hint: string
  readonly value: string
  readonly rows?: number
  readonly onChange: (text: string) => void
}

/** A few words left for whoever comes next. */
export const NoteField = ({ hint, value, rows = 3, onChange }: NoteFieldProps) => (
  <Field label="Note" hint={hint}>
    {labelled => (
      <textarea
        {...labelled}
        className="field h-auto"
        rows={rows}
        maxLength={1000}
        value={value}
        onChange={event => onChange(event.target.value)}
      />
    )}
  </Field>
)
