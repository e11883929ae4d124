import type { FromSchema } from 'json-schema-to-ts'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['text'],
  additionalProperties: false,
  properties: { text: { type: 'string', maxLength: 2_000_000 } },
} as const
export type ImportCatalogueIntent = FromSchema<typeof schema>

export const importCatalogueIntent = {
  kind: 'import-catalogue',
  title: 'Import a firmware catalogue',
  verb: 'Import',
  place: '/build/network',
  intentSchema: schema,
} as const satisfies IntentKind
