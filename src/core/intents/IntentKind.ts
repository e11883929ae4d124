import type { FromSchema, JSONSchema } from 'json-schema-to-ts'

/** What can be asked for by a kind of change: its words, its schema, its form, and where in the interface it is drafted. */
export interface IntentKind {
  readonly kind: string
  /** What it does, as a command says it: `Create a pool`. */
  readonly title: string
  /** What the button says that carries it out. */
  readonly verb: string
  /**
   * The address of the page on which it is drafted, with fields of the intent in braces; undefined for what nobody drafts by hand.
   * Of a field that is a list, the first stands there.
   */
  readonly place?: string
  /** Where its command leads before anything is chosen that it is about; its place where that says nothing of an object. */
  readonly begins?: string
  /** How it is offered beside the object that it is about: in a word, and only while the object is so. */
  readonly offer?: {
    readonly words: string
    readonly when: Readonly<Record<string, unknown>>
    /** It is seldom wanted, and stands behind what often is. */
    readonly isRare?: true
  }
  readonly intentSchema: object
  /** Fields of text that a link to it may fill in. */
  readonly filledByLink?: readonly string[]
  /** What it begins with, where that is not nothing. */
  readonly start?: Readonly<Record<string, unknown>>
  /** The field that names what it alters; empty where it makes a new one. What is altered begins it. */
  readonly alters?: string
  /** Its form; undefined for what nobody drafts by hand. */
  readonly form?: IntentForm
}

export interface IntentForm {
  /** What one should know before filling it in. */
  readonly lead?: string
  readonly fields: readonly FormField[]
}

export interface FormField {
  readonly field: string
  readonly label: string
  readonly hint?: string
  /**
   * How it is filled in. A size says its echo in the other family of units; a typed name is compared with the object's own; a suggested
   * name takes what the plan suggests; a part is drawn by the page that the draft stands on (bays, addresses).
   */
  readonly as:
    | 'text'
    | 'identifier'
    | 'suggested name'
    | 'typed name'
    | 'size'
    | 'number'
    | 'number or none'
    | 'numbers'
    | 'lines'
    | 'day'
    | 'file'
    | 'secret'
    | 'export rules'
    | 'access list'
    | 'share grants'
    | 'certificate'
    | 'person'
    | 'quotas'
    | 'file rules'
    | 'one of'
    | 'some of'
    | 'side by side'
    | 'tick'
    | 'part'
  /** What the choices are; a text field only suggests them. */
  readonly choices?: FieldChoices
  /** What a secret is kept for. */
  readonly purpose?: string
  /** The few that stand side by side; a value may be anything that the field may hold. */
  readonly options?: readonly { readonly value: unknown; readonly words: string }[]
  /** Stands beside the one before it. */
  readonly isBeside?: boolean
  /** Is asked for only while another field is so; `filled` where that has only to hold something, `blank` where it must not. */
  readonly onlyWhile?: { readonly field: string; readonly is: string | readonly string[] }
}

export type FieldChoices =
  | 'directories'
  | 'file services'
  | 'hosts with an agent'
  | 'systems that serve files'
  | 'systems'
  | 'host groups'
  | 'host groups or none'
  | 'host groups that see it'
  | 'hosts that see it'
  | 'names of host groups'
  | 'names of applications'
  | 'pools'
  | 'pools of its system'
  | 'pools of its partners'
  | 'pools or none'
  | 'routes'
  | 'service classes'
  | 'snapshots of it'
  | 'sites'
  | 'sites or none'

interface SchemaOfIntent {
  readonly properties: Readonly<
    Record<
      string,
      {
        readonly type?: unknown
        readonly maxLength?: number
        readonly minimum?: number
        readonly maximum?: number
      }
    >
  >
  readonly required: readonly string[]
}

/** An intent in which nothing has been filled in yet: texts are empty, lists too, and what is on or off is off. */
export function blankIntent({
  intentSchema,
  start = {},
}: Pick<IntentKind, 'intentSchema' | 'start'>): Record<string, unknown> {
  const { properties, required } = intentSchema as SchemaOfIntent
  const blank = Object.fromEntries(
    required.map(field => {
      const type = properties[field]?.type
      return [field, type === 'array' ? [] : type === 'boolean' ? false : type === 'string' ? '' : null]
    }),
  )
  return { ...blank, ...start }
}

/** An intent that alters something, as it is now: each field that both have. A list that is written as text has a line each. */
export function alteringIntent(
  kind: Pick<IntentKind, 'intentSchema' | 'start' | 'alters'>,
  now: Readonly<Record<string, unknown>>,
): Record<string, unknown> {
  const { properties } = kind.intentSchema as SchemaOfIntent
  const same = Object.entries(properties).flatMap(([field, { type }]) => {
    if (!(field in now) || field === kind.alters) return []
    const value = now[field]
    if (type !== 'string') return [[field, value] as const]
    return [[field, Array.isArray(value) ? value.join('\n') : (value ?? '')] as const]
  })
  return {
    ...blankIntent(kind),
    ...Object.fromEntries(same),
    ...(kind.alters === undefined ? {} : { [kind.alters]: now['id'] }),
  }
}

/** How long a text of an intent may be (characters), and how small and large a number. */
export const boundsOf = (
  { intentSchema }: Pick<IntentKind, 'intentSchema'>,
  field: string,
): { readonly maxLength?: number; readonly minimum?: number; readonly maximum?: number } =>
  (intentSchema as SchemaOfIntent).properties[field] ?? {}

type Unaltered<T> = T extends readonly (infer Item)[]
  ? readonly Unaltered<Item>[]
  : T extends object
    ? { readonly [Key in keyof T]: Unaltered<T[Key]> }
    : T

/** What an intent is, by its schema; nobody alters one. */
export type IntentOf<Schema extends JSONSchema> = Unaltered<FromSchema<Schema>>

/** Whether a page draws a part of its form: bays, addresses. */
export const isDrawn = ({ form }: IntentKind) => form?.fields.some(field => field.as === 'part') === true
