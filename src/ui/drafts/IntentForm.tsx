'use client'
import { useId, type ReactNode } from 'react'
import { blankIntent, intentNamed, mostCharacters, type FormField } from '@/core/intents'
import type { ChangeRecord } from '@/core/views'
import { Field } from '../parts/Field'
import { echo } from './ProvisionVolume'
import { DraftFrame } from './DraftFrame'
import { useDraft, type Draft } from './useDraft'
import { Tick } from '../parts/Checkbox'
import { Select } from '../parts/Select'
import { Trouble } from '../parts/State'

/** What can be chosen, by what a form's field says of its choices. */
export type Choices = Readonly<Partial<Record<NonNullable<FormField['choices']>, readonly Choice[]>>>
interface Choice {
  readonly value: string
  readonly words: string
}
type Intent = Readonly<Record<string, unknown>>

interface IntentFormProps {
  /** The kind of change; one that has a form of its own is not drawn here. */
  readonly kind: string
  readonly title: string
  /** What the intent begins with: what it is about. */
  readonly begin: Intent
  /** The name of what it is about, where it has to be typed. */
  readonly name?: string
  readonly choices?: Choices
  readonly kept?: ChangeRecord | undefined
  readonly children?: ReactNode
}

/** The form of a kind of change, as its intent says it. */
export function IntentForm({ kind, title, begin, name, choices = {}, kept, children }: IntentFormProps) {
  const drafted = intentNamed(kind)
  const draft = useDraft<Intent>(kind, { ...(drafted === undefined ? {} : blankIntent(drafted)), ...begin }, kept)
  if (drafted?.form === undefined) return null
  return (
    <DraftFrame title={title} draft={draft} verb={drafted.verb}>
      {drafted.form.lead !== undefined && <p className="mt-0">{drafted.form.lead}</p>}
      {children}
      {drafted.form.fields.map(field => (
        <FieldOf
          key={field.field}
          field={field}
          draft={draft}
          name={name}
          most={mostCharacters(drafted, field.field)}
          choices={field.choices === undefined ? undefined : choices[field.choices]}
        />
      ))}
    </DraftFrame>
  )
}

interface FieldOfProps {
  readonly field: FormField
  readonly draft: Draft<Intent>
  readonly name: string | undefined
  readonly most: number | undefined
  readonly choices: readonly Choice[] | undefined
}

function FieldOf(props: FieldOfProps) {
  const { field, draft, name } = props
  const value = draft.intent[field.field]
  const text = typeof value === 'string' ? value : ''
  if (field.as === 'some of') return <SomeOf {...props} />
  const hint = field.as === 'size' ? (echo(text) ?? field.hint) : field.as === 'typed name' ? name : field.hint
  return (
    <Field label={field.label} hint={hint} error={draft.errorOf(field.field)}>
      {labelled => <Input {...props} labelled={labelled} text={text} />}
    </Field>
  )
}

type Labelled = Parameters<Parameters<typeof Field>[0]['children']>[0]

function Input({
  field,
  draft,
  most,
  choices,
  labelled,
  text,
}: FieldOfProps & { readonly labelled: Labelled; readonly text: string }) {
  const listId = useId()
  const change = (event: { readonly target: { readonly value: string } }) =>
    draft.set({ [field.field]: event.target.value })
  const shared = { ...labelled, value: text, onChange: change, maxLength: most }
  switch (field.as) {
    case 'one of':
      return (
        <Select
          {...labelled}
          value={text}
          options={choices ?? []}
          onChange={value => draft.set({ [field.field]: value })}
        />
      )
    case 'lines':
      return <textarea {...shared} className="field h-auto" rows={3} />
    case 'day':
      return <input {...labelled} type="date" className="field mono" value={text} onChange={change} />
    default:
      return (
        <>
          <input
            {...shared}
            className={`field ${field.as === 'size' ? 'mono' : ''}`}
            spellCheck={false}
            autoComplete="off"
            list={choices === undefined ? undefined : listId}
          />
          {choices !== undefined && (
            <datalist id={listId}>
              {choices.map(each => (
                <option key={each.value} value={each.value} />
              ))}
            </datalist>
          )}
        </>
      )
  }
}

/** Several of a few, each by itself. */
function SomeOf({ field, draft, choices = [] }: FieldOfProps) {
  const value = draft.intent[field.field]
  const chosen = Array.isArray(value) ? (value as readonly string[]) : []
  const error = draft.errorOf(field.field)
  return (
    <fieldset className="mb-3 border-0 p-0">
      <legend className="label">{field.label}</legend>
      {choices.map(each => (
        <Tick
          key={each.value}
          isOn={chosen.includes(each.value)}
          onChange={isOn =>
            draft.set({
              [field.field]: isOn ? [...chosen, each.value] : chosen.filter(other => other !== each.value),
            })
          }
        >
          {each.words}
        </Tick>
      ))}
      {choices.length === 0 && <p className="mt-0 text-second">There is none to choose.</p>}
      {error !== undefined && <Trouble>{error}</Trouble>}
    </fieldset>
  )
}
