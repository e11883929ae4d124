import isEqual from 'fast-deep-equal'
import { useId, useState, type ComponentType } from 'react'
import type { FormField } from '@/core/intents'
import { Tick } from '../parts/Checkbox'
import { Choice } from '../parts/Choice'
import { Field } from '../parts/Field'
import { NameField } from '../parts/NameField'
import { NumberField } from '../parts/NumberField'
import { SecretField } from '../parts/SecretField'
import { SelectField } from '../parts/Select'
import { sizeEcho } from '../parts/sizeEcho'
import { Trouble } from '../parts/State'
import { TextField } from '../parts/TextField'
import { AccessList, Certificate, ExportRules, FileRules, Grants, Person, Quotas } from './listParts'
import { textOf, type PartProps } from './PartProps'

function Text({ field, bounds, value, error, onChange, name, options }: PartProps) {
  const listId = useId()
  const text = textOf(value)
  return (
    <TextField
      label={field.label}
      hint={field.as === 'size' ? (sizeEcho(text) ?? field.hint) : field.as === 'typed name' ? name : field.hint}
      error={error}
      value={text}
      maxLength={bounds.maxLength}
      isMono={field.as === 'size' || field.as === 'identifier'}
      list={options === undefined ? undefined : listId}
      onChange={onChange}
    >
      {options !== undefined && (
        <datalist id={listId}>
          {options.map(each => (
            <option key={each.value} value={each.value} />
          ))}
        </datalist>
      )}
    </TextField>
  )
}

const SuggestedName = ({ field, value, error, onChange, suggestion }: PartProps) => (
  <NameField
    label={field.label}
    hint={field.hint ?? ''}
    value={textOf(value)}
    suggestion={suggestion}
    error={error}
    onChange={onChange}
  />
)

const WholeNumber = ({ field, bounds, value, error, onChange }: PartProps) => (
  <NumberField
    label={field.label}
    hint={field.hint ?? ''}
    value={typeof value === 'number' ? value : NaN}
    least={bounds.minimum}
    most={bounds.maximum}
    error={error}
    onChange={onChange}
  />
)

/** A number, as its text is when nothing more is typed. */
const isNumber = (text: string) => /^\d{1,9}(\.\d{1,3})?$/.test(text) && `${Number(text)}` === text

/** A number, or nothing; what is neither, or whole where it has to be, is handed on as it stands, and the schema says so. */
const NumberOrNone = ({ field, value, error, onChange }: PartProps) => (
  <TextField
    label={field.label}
    hint={field.hint}
    error={error}
    inputMode="decimal"
    value={typeof value === 'number' || typeof value === 'string' ? value : ''}
    isMono
    onChange={text => onChange(text.trim() === '' ? null : isNumber(text.trim()) ? Number(text) : text)}
  />
)

/** Numbers with commas. The text stands as it is typed; what it says is handed on. */
function Numbers({ field, value, error, onChange }: PartProps) {
  const [text, setText] = useState(Array.isArray(value) ? value.join(', ') : '')
  return (
    <TextField
      label={field.label}
      hint={field.hint}
      error={error}
      value={text}
      isMono
      onChange={typed => {
        setText(typed)
        const each = typed.split(',').map(part => part.trim())
        onChange(each.filter(part => part !== '').map(part => (/^\d{1,9}$/.test(part) ? Number(part) : part)))
      }}
    />
  )
}

const Lines = ({ field, bounds, value, error, onChange }: PartProps) => (
  <Field label={field.label} hint={field.hint} error={error}>
    {labelled => (
      <textarea
        {...labelled}
        className="field h-auto"
        rows={3}
        value={textOf(value)}
        maxLength={bounds.maxLength}
        onChange={event => onChange(event.target.value)}
      />
    )}
  </Field>
)

const Day = ({ field, value, error, onChange }: PartProps) => (
  <TextField
    label={field.label}
    hint={field.hint}
    error={error}
    type="date"
    value={textOf(value)}
    isMono
    onChange={onChange}
  />
)

/** The text of a file, which is read here. */
const TextOfFile = ({ field, error, onChange }: PartProps) => (
  <Field label={field.label} hint={field.hint} error={error}>
    {labelled => (
      <input
        {...labelled}
        type="file"
        accept="application/json,.json"
        className="field h-auto"
        onChange={event => {
          const [file] = event.target.files ?? []
          if (file !== undefined) void file.text().then(onChange)
        }}
      />
    )}
  </Field>
)

/** A secret, of which the draft holds the id only. */
const Secret = ({ field, value, error, onChange }: PartProps) => (
  <SecretField
    label={field.label}
    hint={field.hint}
    error={error}
    value={textOf(value)}
    purpose={field.purpose ?? ''}
    onChange={onChange}
  />
)

const OneOf = ({ field, value, error, onChange, options = [] }: PartProps) => (
  <SelectField
    label={field.label}
    hint={field.hint}
    error={error}
    value={textOf(value)}
    options={options}
    onChange={onChange}
  />
)

/** Several of a few, each by itself. */
function SomeOf({ field, value, error, onChange, options = [] }: PartProps) {
  const chosen = Array.isArray(value) ? (value as readonly string[]) : []
  return (
    <fieldset className="mb-3 border-0 p-0">
      <legend className="label">{field.label}</legend>
      {options.map(each => (
        <Tick
          key={each.value}
          isOn={chosen.includes(each.value)}
          onChange={isOn => onChange(isOn ? [...chosen, each.value] : chosen.filter(other => other !== each.value))}
        >
          {each.words}
        </Tick>
      ))}
      {options.length === 0 && <p className="mt-0 text-second">There is none to choose.</p>}
      {error !== undefined && <Trouble>{error}</Trouble>}
    </fieldset>
  )
}

/** One of a few; what each stands for may be anything, so they are told apart by their words. */
function SideBySide({ field, value, error, onChange }: PartProps) {
  const options = field.options ?? []
  return (
    <>
      <Choice
        label={field.label}
        value={options.find(each => isEqual(each.value, value))?.words ?? ''}
        options={options.map(({ words }) => ({ value: words, words }))}
        onChange={words => onChange(options.find(each => each.words === words)?.value)}
      />
      {error !== undefined && <Trouble>{error}</Trouble>}
    </>
  )
}

const OneTick = ({ field, value, onChange }: PartProps) => (
  <Tick className="mb-2" isOn={value === true} onChange={onChange}>
    {field.label}
  </Tick>
)

/** How each sort of field is filled in. */
export const fieldParts: Readonly<Record<Exclude<FormField['as'], 'part'>, ComponentType<PartProps>>> = {
  text: Text,
  identifier: Text,
  size: Text,
  'typed name': Text,
  'suggested name': SuggestedName,
  number: WholeNumber,
  'number or none': NumberOrNone,
  numbers: Numbers,
  lines: Lines,
  day: Day,
  file: TextOfFile,
  secret: Secret,
  'export rules': ExportRules,
  'access list': AccessList,
  'share grants': Grants,
  person: Person,
  certificate: Certificate,
  quotas: Quotas,
  'file rules': FileRules,
  'one of': OneOf,
  'some of': SomeOf,
  'side by side': SideBySide,
  tick: OneTick,
}
