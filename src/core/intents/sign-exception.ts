import type { FromSchema } from 'json-schema-to-ts'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['findingKey', 'findingTitle', 'reason', 'until'],
  additionalProperties: false,
  properties: {
    findingKey: { type: 'string', minLength: 1, maxLength: 300 },
    findingTitle: { type: 'string', maxLength: 500 },
    reason: { type: 'string', maxLength: 1000 },
    /** A day, such as `2026-06-30`; empty while it is not chosen. */
    until: { type: 'string', maxLength: 10 },
  },
} as const
export type SignExceptionIntent = FromSchema<typeof schema>

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
  intentSchema: schema,
} as const satisfies IntentKind
