import type { boundsOf, FieldChoices, FormField } from '@/core/intents'

/** What can be chosen, by what a form's field says of its choices. */
export type Choices = Readonly<Partial<Record<FieldChoices, readonly Option[]>>>
export interface Option {
  readonly value: string
  readonly words: string
}

/** What a part of a form is given of its field. */
export interface PartProps {
  readonly field: FormField
  readonly bounds: ReturnType<typeof boundsOf>
  readonly value: unknown
  readonly error: string | undefined
  readonly onChange: (value: unknown) => void
  /** The name of what the draft is about. */
  readonly name: string | undefined
  readonly suggestion: string
  readonly options: readonly Option[] | undefined
  /** The whole intent, for parts that another field decides of, and what sets more than their own. */
  readonly intent: Readonly<Record<string, unknown>>
  readonly set: (change: Readonly<Record<string, unknown>>) => void
}

/** A value as text; empty for what is none. */
export const textOf = (value: unknown) => (typeof value === 'string' ? value : '')
