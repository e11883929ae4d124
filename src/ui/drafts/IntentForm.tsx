'use client'
import type { ReactNode } from 'react'
import { blankIntent, boundsOf, intentNamed, type FormField, type IntentKind } from '@/core/intents'
import type { ShownChange } from '@/core/views'
import { DraftFrame } from './DraftFrame'
import { fieldParts } from './fieldParts'
import type { Choices } from './PartProps'
import { useDraft, type Draft } from './useDraft'

type AnyIntent = Readonly<Record<string, unknown>>

/** What is drawn in a form: a part for a field that no ordinary field can fill in. */
export type DrawnParts<Intent> = Readonly<Partial<Record<keyof Intent & string, (draft: Draft<Intent>) => ReactNode>>>

interface IntentFormProps<Intent extends object> {
  readonly kind: string
  readonly title: string
  /** What the intent begins with: what it is about, and where its fields start from. */
  readonly begin: Partial<Intent>
  /** The name of what it is about, where it has to be typed. */
  readonly name?: string
  readonly choices?: Choices
  readonly parts?: DrawnParts<Intent>
  readonly kept?: ShownChange | undefined
  /** What the plan draws stands on the sheet, not in the margin. */
  readonly isSketchBeside?: boolean
  readonly children?: ReactNode
}

/** The form of a kind of change, as its intent says it. */
export function IntentForm<Intent extends object = AnyIntent>(props: IntentFormProps<Intent>) {
  const drafted = intentNamed(props.kind)
  return drafted?.form === undefined ? null : <FormOf {...props} drafted={drafted} />
}

function FormOf<Intent extends object>({
  drafted,
  title,
  begin,
  name,
  choices = {},
  parts = {} as DrawnParts<Intent>,
  kept,
  isSketchBeside = false,
  children,
}: IntentFormProps<Intent> & { readonly drafted: IntentKind }) {
  const draft = useDraft<Intent>(drafted.kind, { ...blankIntent(drafted), ...begin } as Intent, kept)
  const { lead, fields = [] } = drafted.form ?? {}
  const asked = fields.filter(({ onlyWhile }) => {
    if (onlyWhile === undefined) return true
    const now = (draft.intent as AnyIntent)[onlyWhile.field]
    if (onlyWhile.is === 'filled' || onlyWhile.is === 'blank')
      return ((now ?? '') === '') === (onlyWhile.is === 'blank')
    return [onlyWhile.is].flat().includes(String(now))
  })
  return (
    <DraftFrame title={title} draft={draft} verb={drafted.verb} isSketchBeside={isSketchBeside}>
      {lead !== undefined && <p className="mt-0 mb-3">{lead}</p>}
      {children}
      {linesOf(asked).map(line => {
        const drawn = line.map(field => (
          <FieldOf key={field.field} field={field} kind={drafted} draft={draft} {...{ name, choices, parts }} />
        ))
        if (drawn.length === 1) return drawn
        return (
          <div key={line[0]?.field} className={`grid gap-[10px] ${line.length === 2 ? 'grid-cols-2' : 'grid-cols-3'}`}>
            {drawn}
          </div>
        )
      })}
    </DraftFrame>
  )
}

/** Fields that stand beside each other make a line. */
function linesOf(fields: readonly FormField[]): FormField[][] {
  const lines: FormField[][] = []
  for (const field of fields) {
    const line = lines.at(-1)
    if (field.isBeside === true && line !== undefined) line.push(field)
    else lines.push([field])
  }
  return lines
}

interface FieldOfProps<Intent> {
  readonly field: FormField
  readonly kind: IntentKind
  readonly draft: Draft<Intent>
  readonly name: string | undefined
  readonly choices: Choices
  readonly parts: DrawnParts<Intent>
}

function FieldOf<Intent extends object>({ field, kind, draft, name, choices, parts }: FieldOfProps<Intent>) {
  const key = field.field as keyof Intent & string
  if (field.as === 'part') return parts[key]?.(draft) ?? null
  const Part = fieldParts[field.as]
  return (
    <Part
      {...draft.field(key)}
      field={field}
      bounds={boundsOf(kind, key)}
      name={name}
      suggestion={draft.plan?.suggestions?.[key] ?? ''}
      options={field.choices === undefined ? textOptions(field) : choices[field.choices]}
      intent={draft.intent as AnyIntent}
      set={change => draft.set(change as Partial<Intent>)}
      onChange={value => draft.set({ [key]: value } as unknown as Partial<Intent>)}
    />
  )
}

/** Few choices that are written in the form itself. */
const textOptions = ({ as, options }: FormField) =>
  as === 'one of' ? options?.map(({ value, words }) => ({ value: String(value), words })) : undefined
