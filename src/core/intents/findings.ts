import type { IntentKind, IntentOf } from './IntentKind'

const signExceptionSchema = {
  type: 'object',
  required: ['findingKey', 'findingTitle', 'reason', 'until'],
  additionalProperties: false,
  properties: {
    findingKey: { type: 'string', minLength: 1, maxLength: 300 },
    findingTitle: { type: 'string', maxLength: 500 },
    /** How grave it was when it was signed; where it gets graver it stands no more. */
    gravity: { enum: ['now', 'soon', 'note'] },
    reason: { type: 'string', maxLength: 1000 },
    /** A day, such as `2026-06-30`; empty while it is not chosen. */
    until: { type: 'string', maxLength: 10 },
  },
} as const
export type SignExceptionIntent = IntentOf<typeof signExceptionSchema>

export const signExceptionIntent = {
  kind: 'sign-exception',
  title: 'Sign an exception for a finding',
  verb: 'Sign',
  place: '/build/network?finding={findingKey}',
  form: {
    fields: [
      {
        field: 'reason',
        label: 'Why it may stand',
        hint: 'At least ten characters; whoever reads it later should understand.',
        as: 'lines',
      },
      { field: 'until', label: 'Until', hint: 'A year at most; then it calls for work again.', as: 'day' },
    ],
  },
  intentSchema: signExceptionSchema,
} as const satisfies IntentKind

const importCatalogueSchema = {
  type: 'object',
  required: ['text'],
  additionalProperties: false,
  properties: { text: { type: 'string', maxLength: 2_000_000 } },
} as const
export type ImportCatalogueIntent = IntentOf<typeof importCatalogueSchema>

export const importCatalogueIntent = {
  kind: 'import-catalogue',
  title: 'Import a firmware catalogue',
  verb: 'Import',
  place: '/build/network',
  form: {
    fields: [
      {
        field: 'text',
        label: 'Catalogue file',
        hint: 'JSON, format wendrel-firmware-catalogue-1. It is read here; nothing goes to its maker.',
        as: 'file',
      },
    ],
  },
  intentSchema: importCatalogueSchema,
} as const satisfies IntentKind

/** What is found: exceptions, and catalogues to find by. */
export const findingIntents: readonly IntentKind[] = [signExceptionIntent, importCatalogueIntent]
